import type { Kit, Performance, PerformanceId } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { performances } from '../../documents'
import { useKit } from '../../kit-view'
import { Text } from '../../ui/layout/Text'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { usePalette } from '../../ui/theme/theme'
import { PerformanceBench } from './bench/PerformanceBench'
import { JustPlayed } from './JustPlayed'
import { KeptList } from './KeptList'

/** What was played: the last ten minutes, and what of them was kept. */
export function PerformancesScreen() {
  const isWide = useIsWide()
  const kit = useKit()
  const [openId, setOpenId] = useState<PerformanceId>()
  const kept = useKept(kit)
  if (!kit) return null
  const open = kept.find(({ id }) => id === openId) ?? (isWide ? kept[0] : undefined)
  const lists = (
    <>
      <Text look="title">Performances</Text>
      <JustPlayed kit={kit} kept={kept} onKept={setOpenId} />
      <KeptList kit={kit} kept={kept} openId={open?.id} onOpen={setOpenId} />
    </>
  )
  if (!isWide)
    return open ? (
      <PerformanceBench key={open.id} kit={kit} performance={open} onLeave={() => setOpenId(undefined)} />
    ) : (
      <ScrollView contentContainerStyle={{ padding: 20, gap: 18 }}>{lists}</ScrollView>
    )
  return <TwoPanes list={lists}>{open && <PerformanceBench key={open.id} kit={kit} performance={open} />}</TwoPanes>
}

function TwoPanes({ list, children }: { readonly list: React.ReactNode; readonly children: React.ReactNode }) {
  const palette = usePalette()
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      <ScrollView
        style={{ width: 400, flexGrow: 0, flexShrink: 0, borderRightWidth: 1, borderRightColor: palette.faint }}
        contentContainerStyle={{ padding: 20, gap: 18 }}
      >
        {list}
      </ScrollView>
      <View style={{ flex: 1, minWidth: 0 }}>
        {children || (
          <Text tone="muted" style={{ padding: 28, maxWidth: 460 }}>
            Play the pads, with fingers, keys or MIDI, in any place. What you played stands on the left for ten minutes; keep what was good,
            and it opens here.
          </Text>
        )}
      </View>
    </View>
  )
}

/** The performances of a kit, the newest first. */
function useKept(kit: Kit | undefined): Performance[] {
  const entries = useStore(performances.store, (state) => state.entries)
  return useMemo(
    () =>
      Object.values(entries)
        .map(({ doc }) => doc)
        .filter(({ kitId }) => kitId === kit?.id)
        .sort((a, b) => b.playedAt - a.playedAt),
    [entries, kit?.id],
  )
}
