import { playedInTime } from '@heliaster/core/kit'
import type { Source, SourceId } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useMemo } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sources } from '../../../documents'
import { useKitId } from '../../../kit-view'
import { useOwnSounds } from '../../../kit-view/own-sounds'
import { session } from '../../../kit-view/session'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { RecordPanel } from '../../record'

const SHORTEST_SECONDS = 3
const MOST_SHOWN = 24

/** Drummed with hands on a table, or made by mouth: recorded here or before, it becomes pads with the groove that was played. */
export function RhythmSheet({ onClose }: { readonly onClose: () => void }) {
  const kitId = useKitId()
  const entries = useStore(sources.store, (state) => state.entries)
  const all = useMemo(() => Object.values(entries).map(({ doc }) => doc), [entries])
  const own = useOwnSounds(all)
  const long = own.filter(({ info }) => info.frames / info.sampleRateHz >= SHORTEST_SECONDS).slice(0, MOST_SHOWN)
  const take = ({ id }: Pick<Source, 'id'>) => {
    cutInTime(id)
    session.setState({ sourceId: id, asRhythm: id })
    onClose()
    router.navigate(`/kit/${kitId}/cut`)
  }
  return (
    <Sheet title="From a rhythm of your own" isOpen onClose={onClose}>
      <Text>Drum with your hands on a table, or make the sounds by mouth, for some bars. What was struck becomes pads, and what you played their groove.</Text>
      <RecordPanel onTaken={take} isSlim={false} onSlim={onClose} />
      {long.length > 0 && (
        <View>
          <Chips
            label="Or a recording of this kit"
            options={long.map(({ id, name }) => ({ value: id as string, text: name }))}
            value={undefined}
            onChoose={(id) => take({ id: id as SourceId })}
          />
        </View>
      )}
    </Sheet>
  )
} // prettier-ignore

/** A rhythm is cut as one: what falls on its pulse is sooner a strike. Where marks or a grid cut it, they stay. */
function cutInTime(id: SourceId): void {
  const cut = sources.store.getState().entries[id]?.doc.cut
  if (cut && !cut.grid && !cut.inTime) sources.edit(id, [{ type: 'setSource', fields: { cut: playedInTime(cut, true) } }])
}
