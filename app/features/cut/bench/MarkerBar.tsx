import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { Button, IconButton } from '../../../ui/controls/Button'
import { More } from '../../../ui/layout/More'
import type { Act } from '../../../ui/layout/More'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { ListSheet, orderWords } from '../hits/ListBar'
import { benchActs, partActs } from './acts'
import { cutLooks } from './looks'
import type { Bench } from './use-bench'

interface Props {
  readonly bench: Bench
  readonly onDetails: () => void
  readonly onNames: () => void
  readonly onRepairs: () => void
}

/** From hit to hit, and what is done to the chosen one; what matters less, and on a phone the list too, behind one word. */
export function MarkerBar({ bench, onDetails, onNames, onRepairs }: Props) {
  const isWide = useIsWide()
  const looks = useStore(cutLooks)
  const [isOrdering, setOrdering] = useState(false)
  const { add, passage, details, pin, remove, zoom, height, hearAll } = benchActs(bench, onDetails)
  const none = bench.hits.length === 0
  const repair: Act = { label: 'Repair', icon: 'auto-fix', disabled: none, onPress: onRepairs }
  const ofList: Act[] = [
    { label: 'Name hits', icon: 'tag-outline', disabled: none, onPress: onNames },
    hearAll,
    { label: `Order of the list: ${orderWords(bench.listView)}`, icon: 'sort', onPress: () => setOrdering(true) },
  ]
  const shown: Act[] = isWide ? [add, passage, details, remove] : [add, details, repair]
  const behind: Act[] = isWide ? [pin, zoom, height] : [passage, remove, pin, ...ofList, zoom, height]
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', paddingHorizontal: isWide ? 8 : 0 }}>
      <IconButton name="chevron-left" label="Previous hit" onPress={() => bench.step(-1)} />
      <IconButton name="chevron-right" label="Next hit" onPress={() => bench.step(1)} />
      {shown.map(({ label, disabled, onPress }) => (
        <Button key={label} kind="quiet" label={label} disabled={disabled} onPress={onPress} />
      ))}
      <View style={{ flex: 1 }} />
      <More title="The recording" kind="quiet" acts={[...behind, ...partActs(looks, isWide)]} />
      {isOrdering && <ListSheet hits={bench.hits} view={bench.listView} onView={bench.setListView} onClose={() => setOrdering(false)} />}
    </View>
  )
}
