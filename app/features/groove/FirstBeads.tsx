import { readyOn, readyPatterns } from '@heliaster/core/groove/ready'
import { View } from 'react-native'

import { grooveState, startGroove } from '../../audio/playing/groove-player'
import { makeId } from '../../documents/make-id'
import { Button } from '../../ui/controls/Button'
import { Text } from '../../ui/layout/Text'
import type { BeadHands } from './hands/use-bead-hands'

const OFFERED = readyPatterns.filter(({ isFill }) => !isFill).slice(0, 3)

/** A groove without beads moves at one tap: a ready one is laid in it and plays. */
export function FirstBeads({ hands }: { readonly hands: BeadHands }) {
  const { kit, groove } = hands
  const begin = (pattern: (typeof OFFERED)[number]) => {
    const { groove: ready } = readyOn(makeId, kit, pattern)
    hands.edit({ ...ready, id: groove.id, name: groove.name === 'Groove' ? ready.name : groove.name })
    if (!grooveState.getState().playing) startGroove(kit.id)
  }
  return (
    <View role="group" aria-label="Begin with a ready groove" style={{ paddingHorizontal: 16, paddingTop: 6, gap: 6 }}>
      <Text look="small" tone="muted">
        Tap a step to put a bead there, or hear the kit move:
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {OFFERED.map((pattern) => (
          <Button key={pattern.name} label={pattern.name} icon="play-outline" onPress={() => begin(pattern)} />
        ))}
      </View>
    </View>
  )
}
