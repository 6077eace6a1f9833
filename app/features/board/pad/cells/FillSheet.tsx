import type { AudioHash, Kit, KitEdit, Pad, Source, TurnId } from '@heliaster/core/kit'
import { clipOfSource, clipsOfPad } from '@heliaster/core/kit'
import { cellsOf } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sources } from '../../../../documents'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { Sheet } from '../../../../ui/layout/Sheet'
import { Star } from '../../../../ui/drawing/Star'
import { Text } from '../../../../ui/layout/Text'
import { BandCount, nameEdits, placeEdits, placeFiles, useLoudness } from '../../../place'
import { editKit } from '../../../../kit-view'
import { FillList } from './FillList'

type How = 'turns' | 'bands' | 'loudness'
const HOW = [
  { value: 'turns', text: 'As turns' },
  { value: 'bands', text: 'As bands, in order' },
  { value: 'loudness', text: 'By loudness' },
] as const

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
  const entries = useStore(sources.store, (state) => state.entries)
  const [picked, setPicked] = useState<readonly AudioHash[]>([])
  const [how, setHow] = useState<How>('turns')
  const [bandCount, setBandCount] = useState<number>()
  const chosen = useMemo(
    () => picked.flatMap((hash) => Object.values(entries).flatMap(({ doc }) => (doc.audio === hash ? [doc] : []))),
    [picked, entries],
  )
  const loudness = useLoudness(chosen)
  const isOneOfSeveral = pad.rays.length > 1
  const placing = useMemo(
    () => placeFiles(kit, chosen, { way: how, onto: pad, cells: isOneOfSeveral ? cells : undefined, loudness, bandCount }),
    [kit, chosen, how, pad, cells, isOneOfSeveral, loudness, bandCount],
  )
  const bands = (placing.pads[0] && cellsOf(placing.pads[0], cells.ray.id)?.bands) ?? cells.bands
  const places = cells.bands.reduce((sum, band) => sum + band.turns.length, 0)
  /** Rays that share their cells keep them: the files fill those that are there. */
  const isExchange = isOneOfSeveral && !cells.isOwn && places > 0
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
                  <Chips label="How" hideLabel options={HOW} value={how} onChoose={(next) => (setHow(next), setBandCount(undefined))} />
                )}
              </View>
            </View>
          )}
          {!isExchange && <BandCount way={how} files={chosen.length} pad={placing.pads[0]} onCount={setBandCount} />}
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
      <FillList picked={picked} onPick={setPicked} isOne={turnId !== undefined} />
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
