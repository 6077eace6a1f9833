import { audioFileEndings } from '@heliaster/core/decode'
import type { AudioHash, Source } from '@heliaster/core/kit'
import { clipOfSource } from '@heliaster/core/kit'
import { compareNames } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { hearClip } from '../../../../audio/engine/sound'
import { importFiles, soundsOf } from '../../../../audio/import/import'
import { sources } from '../../../../documents'
import { MiniWave } from '../../../../kit-view/MiniWave'
import { useOwnSounds } from '../../../../kit-view/own-sounds'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { SearchField } from '../../../../ui/controls/SearchField'
import { chooseFiles } from '../../../../ui/device/choose-files'
import { Icon } from '../../../../ui/drawing/Icon'
import { LongList } from '../../../../ui/layout/LongList'
import { notify } from '../../../../ui/layout/notices'
import { PickRow } from '../../../../ui/layout/PickRow'
import { Text } from '../../../../ui/layout/Text'
import { usePalette } from '../../../../ui/theme/theme'

interface Props {
  readonly picked: readonly AudioHash[]
  readonly onPick: (picked: readonly AudioHash[]) => void
  /** Only one is asked for. */
  readonly isOne: boolean
}

const ROW_HEIGHT = 52
const LONGEST_SECONDS = 20
const MOST_PICKED = 1000
const AUDIO = [...audioFileEndings, 'audio/*'].join(',')

const secondsOf = ({ info }: Source) => info.frames / info.sampleRateHz

/** Files that are hits already, in the order of their names; long recordings are cut first. */
function hitFiles(all: readonly Source[]): Source[] {
  return all
    .filter((source) => secondsOf(source) <= LONGEST_SECONDS && source.verdict !== 'pass')
    .sort((a, b) => compareNames(a.name, b.name))
}

/** The list of sounds where clips are picked: this kit's, or all; found, heard, brought in, and picked in an order. */
export function FillList({ picked, onPick, isOne }: Props) {
  const entries = useStore(sources.store, (state) => state.entries)
  const [words, setWords] = useState('')
  const [scope, setScope] = useState<'kit' | 'all'>()
  const every = useMemo(() => hitFiles(Object.values(entries).map((entry) => entry.doc)), [entries])
  const own = useOwnSounds(every)
  const wanted = words.trim().toLowerCase()
  // Where the kit has no sounds yet, and where one looks by words, all of them are meant.
  const among = (scope ?? (own.length > 0 ? 'kit' : 'all')) === 'kit' && wanted === '' ? own : every
  const list = useMemo(() => among.filter(({ name }) => name.toLowerCase().includes(wanted)), [among, wanted])
  const toggle = (hash: AudioHash) => {
    if (picked.includes(hash)) onPick(picked.filter((other) => other !== hash))
    else onPick(isOne ? [hash] : [...picked, hash].slice(0, MOST_PICKED))
  }
  /** Files that come in here are picked at once. */
  const importHere = async () => {
    const given = await chooseFiles(AUDIO, !isOne)
    if (given.length === 0) return
    importFiles(given, ({ done, state }) => {
      if (state !== 'finished') return
      const failed = done.flatMap((one) => (one.type === 'failed' ? [`${one.name}: ${one.reason}`] : []))
      if (failed.length > 0) notify(failed.join(' '))
      const hashes = soundsOf(done).map(({ audio }) => audio)
      onPick(isOne ? hashes.slice(0, 1) : [...new Set([...picked, ...hashes])])
    })
  }
  const scopes = [
    { value: 'kit', text: `This kit ${own.length}` },
    { value: 'all', text: `All ${every.length}` },
  ] as const
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <SearchField value={words} onChange={setWords} placeholder="Find by name" />
        <Button label="Import files" kind="quiet" icon="tray-arrow-down" onPress={() => void importHere()} />
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Chips
            label="Whose sounds"
            hideLabel
            isOneLine
            options={scopes}
            value={among === own ? 'kit' : 'all'}
            onChoose={(next) => {
              setScope(next)
              if (next === 'kit') setWords('')
            }}
          />
        </View>
        {!isOne && (
          <Button
            label={`Pick all ${list.length}`}
            kind="quiet"
            disabled={list.length === 0 || list.length > MOST_PICKED}
            onPress={() => onPick(list.map((source) => source.audio))}
          />
        )}
      </View>
      <LongList
        label="Sounds"
        items={list}
        rowHeight={ROW_HEIGHT}
        style={{ height: 300 }}
        keyOf={(source) => source.id}
        draw={(item) => <FillRow source={item} place={picked.indexOf(item.audio)} onToggle={() => toggle(item.audio)} />}
        empty={<Text tone="muted">{whyEmpty(words)}</Text>}
      />
    </>
  )
}

function whyEmpty(words: string): string {
  if (words.trim()) return 'No file has this in its name. Hits of long recordings are sent from Cut.'
  return 'This kit has no sounds of its own yet. Import some, or look among all.'
}

/** How long and how loud a file is, and of which family. */
function factsOf(source: Source): string {
  const { measured, family } = source
  const level = measured && measured.peakDb > -200 ? `${measured.loudnessDb.toFixed(0)} LUFS` : ''
  return [`${secondsOf(source).toFixed(2)} s`, level, family === 'other' ? '' : family].filter(Boolean).join(', ')
}

interface RowProps {
  readonly source: Source
  /** In the order that they were picked in, from 0; -1 while it is not. */
  readonly place: number
  readonly onToggle: () => void
}

function FillRow({ source, place, onToggle }: RowProps) {
  const palette = usePalette()
  const hear = () => void hearClip(clipOfSource(source)).catch((error: Error) => notify(error.message))
  return (
    <PickRow name={source.name} facts={factsOf(source)} isPicked={place >= 0} onPick={onToggle} onHear={hear} height={ROW_HEIGHT}>
      <MiniWave audio={source.audio} width={56} height={26} />
      <View style={{ width: 34, alignItems: 'center' }}>
        {place >= 0 ? (
          <Text look="figures" tone="kelp">
            {place + 1}
          </Text>
        ) : (
          <Icon name="plus" size={18} color={palette.muted} />
        )}
      </View>
    </PickRow>
  )
}
