import { TextInput } from 'react-native'

import { fonts, TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly value: string
  readonly placeholder: string
  readonly onChange: (words: string) => void
}

/** Narrows a list by words in its names. */
export function SearchField({ value, placeholder, onChange }: Props) {
  const palette = usePalette()
  return (
    <TextInput
      aria-label="Find by name"
      placeholder={placeholder}
      placeholderTextColor={palette.muted}
      value={value}
      onChangeText={onChange}
      style={{
        flex: 1,
        minWidth: 0,
        minHeight: TOUCH,
        fontFamily: fonts.text,
        fontSize: 16,
        color: palette.ink,
        borderBottomWidth: 1,
        borderBottomColor: palette.line,
      }}
    />
  )
}
