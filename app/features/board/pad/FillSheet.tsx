import type { AudioHash, Kit, Pad, Source } from '@heliaster/core/kit'
import { clipOfSource } from '@heliaster/core/kit'
import { compareNames } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { FlatList, Pressable, View } from 'react-native'
import { useStore } from 'zustand'

import { hearClip } from '../../../audio/sound'
import { sources } from '../../../stores/documents'
import { Button, IconButton } from '../../../ui/Button'
import { Chips } from '../../../ui/Chips'
import { Icon } from '../../../ui/Icon'
import { MiniWave } from '../../../ui/MiniWave'
import { notify } from '../../../ui/notices'
import { Sheet } from '../../../ui/Sheet'
import { Star } from '../../../ui/Star'
import { SearchField } from '../../../ui/SearchField'
import { Text } from '../../../ui/Text'
import { usePalette } from '../../../ui/theme'
import { placeEdits, placeFiles, useLoudness } from '../../place'
import { editKit } from '../../shell'

type How = 'turns' | 'bands' | 'loudness'
const HOW = [
  { value: 'turns', text: 'As turns' },
  { value: 'bands', text: 'As bands, in order' },
  { value: 'loudness', text: 'By loudness' },
] as const

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly onClose: () => void
  /** Hands what was picked over to where names are understood. */
  readonly onPlace: (files: readonly Source[]) => void
}

/** Files for a pad, and how they lie on it, with a picture before anything moves. Settings stay as they are. */
export function FillSheet({ kit, pad, onClose, onPlace }: Props) {
  const palette = usePalette()
  const entries = useStore(sources.store, (state) => state.entries)
  const [words, setWords] = useState('')
  const [picked, setPicked] = useState<AudioHash[]>([])
  const [how, setHow] = useState<How>('turns')
  const list = useMemo(
    () =>
      files(
        Object.values(entries).map((entry) => entry.doc),
        words,
      ),
    [entries, words],
  )
  const chosen = useMemo(
    () => picked.flatMap((hash) => Object.values(entries).flatMap(({ doc }) => (doc.audio === hash ? [doc] : []))),
    [picked, entries],
  )
  const loudness = useLoudness(chosen)
  const placing = useMemo(() => placeFiles(kit, chosen, { way: how, onto: pad, loudness }), [kit, chosen, how, pad, loudness])
  const bands = placing.pads[0]?.bands ?? pad.bands
  const toggle = (hash: AudioHash) =>
    setPicked((before) => (before.includes(hash) ? before.filter((other) => other !== hash) : [...before, hash].slice(0, 1000)))
  const fill = () => {
    editKit(kit.id, placeEdits(kit, chosen, placing), pad.id)
    onClose()
  }
  return (
    <Sheet
      title="Choose clips"
      isOpen
      onClose={onClose}
      actions={
        <>
          {chosen.length > 1 && (
            <View style={{ flexDirection: 'row', gap: 14, alignItems: 'center' }}>
              <Star size={76} turns={bands.map((band) => band.turns.length)} />
              <View style={{ flex: 1 }}>
                <Chips label="How" hideLabel options={HOW} value={how} onChoose={setHow} />
              </View>
            </View>
          )}
          {chosen.length > 1 && <Button label="By their names, or together as rays" onPress={() => onPlace(chosen)} />}
          <Button
            label={chosen.length === 0 ? 'Tap the files to put on this pad' : `Put ${chosen.length} on the pad`}
            kind="main"
            disabled={chosen.length === 0}
            onPress={fill}
          />
        </>
      }
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <SearchField value={words} onChange={setWords} placeholder="Find by name" />
        <Button
          label={`All ${list.length}`}
          disabled={list.length === 0 || list.length > 1000}
          onPress={() => setPicked(list.map((source) => source.audio))}
        />
      </View>
      <FlatList
        data={list}
        style={{ height: 300 }}
        keyExtractor={(source) => source.id}
        renderItem={({ item }) => {
          const place = picked.indexOf(item.audio)
          return (
            <View
              style={{ flexDirection: 'row', alignItems: 'center', height: 48, borderBottomWidth: 1, borderBottomColor: palette.faint }}
            >
              <IconButton
                name="play-outline"
                label={`Hear ${item.name}`}
                onPress={() => void hearClip(clipOfSource(item)).catch((error: Error) => notify(error.message))}
              />
              <Pressable
                role="checkbox"
                aria-checked={place >= 0}
                aria-label={item.name}
                onPress={() => toggle(item.audio)}
                style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44, minWidth: 0 }}
              >
                <Text look="small" numberOfLines={1} style={{ flex: 1 }}>
                  {item.name}
                </Text>
                <MiniWave audio={item.audio} width={56} height={26} />
                <View style={{ width: 34, alignItems: 'center' }}>
                  {place >= 0 ? (
                    <Text look="figures" tone="kelp">
                      {place + 1}
                    </Text>
                  ) : (
                    <Icon name="plus" size={18} color={palette.muted} />
                  )}
                </View>
              </Pressable>
            </View>
          )
        }}
        ListEmptyComponent={<Text tone="muted">No file has this in its name. Hits of long recordings are sent from Cut.</Text>}
      />
    </Sheet>
  )
}

const LONGEST_SECONDS = 20

/** Files that are hits already; long recordings are cut first. */
function files(all: readonly Source[], words: string): Source[] {
  const wanted = words.trim().toLowerCase()
  return all
    .filter(
      (source) =>
        source.info.frames / source.info.sampleRateHz <= LONGEST_SECONDS &&
        source.verdict !== 'pass' &&
        source.name.toLowerCase().includes(wanted),
    )
    .sort((a, b) => compareNames(a.name, b.name))
}
