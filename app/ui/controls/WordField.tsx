// Renders the elements' Input.
import Input from '@rneui/themed/dist/Input'

import { fonts, TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  readonly value: string
  readonly onChange: (words: string) => void
  readonly onEnter?: () => void
  readonly autoFocus?: boolean
  /** Room for more than one line. */
  readonly lines?: number
}

/** Words that count as they are typed. */
export function WordField({ label, value, onChange, onEnter, autoFocus, lines = 1 }: Props) {
  const palette = usePalette()
  return (
    <Input
      label={label}
      aria-label={label}
      value={value}
      autoFocus={autoFocus}
      multiline={lines > 1}
      numberOfLines={lines}
      onChangeText={onChange}
      onSubmitEditing={onEnter}
      submitBehavior={onEnter ? 'submit' : undefined}
      autoCapitalize="none"
      renderErrorMessage={false}
      labelStyle={{ fontFamily: fonts.strong, fontSize: 13, lineHeight: 17, color: palette.muted, fontWeight: undefined }}
      inputStyle={{ fontFamily: lines > 1 ? fonts.figures : fonts.text, fontSize: 16, color: palette.ink, minHeight: TOUCH }}
      inputContainerStyle={{ borderBottomColor: palette.line }}
      containerStyle={{ paddingHorizontal: 0 }}
    />
  )
}
