import { TextInput, View } from 'react-native'

import { Text } from '../layout/Text'
import { fonts, TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  readonly value: string
  readonly onChange: (words: string) => void
  readonly onEnter?: () => void
  readonly autoFocus?: boolean
}

/** Words that count as they are typed. */
export function WordField({ label, value, onChange, onEnter, autoFocus }: Props) {
  const palette = usePalette()
  return (
    <View>
      <Text look="label" tone="muted">
        {label}
      </Text>
      <TextInput
        aria-label={label}
        value={value}
        autoFocus={autoFocus}
        onChangeText={onChange}
        onSubmitEditing={onEnter}
        submitBehavior={onEnter ? 'submit' : undefined}
        autoCapitalize="none"
        style={{
          minHeight: TOUCH,
          fontFamily: fonts.text,
          fontSize: 16,
          color: palette.ink,
          borderBottomWidth: 1,
          borderBottomColor: palette.line,
        }}
      />
    </View>
  )
}
