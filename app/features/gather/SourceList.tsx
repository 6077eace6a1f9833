import type { Source, SourceId } from '@heliaster/core/kit'
import { wholeClip } from '@heliaster/core/kit'
import { compareNames } from '@heliaster/core/place'
import { memo, useCallback, useMemo, useState } from 'react'
import { FlatList, Pressable, View } from 'react-native'
import { useStore } from 'zustand'

import { importFile } from '../../audio/import'
import type { Imported } from '../../audio/import'
import { hearClip } from '../../audio/sound'
import { sources } from '../../stores/documents'
import { Button, IconButton } from '../../ui/Button'
import { chooseFiles } from '../../ui/choose-files'
import { MiniWave, usePicture } from '../../ui/MiniWave'
import { notify } from '../../ui/notices'
import { SearchField } from '../../ui/SearchField'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { useSession } from '../shell'
import { FileDrop } from './FileDrop'
import { ImportReport } from './ImportReport'

interface Props {
  readonly onCut: (source: Source) => void
}

/** Recordings and files: heard by a tap, kept or passed, opened in Cut. */
export function SourceList({ onCut }: Props) {
  const entries = useStore(sources.store, (state) => state.entries)
  const chosen = useSession((state) => state.sourceId)
  const [words, setWords] = useState('')
  const [report, setReport] = useState<{ done: Imported[]; total: number }>()
  const list = useMemo(() => shown(Object.values(entries), words), [entries, words])
  const importFiles = useCallback(async (files: File[]) => {
    const done: Imported[] = []
    if (files.length > 0) setReport({ done, total: files.length })
    for (const file of files) {
      done.push(await importFile(file))
      setReport({ done: [...done], total: files.length })
    }
  }, [])
  return (
    <FileDrop onFiles={(files) => void importFiles(files)}>
      <View style={{ flexDirection: 'row', gap: 10, paddingHorizontal: 16, paddingVertical: 8, alignItems: 'center' }}>
        <SearchField value={words} onChange={setWords} placeholder={`Find in ${Object.keys(entries).length} sounds`} />
        <Button
          label="Import"
          icon="tray-arrow-down"
          onPress={() => void chooseFiles('.wav,audio/wav,audio/x-wav', true).then(importFiles)}
        />
      </View>
      {report && <ImportReport done={report.done} total={report.total} onClose={() => setReport(undefined)} />}
      <FlatList
        data={list}
        keyExtractor={(source) => source.id}
        renderItem={({ item }) => <SourceRow source={item} chosen={item.id === chosen} onCut={onCut} />}
        initialNumToRender={12}
        windowSize={7}
        contentContainerStyle={{ paddingBottom: 16 }}
        ListEmptyComponent={
          <Text tone="muted" style={{ padding: 20 }}>
            {words ? 'Nothing has this in its name.' : 'Nothing here yet. Record something, or import WAV files.'}
          </Text>
        }
      />
    </FileDrop>
  )
}

/** Longer than this is a recording to be cut, shorter a hit. */
const LONG_SECONDS = 5
const isLong = (source: Source) => source.info.frames / source.info.sampleRateHz > LONG_SECONDS

/** Own recordings, own files, the boatyard, and what is passed. */
function rankOf(source: Source): number {
  if (source.verdict === 'pass') return 3
  if (source.tags.includes('boatyard')) return 2
  return /^Recording \d+$/.test(source.name) ? 0 : 1
}

/** One's own recordings first, newest on top, then own files and the boatyard by name; what is passed goes last. */
function shown(entries: readonly { doc: Source; changedAt: number }[], words: string): Source[] {
  const wanted = words.trim().toLowerCase()
  const compare = (a: Source, b: Source) => {
    if (rankOf(a) === 0) return compareNames(b.name, a.name)
    return Number(isLong(b)) - Number(isLong(a)) || compareNames(a.name, b.name)
  }
  return entries
    .map((entry) => entry.doc)
    .filter((source) => `${source.name} ${source.tags.join(' ')}`.toLowerCase().includes(wanted))
    .sort((a, b) => rankOf(a) - rankOf(b) || compare(a, b))
}

const SourceRow = memo(function SourceRow({
  source,
  chosen,
  onCut,
}: {
  readonly source: Source
  readonly chosen: boolean
  readonly onCut: (source: Source) => void
}) {
  const palette = usePalette()
  const picture = usePicture(source.audio)
  const seconds = source.info.frames / source.info.sampleRateHz
  const hear = () => {
    hearClip(wholeClip(source.audio, source.info)).catch((error: Error) => notify(error.message))
  }
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 4,
        paddingHorizontal: 8,
        height: 60,
        borderBottomWidth: 1,
        borderBottomColor: palette.faint,
        backgroundColor: chosen ? palette.surface : 'transparent',
        opacity: source.verdict === 'pass' ? 0.55 : 1,
      }}
    >
      <IconButton name="play-outline" label={`Hear ${source.name}`} onPress={hear} />
      <Pressable
        role="button"
        aria-label={`Cut ${source.name}`}
        onPress={() => onCut(source)}
        style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 10, height: '100%', minWidth: 0 }}
      >
        <View style={{ flex: 1, minWidth: 0 }}>
          <Text look="strong" numberOfLines={1} style={{ fontSize: 15, lineHeight: 20 }}>
            {source.name}
          </Text>
          <Text look="figures" tone="muted" numberOfLines={1} style={{ fontSize: 12 }}>
            {seconds >= 60 ? `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}` : `${seconds.toFixed(2)} s`}
            {picture && Number.isFinite(picture.loudnessDb)
              ? `, ${picture.peakDb.toFixed(1)} dB, ${picture.loudnessDb.toFixed(0)} LUFS`
              : ''}
          </Text>
        </View>
        <MiniWave audio={source.audio} width={60} height={34} />
      </Pressable>
      <IconButton
        name={source.verdict === 'keep' ? 'check-circle' : source.verdict === 'pass' ? 'close-circle-outline' : 'circle-outline'}
        tone={source.verdict === 'keep' ? 'kelp' : 'muted'}
        label={`${source.name} is ${source.verdict === 'open' ? 'not judged' : source.verdict === 'keep' ? 'kept' : 'passed'}; change`}
        onPress={() => judge(source.id, source.verdict)}
      />
    </View>
  )
})

function judge(sourceId: SourceId, verdict: Source['verdict']): void {
  const next = { open: 'keep', keep: 'pass', pass: 'open' } as const
  sources.edit(sourceId, [{ type: 'setSource', fields: { verdict: next[verdict] } }])
}
