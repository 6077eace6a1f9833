import type { Kit, Pad } from '@heliaster/core/kit'
import { View } from 'react-native'

import { nearestNote, useNoteName } from '../../kit-view/note-name'
import { hearAgain, padName } from '../../kit-view/use-kit'
import { IconButton } from '../../ui/controls/Button'
import { Text } from '../../ui/layout/Text'
import type { DrawnHit } from './chart/use-drawn-hit'
import { useBefore } from './whom/use-before'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly drawn: DrawnHit | undefined
  readonly baseHz: number | undefined
}

/** What is shaped, at which pitch it is; heard as it is, and as it was when one came to it. */
export function ShapeTitle({ kit, pad, drawn, baseHz }: Props) {
  const noteName = useNoteName()
  const before = useBefore(kit, pad, drawn)
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      <View style={{ flex: 1, flexDirection: 'row', alignItems: 'baseline', gap: 10, minWidth: 0 }}>
        <Text look="heading" numberOfLines={1} style={{ flexShrink: 1 }}>
          {padName(kit, pad)}
        </Text>
        <Text look="figures" tone="muted" numberOfLines={1} style={{ flexShrink: 0 }}>
          {baseHz ? `${baseHz.toFixed(1)} Hz, ${noteName(nearestNote(baseHz, kit.tuningA4Hz).note)}` : drawn ? 'unpitched' : ''}
        </Text>
      </View>
      <IconButton
        name="history"
        label="Hear it as it was when you came, as loud as now"
        disabled={!before.hasChanged}
        onPress={() => void before.hear()}
      />
      <IconButton name="volume-high" label={`Hear ${padName(kit, pad)}`} onPress={() => hearAgain(kit.id, pad.id)} />
    </View>
  )
}
