// Renders the elements' Chip.
import ElementsChip from '@rneui/themed/dist/Chip'

import { fonts, TOUCH, usePalette } from '../theme/theme'

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
    <ElementsChip
      role={role}
      aria-checked={isChosen}
      aria-label={text}
      onPress={onPress}
      title={role === 'checkbox' && isChosen ? `✓ ${text}` : text}
      titleStyle={{
        fontFamily: fonts.strong,
        fontSize: 13,
        lineHeight: 17,
        paddingHorizontal: 0,
        paddingVertical: 0,
        color: isChosen ? palette.ink : palette.muted,
      }}
      radius={6}
      buttonStyle={{
        minHeight: TOUCH,
        minWidth: TOUCH,
        padding: 0,
        paddingHorizontal: 12,
        borderWidth: 1,
        borderColor: isChosen ? palette.kelp : palette.line,
        backgroundColor: isChosen ? palette.kelpWash : 'transparent',
      }}
    />
  )
}
