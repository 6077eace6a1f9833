import { padSettings } from '@heliaster/core/kit'
import type { Band, BandId, Clip, Kit, Pad, TurnId } from '@heliaster/core/kit'
import { moveTurn, setCells, swapTurns } from '@heliaster/core/place'
import type { Cells, TakeTarget } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'

import { useClipLooks } from '../../../../audio/files/clip-look'
import { hearClip } from '../../../../audio/engine/sound'
import { notify } from '../../../../ui/layout/notices'
import { TOUCH } from '../../../../ui/theme/theme'
import { Marquee, overlaps } from '../../../../ui/pointer/Marquee'
import type { Box } from '../../../../ui/pointer/Marquee'
import { Swapping } from '../../../../ui/pointer/Swapping'
import { editKit, useSession } from '../../../../kit-view'
import { padGesture } from '../../../../kit-view/use-kit'
import { BandPanel } from './BandPanel'
import { edgesOf } from './band-edges'
import { BandRow, EDGE_WIDTH } from './BandRow'
import { clipsIn, middleOf } from './CellFace'
import { CellPanel } from './CellPanel'
import { EmptyCells } from './EmptyCells'
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
  if (bands.length === 0) return <EmptyCells kit={kit} pad={pad} ray={ray.name} />
  const most = Math.max(1, ...bands.map((band) => band.turns.length))
  const cell = Math.max(SMALLEST_CELL, Math.min(LARGEST_CELL, Math.floor((width - EDGE_WIDTH - 32) / most) - 4))
  const band = bands.find(({ id }) => id === bandId)
  const edges = edgesOf(kit, pad, cells)
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
            <BandRow
              key={own.id}
              cells={cells}
              index={index}
              size={cell}
              lookOf={lookOf}
              loudestDb={loudestDb}
              middleDb={middles[index]}
              isChosen={(id) => id === chosen || marked.includes(id)}
              litTurn={lit?.band === index ? lit.turn : undefined}
              onHear={(turnId, clip) => hear(own.id, turnId, clip)}
              onMark={(id) => mark(withOrWithout(marked.length > 0 ? marked : chosen ? [chosen] : [], id))}
              onSwap={swap}
              onEdge={(velocity) => edges.type(index, velocity)}
              onRecord={onRecord}
            />
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
          onSlide={(id, fromVelocity) => gesture.set(edges.set(id, fromVelocity))}
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
