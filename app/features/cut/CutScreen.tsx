import type { Source } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sources } from '../../documents'
import { Button } from '../../ui/controls/Button'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { SourceList } from '../gather'
import { useKitId, useSession } from '../../kit-view'
import { session } from '../../kit-view/session'
import { CutBench } from './bench/CutBench'
import { cutLooks } from './bench/looks'

const RECORDINGS_PX = 320

/** Where a recording is cut into hits. */
export function CutScreen() {
  const palette = usePalette()
  const isWide = useIsWide()
  const sourceId = useSession((state) => state.sourceId)
  const source = useStore(sources.store, (state) => (sourceId ? state.entries[sourceId]?.doc : undefined))
  const showsRecordings = useStore(cutLooks, (state) => state.showsRecordings)
  const choose = (chosen: Source) => session.setState({ sourceId: chosen.id })
  if (!isWide) return source ? <CutBench key={source.id} source={source} /> : <ChooseFirst onChoose={choose} />
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      {(showsRecordings || !source) && (
        <View style={{ width: RECORDINGS_PX, borderRightWidth: 1, borderRightColor: palette.faint }}>
          <SourceList onCut={choose} isNarrow />
        </View>
      )}
      <View style={{ flex: 1, minWidth: 0 }}>{source ? <CutBench key={source.id} source={source} /> : <NothingChosen />}</View>
    </View>
  )
}

function NothingChosen() {
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', padding: 24 }}>
      <Text look="heading">Choose a recording to cut</Text>
      <Text look="small" tone="muted">
        Its hits are found at once.
      </Text>
    </View>
  )
}

function ChooseFirst({ onChoose }: { readonly onChoose: (source: Source) => void }) {
  const kitId = useKitId()
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <View
        style={{ paddingHorizontal: 20, paddingVertical: 8, flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}
      >
        <Text look="heading">Choose a recording</Text>
        <Button label="Record" kind="coral" onPress={() => router.navigate(`/kit/${kitId}/gather`)} />
      </View>
      <SourceList onCut={onChoose} />
    </View>
  )
}
