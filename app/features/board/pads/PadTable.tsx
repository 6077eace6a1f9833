import type { Kit, PadId, TieId } from '@heliaster/core/kit'
import { swapPads } from '@heliaster/core/place'
import { drumsOf } from '@heliaster/core/ties'
import type { LineKind, ShownDrum } from '@heliaster/core/ties'
import { startTransition, useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'

import { useGrowing } from '../../../ui/layout/use-growing'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { Marquee, overlaps } from '../../../ui/pointer/Marquee'
import type { Box } from '../../../ui/pointer/Marquee'
import { Swapping } from '../../../ui/pointer/Swapping'
import { TOUCH } from '../../../ui/theme/theme'
import { editKit, useSession } from '../../../kit-view'
import { PadFace } from '../../../kit-view/PadFace'
import { padName } from '../../../kit-view/use-kit'
import { TieArcs } from '../ties/TieArcs'
import { TyingPads } from '../ties/TyingPads'
import type { BoardMode } from './BoardBar'
import { inRows, placeSpots, spanOf } from './drum-place'
import { DrumFace } from './DrumFace'
import { PadHandle } from './PadHandle'

const LABEL_HEIGHT = 40
const ROW_GAP = 10
const WIDEST_GAP = 110
/** No pad is larger, and none that is drawn to fill the screen smaller. */
const LARGEST = 280
const LEAST_FILLING = 96
/** So many pads are drawn at once, all others in the moments after. */
const DRAWN_AT_ONCE = 8

/** As large as the rows fill the height, so that rings are told apart by a finger; smaller ones are scrolled to. */
function fillingSize(height: number, rows: number): number {
  return Math.min(LARGEST, Math.max(LEAST_FILLING, Math.floor((height - 20) / rows) - LABEL_HEIGHT - ROW_GAP))
}

interface TableProps {
  readonly kit: Kit
  readonly mode: BoardMode
  readonly tieKind: LineKind
  /** The tie that is looked at. */
  readonly tieId: TieId | undefined
  /** Pads that a drag over empty ground went over. */
  readonly onChoose: (padIds: readonly PadId[]) => void
}

/** The pads in the arrangement the person made. Ties are arcs between them. */
export function PadTable({ kit, mode, tieKind, tieId, onChoose }: TableProps) {
  const isWide = useIsWide()
  const chosen = useSession((state) => state.padId)
  const [{ width, height }, setBox] = useState({ width: 0, height: 0 })
  // While pads are arranged or tied each spot of a drum stands by itself.
  const cells = useMemo(
    () => (mode === 'play' ? drumsOf(kit) : kit.pads.map((pad): ShownDrum => ({ pads: [pad], behind: [[]] }))),
    [kit, mode],
  )
  const drawn = useGrowing(cells.length, DRAWN_AT_ONCE)
  const columns = Math.min(kit.arrangement.columns, Math.max(1, cells.length))
  const gap = isWide ? 28 : 18
  const room = Math.floor((width - gap * (columns + 1)) / columns)
  const sizeFor = (count: number) =>
    Math.min(room, Math.max(TOUCH, Math.round(Math.min(fillingSize(height, count), room) * (kit.arrangement.size ?? 1))))
  // What the columns leave is between them, as far as a row still reads as one.
  const betweenFor = (face: number) => Math.min(WIDEST_GAP, Math.max(gap, Math.floor((width - columns * face) / (columns + 1))))
  const least = sizeFor(Math.ceil(cells.length / columns))
  const spans = cells.map(({ pads, drum }) => (drum ? spanOf(pads.length, least, betweenFor(least), columns) : 1))
  const { places, rows } = inRows(spans, columns)
  const size = sizeFor(rows)
  const between = betweenFor(size)
  const left = (width - columns * size - (columns - 1) * between) / 2
  const place = (index: number) => ({
    x: left + places[index]!.column * (size + between),
    y: 10 + places[index]!.row * (size + LABEL_HEIGHT + ROW_GAP),
  })
  const widthOf = (index: number) => places[index]!.span * size + (places[index]!.span - 1) * between
  const boxes = boxesOf(cells, place, widthOf, size)
  const boxOf = (index: number) => boxes.get(kit.pads[index]!.id)!
  const centreOf = (index: number) => ({ x: boxOf(index).left + boxOf(index).width / 2, y: boxOf(index).top + boxOf(index).height / 2 })
  const choose = (box: Box) => {
    const over = kit.pads.filter((_, index) => overlaps(box, boxOf(index)))
    if (over.length > 0) onChoose(over.map(({ id }) => id))
  }
  return (
    <ScrollView
      style={{ flex: 1 }}
      onLayout={({ nativeEvent: { layout } }) => startTransition(() => setBox({ width: layout.width, height: layout.height }))}
      contentContainerStyle={{ minHeight: '100%', height: 20 + rows * (size + LABEL_HEIGHT + ROW_GAP) }}
    >
      {width > 0 && size > 0 && (
        <>
          <TieArcs
            kit={kit}
            centreOf={centreOf}
            radiusOf={(index) => boxOf(index).width / 2}
            chosen={mode === 'tie' ? tieId : undefined}
            width={width}
            height={20 + rows * (size + LABEL_HEIGHT + ROW_GAP)}
          />
          <Marquee onChoose={choose} />
          {cells.slice(0, drawn).map(({ pads, drum, behind }, index) => (
            <View key={pads[0]!.id} style={{ position: 'absolute', left: place(index).x, top: place(index).y }}>
              {drum ? (
                <DrumFace kit={kit} pads={pads} behind={behind} drum={drum} width={widthOf(index)} size={size} chosen={chosen} />
              ) : (
                <PadFace
                  kit={kit}
                  pad={pads[0]!}
                  index={kit.pads.indexOf(pads[0]!)}
                  size={size}
                  chosen={pads[0]!.id === chosen}
                  withNote
                  withKey={isWide}
                />
              )}
            </View>
          ))}
          {mode === 'arrange' && <Arranging kit={kit} place={place} size={size} />}
          {mode === 'tie' && <TyingPads kit={kit} kind={tieKind} centreOf={centreOf} radius={size / 2} />}
        </>
      )}
    </ScrollView>
  )
}

/** Where each pad stands, of a drum each of its spots; what is behind a spot stands where it does. */
function boxesOf(
  cells: readonly ShownDrum[],
  place: (index: number) => { x: number; y: number },
  widthOf: (index: number) => number,
  size: number,
): Map<PadId, Box> {
  return new Map(
    cells.flatMap(({ pads, drum, behind }, index) => {
      const { x, y } = place(index)
      if (!drum) return [[pads[0]!.id, { left: x, top: y, width: size, height: size }] as const]
      const spots = placeSpots(pads.length, widthOf(index), size)
      return pads.flatMap((pad, i) => {
        const at = spots.at[i]!
        return [pad, ...behind[i]!].map(({ id }) => [id, { left: x + at.x, top: y + at.y, width: spots.size, height: spots.size }] as const)
      })
    }),
  )
}

interface ArrangingProps {
  readonly kit: Kit
  readonly place: (index: number) => { readonly x: number; readonly y: number }
  readonly size: number
}

/** While pads are arranged: one is dragged onto another, or both are tapped, and they change places. Each still sounds as it is taken. */
function Arranging({ kit, place, size }: ArrangingProps) {
  const [held, setHeld] = useState<PadId>()
  const swap = (one: PadId, other: PadId) => {
    const [a, b] = [one, other].map((id) => kit.pads.find((pad) => pad.id === id))
    if (a && b) editKit(kit.id, swapPads(kit, a, b, 'places'))
    setHeld(undefined)
  }
  const nameOf = (id: PadId) => {
    const pad = kit.pads.find((one) => one.id === id)
    return pad ? padName(kit, pad) : ''
  }
  return (
    <Swapping<PadId> nameOf={nameOf} onDrop={swap}>
      <View style={{ position: 'absolute', inset: 0 }}>
        {kit.pads.map((pad, index) => (
          <PadHandle
            key={pad.id}
            id={pad.id}
            label={held && held !== pad.id ? `Swap with ${nameOf(pad.id)}` : `Take up ${nameOf(pad.id)}`}
            isHeld={pad.id === held}
            onPress={() => (held && held !== pad.id ? swap(held, pad.id) : setHeld(held === pad.id ? undefined : pad.id))}
            box={{ left: place(index).x - 6, top: place(index).y - 6, width: size + 12, height: size + LABEL_HEIGHT }}
            radius={12}
          />
        ))}
      </View>
    </Swapping>
  )
}
