import { filledPad, lenderOf, padSettings, valueOf } from '@heliaster/core/kit'
import type { Band, BandId, Clip, Kit, KitEdit, Pad, TurnId } from '@heliaster/core/kit'
import { moveTurn, setCellBand, setCells, swapTurns } from '@heliaster/core/place'
import type { Cells, TakeTarget } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'

import { useClipLooks } from '../../../../audio/files/clip-look'
import { hearClip } from '../../../../audio/engine/sound'
import { notify } from '../../../../ui/layout/notices'
import { NumberField } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../../ui/theme/theme'
import { Marquee, overlaps } from '../../../../ui/pointer/Marquee'
import type { Box } from '../../../../ui/pointer/Marquee'
import { Swapping } from '../../../../ui/pointer/Swapping'
import { editKit, useSession } from '../../../../kit-view'
import { padGesture } from '../../../../kit-view/use-kit'
import { onCellKey } from './cell-keys'
import { BandPanel } from './BandPanel'
import { BandEnd } from './BandEnd'
import { Cell } from './Cell'
import { clipsIn, middleOf } from './CellFace'
import { CellPanel } from './CellPanel'
import { VelocityBar } from './VelocityBar'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly cells: Cells
  readonly onRecord: (target: TakeTarget) => void
  /** A file is wanted for one cell. */
  readonly onFile: (turnId: TurnId) => void
}

const LARGEST_CELL = 46
const SMALLEST_CELL = TOUCH
const EDGE_WIDTH = TOUCH

/** How a cell, or the end of a band, is called. */
function placeName(bands: readonly Band[], id: TurnId | BandId): string {
  const band = bands.findIndex((one) => one.id === id || one.turns.some((turn) => turn.id === id))
  const turn = bands[band]?.turns.findIndex((one) => one.id === id) ?? -1
  return turn < 0 ? `the end of band ${band + 1}` : `band ${band + 1}, turn ${turn + 1}`
}

/**
 * The cells of a pad, soft at the bottom, turns across. A tap hears one alone, a drag swaps two, a drag over the ground
 * between them or Shift marks several; the one that sounded last is lit. Of several rays those of one are shown.
 */
export function CellGrid({ kit, pad, cells, onRecord, onFile }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const [chosen, setChosen] = useState<TurnId>()
  const [marked, setMarked] = useState<readonly TurnId[]>([])
  const [bandId, setBandId] = useState<BandId>()
  const { ray, bands } = cells
  const lit = useSession((state) => (cells.isOwn ? undefined : state.lit[pad.id]))
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const clips = useMemo(() => clipsIn(bands, ray.id), [bands, ray.id])
  const lookOf = useClipLooks(useMemo(() => clips.map(({ clip }) => clip), [clips]))
  const middles = bands.map((band) => middleOf(band, ray.id, lookOf))
  const loudestDb = Math.max(...clips.map(({ clip, gainDb }) => gainDb + (lookOf(clip)?.loudnessDb ?? -Infinity)))
  const swap = (one: TurnId, other: TurnId) => editKit(kit.id, [setCells(pad, cells, swapTurns(bands, one, other))], pad.id)
  const move = (turnId: TurnId, to: BandId) => editKit(kit.id, [setCells(pad, cells, moveTurn(bands, turnId, to))], pad.id)
  const drop = (dragged: TurnId | BandId, onto: TurnId | BandId) => {
    const to = bands.find(({ id }) => id === onto)
    if (to) move(dragged as TurnId, to.id)
    else swap(dragged as TurnId, onto as TurnId)
  }
  const mark = (ids: readonly TurnId[]) => {
    setMarked(ids)
    setChosen(ids[0])
  }
  const hear = (ofBand: BandId, turnId: TurnId, clip: Clip | 'intendedSilence' | undefined) => {
    setMarked([])
    setChosen(turnId)
    setBandId(ofBand)
    if (clip && clip !== 'intendedSilence') hearClip(clip).catch((error: Error) => notify(error.message))
  }
  if (bands.length === 0)
    return (
      <View style={{ borderWidth: 1, borderStyle: 'dashed', borderColor: palette.muted, borderRadius: 8, padding: 20 }}>
        <Text look="small" tone="muted">
          {emptyWords(kit, pad, ray.name)}
        </Text>
      </View>
    )
  const most = Math.max(1, ...bands.map((band) => band.turns.length))
  const cell = Math.max(SMALLEST_CELL, Math.min(LARGEST_CELL, Math.floor((width - EDGE_WIDTH - 32) / most) - 4))
  const band = bands.find(({ id }) => id === bandId)
  /** Edges that were set by hand are no longer spread by a rule. */
  const asSet: KitEdit[] = cells.isOwn ? [] : [{ type: 'setPadFilling', padId: pad.id, spread: 'own' }]
  const setEdge = (id: BandId, fromVelocity: number): KitEdit[] => [setCellBand(pad, cells, id, { fromVelocity }), ...asSet]
  const typeEdge = (index: number, velocity: number) => {
    if (index === 0) return notify('The softest band always begins at velocity 1.')
    const low = bands[index - 1].fromVelocity + 1
    const high = (bands[index + 1]?.fromVelocity ?? 128) - 1
    const taken = Math.min(high, Math.max(low, Math.round(velocity)))
    if (taken !== velocity) notify(edgeWords(index, velocity, taken, low, high))
    editKit(kit.id, setEdge(bands[index].id, taken), pad.id)
  }
  return (
    <View style={{ gap: 8 }}>
      <Swapping<TurnId | BandId> nameOf={(id) => placeName(bands, id)} onDrop={drop}>
        <ScrollView
          horizontal
          onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
          contentContainerStyle={{ flexDirection: 'column-reverse', gap: 4, minWidth: '100%' }}
        >
          <Marquee onChoose={(box, ground) => mark(turnsUnder(box, ground))} />
          {bands.map((own, index) => (
            <View key={own.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 4, pointerEvents: 'box-none' }}>
              <NumberField
                label={`Band ${index + 1} begins at velocity`}
                text={String(own.fromVelocity)}
                unit="↑"
                width={EDGE_WIDTH}
                onNumber={(velocity) => typeEdge(index, velocity)}
              />
              {own.turns.map((turn, turnIndex) => {
                const clip = turn.clips[ray.id]
                return (
                  <Cell
                    key={turn.id}
                    id={turn.id}
                    band={index + 1}
                    turn={turnIndex + 1}
                    clip={clip}
                    look={clip && clip !== 'intendedSilence' ? lookOf(clip) : undefined}
                    gainDb={valueOf(own, 'gainDb')}
                    loudestDb={loudestDb}
                    middleDb={middles[index]}
                    size={cell}
                    isChosen={turn.id === chosen || marked.includes(turn.id)}
                    isLit={lit?.band === index && lit.turn === turnIndex}
                    onPress={() => hear(own.id, turn.id, clip)}
                    onMark={() => mark(withOrWithout(marked.length > 0 ? marked : chosen ? [chosen] : [], turn.id))}
                    onKey={(event) => onCellKey(event, bands, turn.id, swap)}
                  />
                )
              })}
              <BandEnd
                id={own.id}
                band={index + 1}
                isEmpty={own.turns.length === 0}
                size={cell}
                onRecord={() => onRecord({ kind: 'band', bandId: own.id, rayId: ray.id })}
              />
            </View>
          ))}
        </ScrollView>
      </Swapping>
      {bands.length > 1 && (
        <VelocityBar
          bands={bands}
          chosen={bandId}
          onChoose={(id) => {
            setBandId(id)
            setChosen(undefined)
          }}
          onSlide={(id, fromVelocity) => gesture.set(setEdge(id, fromVelocity))}
          onDone={gesture.end}
        />
      )}
      {chosen && (
        <CellPanel
          key={`${chosen} ${marked.length}`}
          kit={kit}
          pad={pad}
          cells={cells}
          turnId={chosen}
          marked={marked}
          pick={(cells.isOwn && ray.source.kind === 'clips' && ray.source.pick) || padSettings(kit, pad).pick}
          gesture={gesture}
          onSwap={swap}
          onMove={move}
          onRecord={onRecord}
          onFile={onFile}
        />
      )}
      {band && !chosen && bands.length > 1 && <BandPanel kit={kit} pad={pad} cells={cells} band={band} gesture={gesture} />}
    </View>
  )
}

/** The cells that a drag over the ground between them went over. */
function turnsUnder(box: Box, ground: HTMLElement): TurnId[] {
  const corner = ground.getBoundingClientRect()
  return [...(ground.parentElement?.querySelectorAll<HTMLElement>('[data-turn]') ?? [])]
    .filter((cell) => {
      const { left, top, width, height } = cell.getBoundingClientRect()
      return overlaps(box, { left: left - corner.left, top: top - corner.top, width, height })
    })
    .map((cell) => cell.dataset.turn as TurnId)
}

const withOrWithout = (ids: readonly TurnId[], id: TurnId) => (ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id])

/** What a pad without cells sounds. */
function emptyWords(kit: Kit, pad: Pad, ray: string): string {
  const lender = lenderOf(kit, pad)
  if (lender)
    return `Empty: as a spot or opening of its drum it sounds as ${padSettings(kit, lender).name || 'an unnamed pad'}, until it has clips of its own.`
  const parts = filledPad(kit, pad).bands.flatMap(({ turns }) => turns).length
  if (parts > 0) {
    const lie = parts === 1 ? 'A part of a recording lies' : `${parts} parts of a recording lie`
    return `${lie} here, drawn under Ties. Clips that are chosen go before.`
  }
  return `Nothing is on ${pad.rays.length > 1 ? ray : 'this pad'}, so it is silent. Choose clips, or send hits here from Cut.`
}

/** Why an edge is not where it was typed. */
function edgeWords(index: number, typed: number, taken: number, low: number, high: number): string {
  if (Math.round(typed) === taken) return `Velocities are whole: band ${index + 1} begins at ${taken}.`
  const why =
    low === high ? `The softest band begins at ${low}` : `Band ${index + 1} can begin from ${low} to ${high}, between its neighbours`
  return `${why}: it is at ${taken}.`
}
