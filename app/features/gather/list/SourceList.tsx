import type { Source, SourceId } from '@heliaster/core/kit'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { StyleSheet, View } from 'react-native'
import type { ViewStyle } from 'react-native'
import { useStore } from 'zustand'

import { sources } from '../../../documents'
import { Button } from '../../../ui/controls/Button'
import { FileDrop } from '../../../ui/controls/FileDrop'
import { Text } from '../../../ui/layout/Text'
import { Waiting } from '../../../ui/layout/Waiting'
import { useLatest } from '../../../ui/pointer/use-latest'
import { useSession } from '../../../kit-view'
import { session } from '../../../kit-view/session'
import { FirstHearing } from '../import/FirstHearing'
import { ImportReport } from '../import/ImportReport'
import { DragTicks } from './DragTicks'
import { KinBar } from './KinBar'
import { LibraryBar } from './LibraryBar'
import { isNarrowed, showAll } from './library-view'
import { useListKeys } from './list-keys'
import { useRowSlots } from './row-slots'
import { withRow } from './selection'
import type { Selecting } from './selection'
import { SelectionBar } from './SelectionBar'
import { SoundSheet } from '../sheets/SoundSheet'
import { hearSound, judgeSound } from './sound-actions'
import { SOURCE_ROW_HEIGHT, SourceRow } from './SourceRow'
import type { RowActions } from './SourceRow'
import { useImport } from '../import/use-import'
import { useShownSounds } from './use-library'

interface Props {
  readonly onCut: (source: Source) => void
  /** It stands beside something that needs the room. */
  readonly isNarrow?: boolean
}

const OVERSCAN = 4
const NONE: readonly Source[] = []

/** Recordings and files: found, heard, judged, selected, and opened in Cut. */
export function SourceList({ onCut, isNarrow = false }: Props) {
  const { all, own, shown: wanted, view, query } = useShownSounds()
  const shown = useDeferredValue(wanted, NONE) // the place opens first, its rows right after
  const chosenId = useSession((state) => state.sourceId)
  const [openId, setOpenId] = useState<SourceId>()
  const [selecting, setSelecting] = useState<Selecting>()
  const selection = selecting?.chosen
  const setSelection = (chosen: ReadonlySet<SourceId> | undefined) => setSelecting(chosen && { chosen })
  const imports = useImport()
  const [first, setFirst] = useState<readonly File[]>()
  const bringIn = (files: readonly File[]) => (view.hearsFirst && files.length > 0 ? setFirst(files) : imports.take(files))
  const scroller = useRef<View>(null)
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current as unknown as HTMLElement | null,
    estimateSize: () => SOURCE_ROW_HEIGHT,
    getItemKey: (index) => shown[index].id,
    overscan: OVERSCAN,
    useFlushSync: false,
  })
  const latest = useLatest({ onCut, shown })
  const actions = useMemo<RowActions>(
    () => ({
      hear: (source) => {
        session.setState({ sourceId: source.id })
        hearSound(source)
      },
      cut: (source) => latest.current.onCut(source),
      open: (source) => setOpenId(source.id),
      judge: judgeSound,
      select: ({ id }, isRange) =>
        setSelecting((before) =>
          withRow(
            before ?? { chosen: new Set() },
            latest.current.shown.map((one) => one.id),
            id,
            isRange,
          ),
        ),
    }),
    [latest],
  )
  const keys = useListKeys({ shown: wanted, chosenId, rows, actions, hearsOnSelect: view.hearsOnSelect })
  const open = openId && sources.store.getState().entries[openId] ? all.find((source) => source.id === openId) : undefined
  useEffect(() => {
    const at = wanted.findIndex((source) => source.id === session.getState().sourceId)
    if (at >= 0 && shown.length > 0) rows.scrollToIndex(at, { align: 'auto' })
    // Only when the list is first seen; later it stays where the person has scrolled it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [shown.length > 0])
  useEffect(() => {
    if (query) rows.scrollToOffset(0)
  }, [query, rows])
  const items = rows.getVirtualItems()
  const drawn = useRowSlots(items[0]?.index ?? 0, items.at(-1)?.index ?? -1)
  return (
    <FileDrop onFiles={bringIn}>
      <LibraryBar
        total={all.length}
        own={own.length}
        view={view}
        tagged={all}
        isSelecting={selection !== undefined}
        onSelect={() => setSelection(new Set())}
        onFiles={bringIn}
      />
      {imports.progress && (
        <ImportReport
          progress={imports.progress}
          onCut={onCut}
          onOpen={(source) => setOpenId(source.id)}
          onCancel={imports.cancel}
          onClose={imports.close}
        />
      )}
      {query && <KinBar query={query} all={all} count={wanted.length} />}
      {wanted.length === 0 ? (
        <Nothing isSearching={view.words !== '' || isNarrowed(view) || query !== undefined} others={all.length - own.length} />
      ) : (
        <View ref={scroller} {...keys} aria-label="Sounds" style={{ flex: 1, minHeight: 0, overflow: 'scroll' }}>
          <View style={{ height: rows.getTotalSize(), flexShrink: 0 }}>
            {drawn.map(
              ({ slot, index }) =>
                index < shown.length && (
                  <View key={slot} style={[styles.place, { top: index * SOURCE_ROW_HEIGHT }]}>
                    <SourceRow
                      source={shown[index]}
                      chosen={shown[index].id === chosenId}
                      selected={selection?.has(shown[index].id)}
                      actions={actions}
                      hasWave={!isNarrow}
                    />
                  </View>
                ),
            )}
            {selection && (
              <DragTicks order={shown.map(({ id }) => id)} selection={selection} scroller={scroller} onSelecting={setSelecting} />
            )}
          </View>
        </View>
      )}
      {selection && <SelectionBar shown={shown} selection={selection} onSelection={setSelection} />}
      {first && <FirstHearing files={first} onTake={imports.take} onClose={() => setFirst(undefined)} />}
      {open && <SoundSheet source={open} onClose={() => setOpenId(undefined)} onCut={onCut} />}
    </FileDrop>
  )
}

const styles = StyleSheet.create({
  place: { position: 'absolute', left: 0, right: 0, height: SOURCE_ROW_HEIGHT, contain: 'strict' } as ViewStyle,
})

function Nothing({ isSearching, others }: { readonly isSearching: boolean; readonly others: number }) {
  const loaded = useStore(sources.store, (state) => state.loaded)
  if (!loaded) return <Waiting words="Reading the sounds" />
  return (
    <View style={{ padding: 20, gap: 12, alignItems: 'flex-start' }}>
      <Text tone="muted">
        {isSearching
          ? 'No sound is like this.'
          : `Nothing of this kit yet. Record something, or import files: WAV, AIFF, FLAC, MP3, Ogg or Opus.`}
      </Text>
      {isSearching && <Button label="Show all sounds" onPress={() => showAll()} />}
      {!isSearching && others > 0 && (
        <Button label={others === 1 ? 'Show the one of other kits' : `Show all ${others} of other kits`} onPress={() => showAll()} />
      )}
    </View>
  )
}
