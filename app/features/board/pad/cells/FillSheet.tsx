import type { AudioHash, Kit, KitEdit, Pad, Source, TurnId } from '@heliaster/core/kit'
import { clipOfSource, clipsOfPad } from '@heliaster/core/kit'
import { cellsOf, compareNames } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { Pressable, View } from 'react-native'
import { useStore } from 'zustand'

import { hearClip } from '../../../../audio/engine/sound'
import { sources } from '../../../../documents'
import { Button, IconButton } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { Icon } from '../../../../ui/drawing/Icon'
import { MiniWave } from '../../../../kit-view/MiniWave'
import { notify } from '../../../../ui/layout/notices'
import { Sheet } from '../../../../ui/layout/Sheet'
import { Star } from '../../../../ui/drawing/Star'
import { SearchField } from '../../../../ui/controls/SearchField'
import { LongList } from '../../../../ui/layout/LongList'
import { Text } from '../../../../ui/layout/Text'
import { usePalette } from '../../../../ui/theme/theme'
import { nameEdits, placeEdits, placeFiles, useLoudness } from '../../../place'
import { editKit } from '../../../../kit-view'

type How = 'turns' | 'bands' | 'loudness'
const HOW = [
  { value: 'turns', text: 'As turns' },
  { value: 'bands', text: 'As bands, in order' },
  { value: 'loudness', text: 'By loudness' },
] as const

const ROW_HEIGHT = 48

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly cells: Cells
  /** The one cell that gets another file; without it all of them do. */
  readonly turnId?: TurnId
  readonly onClose: () => void
  /** Told of the file that was put into a cell. */
  readonly onShown: (file: Source, turnId: TurnId) => void
  /** Hands what was picked over to where names are understood. */
  readonly onPlace: (files: readonly Source[]) => void
}

/** Files for a pad, and how they lie on it, with a picture before anything moves. Settings stay as they are. */
export function FillSheet({ kit, pad, cells, turnId, onClose, onShown, onPlace }: Props) {
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
  const isOneOfSeveral = pad.rays.length > 1
  const placing = useMemo(
    () => placeFiles(kit, chosen, { way: how, onto: pad, cells: isOneOfSeveral ? cells : undefined, loudness }),
    [kit, chosen, how, pad, cells, isOneOfSeveral, loudness],
  )
  const bands = (placing.pads[0] && cellsOf(placing.pads[0], cells.ray.id)?.bands) ?? cells.bands
  const places = cells.bands.reduce((sum, band) => sum + band.turns.length, 0)
  /** Rays that share their cells keep them: the files fill those that are there. */
  const isExchange = isOneOfSeveral && !cells.isOwn && places > 0
  const toggle = (hash: AudioHash) =>
    setPicked((before) => {
      if (before.includes(hash)) return before.filter((other) => other !== hash)
      return turnId ? [hash] : [...before, hash].slice(0, 1000)
    })
  const fill = () => {
    const [file] = chosen
    editKit(kit.id, turnId ? cellEdits(pad, cells, turnId, file) : placeEdits(kit, chosen, placing), pad.id)
    if (turnId) onShown(file, turnId)
    onClose()
  }
  return (
    <Sheet
      title={turnId ? 'Choose a file' : isOneOfSeveral ? `Clips of ${cells.ray.name}` : 'Choose clips'}
      isOpen
      onClose={onClose}
      actions={
        <>
          {chosen.length > 1 && (
            <View style={{ flexDirection: 'row', gap: 14, alignItems: 'center' }}>
              <Star size={76} turns={bands.map((band) => band.turns.length)} />
              <View style={{ flex: 1 }}>
                {isExchange ? (
                  <Text look="small">{exchangeWords(chosen.length, places, cells.ray.name)}</Text>
                ) : (
                  <Chips label="How" hideLabel options={HOW} value={how} onChoose={setHow} />
                )}
              </View>
            </View>
          )}
          {chosen.length > 1 && <Button label="By their names, or together as rays" onPress={() => onPlace(chosen)} />}
          <Button
            label={putLabel(chosen.length, turnId !== undefined, isExchange ? Math.min(places, chosen.length) : chosen.length)}
            kind="main"
            disabled={chosen.length === 0}
            onPress={fill}
          />
        </>
      }
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <SearchField value={words} onChange={setWords} placeholder="Find by name" />
        {!turnId && (
          <Button
            label={`All ${list.length}`}
            disabled={list.length === 0 || list.length > 1000}
            onPress={() => setPicked(list.map((source) => source.audio))}
          />
        )}
      </View>
      <LongList
        label="Sounds"
        items={list}
        rowHeight={ROW_HEIGHT}
        style={{ height: 300 }}
        keyOf={(source) => source.id}
        draw={(item) => {
          const place = picked.indexOf(item.audio)
          return (
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                height: ROW_HEIGHT,
                borderBottomWidth: 1,
                borderBottomColor: palette.faint,
              }}
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
        empty={<Text tone="muted">No file has this in its name. Hits of long recordings are sent from Cut.</Text>}
      />
    </Sheet>
  )
}

function cellEdits(pad: Pad, { ray }: Cells, turnId: TurnId, file: Source): KitEdit[] {
  return [
    { type: 'putAudio', audio: file.audio, info: file.info },
    { type: 'setClip', padId: pad.id, turnId, rayId: ray.id, clip: clipOfSource(file) },
    ...(clipsOfPad(pad).length <= 1 ? nameEdits(pad, file.name) : []),
  ]
}

function putLabel(count: number, isCell: boolean, placed: number): string {
  if (count === 0) return isCell ? 'Tap the file for this cell' : 'Tap the files to put on this pad'
  if (isCell) return 'Put it into the cell'
  return placed === count ? `Put ${count} on the pad` : `Put ${placed} of ${count} on the pad`
}

function exchangeWords(count: number, places: number, ray: string): string {
  const rest = count > places ? ` ${count - places} find no cell.` : count < places ? ` The last ${places - count} keep their clips.` : ''
  return `They fill the ${places} cells of ${ray} in this order, soft bands first; the other rays stay.${rest}`
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
