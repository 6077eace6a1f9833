import type { Kit, Pad } from '@heliaster/core/kit'
import { Pressable } from 'react-native'

import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'
import { PadGlyph } from './PadGlyph'
import { padName } from './use-kit'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  /** One of several pads, or any of them. */
  readonly role: 'radio' | 'checkbox'
  readonly isChosen: boolean
  /** Of its star, px. */
  readonly size: number
  readonly onPress: () => void
}

/** A pad that can be chosen among others: its star and its name. */
export function PadTile({ kit, pad, role, isChosen, size, onPress }: Props) {
  const palette = usePalette()
  return (
    <Pressable
      role={role}
      aria-checked={isChosen}
      aria-label={padName(kit, pad)}
      onPress={onPress}
      style={{
        width: size + 32,
        alignItems: 'center',
        padding: 6,
        borderRadius: 8,
        borderWidth: 1,
        borderColor: isChosen ? palette.kelp : palette.faint,
        backgroundColor: isChosen ? palette.kelpWash : 'transparent',
      }}
    >
      <PadGlyph kit={kit} pad={pad} size={size} />
      <Text look="small" numberOfLines={1} style={{ fontSize: 12 }}>
        {padName(kit, pad)}
      </Text>
    </Pressable>
  )
}
