import type { Insert, Kit, KitEdit } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { kitGesture, padName } from '../../../kit-view/use-kit'
import { Text } from '../../../ui/layout/Text'
import type { Chosen } from '../chosen'
import { InsertList } from '../effects/InsertList'
import { BusPanel } from './BusPanel'
import { MixMovers } from './MixMovers'
import { PadPanel } from './PadPanel'
import { StrikesAtOnce } from './StrikesAtOnce'

export function titleOf(kit: Kit, chosen: Chosen): string {
  if (chosen.of === 'whole') return 'The whole kit'
  if (chosen.of === 'bus') return kit.buses.find(({ id }) => id === chosen.id)?.name ?? 'A bus'
  const pad = kit.pads.find(({ id }) => id === chosen.id)
  return pad ? padName(kit, pad) : 'A pad'
}

/** What stands behind a line of the mix. */
export function MixPanel({ kit, chosen }: { readonly kit: Kit; readonly chosen: Chosen }) {
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  if (chosen.of === 'pad') {
    const pad = kit.pads.find(({ id }) => id === chosen.id)
    return pad ? <PadPanel kit={kit} pad={pad} gesture={gesture} /> : null
  }
  if (chosen.of === 'bus') {
    const bus = kit.buses.find(({ id }) => id === chosen.id)
    return bus ? <BusPanel kit={kit} bus={bus} gesture={gesture} /> : null
  }
  const edits = (inserts: readonly Insert[]): KitEdit[] => [{ type: 'setKit', fields: { inserts: [...inserts] } }]
  return (
    <View style={{ gap: 12 }}>
      <Text look="small" tone="muted">
        Everything passes here: all pads, all buses and returns.
      </Text>
      <InsertList
        kit={kit}
        inserts={kit.inserts}
        onSlide={(inserts) => gesture.set(edits(inserts))}
        onDone={gesture.end}
        onChange={(inserts, more = []) => editKit(kit.id, [...more, ...edits(inserts)])}
      />
      <MixMovers kit={kit} gesture={gesture} />
      <StrikesAtOnce kit={kit} gesture={gesture} />
    </View>
  )
}
