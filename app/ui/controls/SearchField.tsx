// Renders the elements' SearchBar.
import SearchBar from '@rneui/themed/dist/SearchBar'

import { Icon } from '../drawing/Icon'
import { fonts, TOUCH, usePalette } from '../theme/theme'
import { IconButton } from './Button'

interface Props {
  readonly value: string
  readonly placeholder: string
  readonly onChange: (words: string) => void
}

/** Narrows a list by words in its names; one press takes them away again. */
export function SearchField({ value, placeholder, onChange }: Props) {
  const palette = usePalette()
  return (
    <SearchBar
      platform="default"
      aria-label="Find by name"
      placeholder={placeholder}
      placeholderTextColor={palette.muted}
      value={value}
      onChangeText={onChange}
      searchIcon={<Icon name="magnify" size={20} color={palette.muted} />}
      clearIcon={value ? <IconButton name="close" tone="muted" label="Show all names" onPress={() => onChange('')} /> : <></>}
      containerStyle={{ flex: 1, minWidth: 0, padding: 0, backgroundColor: 'transparent', borderTopWidth: 0, borderBottomWidth: 0 }}
      inputContainerStyle={{
        backgroundColor: 'transparent',
        minHeight: TOUCH,
        borderRadius: 0,
        borderBottomWidth: 1,
        borderBottomColor: palette.line,
      }}
      leftIconContainerStyle={{ marginLeft: 0, marginRight: 0, paddingRight: 4 }}
      rightIconContainerStyle={{ marginRight: 0, marginVertical: 0 }}
      inputStyle={{ fontFamily: fonts.text, fontSize: 16, color: palette.ink, minHeight: TOUCH, marginLeft: 4 }}
    />
  )
}
