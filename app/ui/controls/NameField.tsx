// Renders the elements' Input.
import Input from '@rneui/themed/dist/Input'
import { useEffect, useState } from 'react'

import { fonts, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  readonly value: string
  readonly onName: (name: string) => void
  readonly placeholder?: string
  readonly autoFocus?: boolean
}

/** A name, typed where it stands; it counts when Enter is pressed or the field is left. */
export function NameField({ label, value, onName, placeholder, autoFocus }: Props) {
  const palette = usePalette()
  const [draft, setDraft] = useState(value)
  useEffect(() => setDraft(value), [value])
  const take = () => draft !== value && onName(draft)
  return (
    <Input
      label={label}
      aria-label={label}
      value={draft}
      placeholder={placeholder}
      placeholderTextColor={palette.muted}
      autoFocus={autoFocus}
      selectTextOnFocus
      onChangeText={setDraft}
      onBlur={take}
      onSubmitEditing={take}
      renderErrorMessage={false}
      labelStyle={{ fontFamily: fonts.strong, fontSize: 13, color: palette.muted, fontWeight: undefined }}
      inputStyle={{ fontFamily: fonts.text, fontSize: 17, color: palette.ink, minHeight: 44 }}
      inputContainerStyle={{ borderBottomColor: palette.line }}
      containerStyle={{ paddingHorizontal: 0 }}
    />
  )
}
