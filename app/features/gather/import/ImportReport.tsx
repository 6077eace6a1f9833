import type { Source } from '@heliaster/core/kit'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { soundsOf } from '../../../audio/import/import'
import type { Imported, ImportProgress } from '../../../audio/import/import'
import { sources } from '../../../documents'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Progress } from '../../../ui/layout/Progress'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { PlaceSheet } from '../../place'
import { StereoQuestion } from '../sheets/StereoQuestion'

interface Props {
  readonly progress: ImportProgress
  /** What comes next for a single file: it is cut, or it is opened and put on a pad. */
  readonly onCut: (source: Source) => void
  readonly onOpen: (source: Source) => void
  readonly onCancel: () => void
  readonly onClose: () => void
}

const MOST_LINES = 200
const LEAST_HEIGHT = 96
const MOST_HEIGHT = 240

/** How an import goes: how many are in, and for each that failed why. The rest is kept. */
export function ImportReport({ progress, onCut, onOpen, onCancel, onClose }: Props) {
  const palette = usePalette()
  const { done, total, state } = progress
  const isRunning = state === 'running'
  const [isPlacing, setPlacing] = useState(false)
  const entries = useStore(sources.store, (state) => state.entries)
  // What came in may have been renamed or deleted since.
  const taken = soundsNow(done, entries)
  const nameOf = (source: Source) => entries[source.id]?.doc.name ?? source.name
  const lines = linesOf(done, nameOf)
  return (
    <View
      role="status"
      aria-live="polite"
      style={{
        marginHorizontal: 16,
        marginBottom: 8,
        borderWidth: 1,
        borderColor: palette.line,
        borderRadius: 8,
        backgroundColor: palette.surface,
        flexShrink: 1, // where there is little room it is read by scrolling
        minHeight: lines.length > 0 ? LEAST_HEIGHT : undefined,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', paddingLeft: 12, paddingVertical: 4, gap: 8, flexShrink: 0 }}>
        <Text look="label" style={{ flex: 1 }}>
          {summaryOf(progress)}
        </Text>
        {isRunning ? (
          <Button label="Cancel" onPress={onCancel} />
        ) : (
          <>
            {taken.length === 1 && <NextStep source={taken[0]!} onCut={onCut} onOpen={onOpen} />}
            {taken.length > 1 && <Button label="Put on pads" kind="main" onPress={() => setPlacing(true)} />}
            <IconButton name="close" label="Put the report away" onPress={onClose} />
          </>
        )}
      </View>
      <Progress label="Files read" share={done.length / total} />
      <ScrollView style={{ flexGrow: 0, flexShrink: 1, maxHeight: MOST_HEIGHT }}>
        {!isRunning && <StereoQuestion done={done} />}
        <View style={{ paddingHorizontal: 12, gap: 6, paddingVertical: lines.length > 0 ? 8 : 0 }}>
          {lines.slice(0, MOST_LINES).map((one, i) => (
            <Text key={i} look="small">
              <Text look="label">{one.name}: </Text>
              {one.words}
            </Text>
          ))}
          {lines.length > MOST_LINES && <Text look="small">{`And ${lines.length - MOST_LINES} more.`}</Text>}
        </View>
      </ScrollView>
      {isPlacing && <PlaceSheet files={taken} onClose={() => setPlacing(false)} />}
    </View>
  )
}

/** Longer than this, a file is more likely cut than struck whole, s. */
const CUT_SECONDS = 2

function NextStep({ source, onCut, onOpen }: Pick<Props, 'onCut' | 'onOpen'> & { readonly source: Source }) {
  const isLong = source.info.frames / source.info.sampleRateHz > CUT_SECONDS
  const cut = <Button key="cut" label="Open in Cut" kind={isLong ? 'main' : 'quiet'} onPress={() => onCut(source)} />
  const put = <Button key="put" label="Put on a pad" kind={isLong ? 'quiet' : 'main'} onPress={() => onOpen(source)} />
  return <>{isLong ? [put, cut] : [cut, put]}</>
}

/** The sounds of an import as they are on the list now. */
export function soundsNow(done: readonly Imported[], entries: Readonly<Record<string, { readonly doc: Source }>>): Source[] {
  return soundsOf(done).flatMap(({ id }) => (entries[id] ? [entries[id].doc] : []))
}

function summaryOf({ done, total, state }: ImportProgress): string {
  const count = (type: Imported['type']) => done.filter((one) => one.type === type).length
  const words = [
    state === 'running' ? `Reading ${Math.min(total, done.length + 1)} of ${total}` : `${count('imported')} imported`,
    count('known') > 0 ? `${count('known')} ${count('known') === 1 ? 'was' : 'were'} here already` : '',
    count('failed') > 0 ? `${count('failed')} could not be read` : '',
    state === 'cancelled' ? `${total - done.length} not read, since it was cancelled` : '',
  ]
  return words.filter(Boolean).join(', ')
}

interface Line {
  readonly name: string
  readonly words: string
}

/** What there is to say of files, what could not be read first and each reason once: that asks for something, and is not to lie under what went well. */
function linesOf(done: readonly Imported[], nameOf: (source: Source) => string): Line[] {
  const failed = new Map<string, string[]>()
  const others: Line[] = []
  for (const one of done) {
    if (one.type === 'failed') (failed.get(one.reason) ?? failed.set(one.reason, []).get(one.reason)!).push(one.name)
    else if (one.type === 'known') others.push({ name: one.name, words: `already here, as “${nameOf(one.source)}”.` })
    else if (one.notes.length > 0) others.push({ name: nameOf(one.source), words: one.notes.join(' ') })
  }
  return [...[...failed].map(([words, names]) => ({ name: namesIn(names), words })), ...others]
}

function namesIn(names: readonly string[]): string {
  const more = names.length - MOST_LINES
  return names.slice(0, MOST_LINES).join(', ') + (more > 0 ? ` and ${more} more` : '')
}
