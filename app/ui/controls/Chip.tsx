import { Pressable } from 'react-native'

import { Text } from '../layout/Text'
import { TOUCH, usePalette } from '../theme/theme'

interface Props {
  /** One of a few, or any of several. */
  readonly role: 'radio' | 'checkbox'
  readonly text: string
  readonly isChosen: boolean
  readonly onPress: () => void
}

/** A word that can be chosen; the chosen one stands on water, and of several it is ticked. */
export function Chip({ role, text, isChosen, onPress }: Props) {
  const palette = usePalette()
  return (
    <Pressable
      role={role}
      aria-checked={isChosen}
      aria-label={text}
      onPress={onPress}
      style={{
        minHeight: TOUCH - 4,
        justifyContent: 'center',
        paddingHorizontal: 12,
        borderRadius: 6,
        borderWidth: 1,
        borderColor: isChosen ? palette.kelp : palette.line,
        backgroundColor: isChosen ? palette.kelpWash : 'transparent',
      }}
    >
      <Text look="label" tone={isChosen ? 'ink' : 'muted'}>
        {role === 'checkbox' && isChosen ? `✓ ${text}` : text}
      </Text>
    </Pressable>
  )
}
