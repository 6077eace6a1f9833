import type { Envelope } from '@heliaster/core/kit'
import { bendThrough, movePoints, snapped } from '@heliaster/core/shaping'
import type { Chosen, SnapPlaces } from '@heliaster/core/shaping'
import { useRef, useState } from 'react'

import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { share, valueOf } from './tide-geometry'
import type { Geometry } from './tide-geometry'
import { traced } from './TideMarks'
import type { ChartWork } from './use-envelope'

/** A point is taken hold of from so far, and the way between two from so far, px. */
const POINT_REACH = 26
const WAY_REACH = 16
/** A drag, and no tap. */
const MEANT_PX = 6
const SNAP_PX = 9

type Held = { readonly x: number; readonly y: number; isMoving: boolean } & (
  | { readonly what: 'points'; readonly index: number; readonly chosen: Chosen; readonly isOneOfMany: boolean; readonly envelope: Envelope }
  | { readonly what: 'way'; readonly index: number; readonly envelope: Envelope }
  | { readonly what: 'ground' }
)

/** A stretch of ground over which points are chosen, px. */
export interface GroundBox {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

interface Ground {
  readonly geometry: Geometry
  /** By how much the decay stretches the envelope. */
  readonly scale: number
  readonly isStill: boolean
  readonly snaps: SnapPlaces | undefined
  readonly work: ChartWork
  /** Told when something is taken hold of, and when it is let go. */
  readonly onHold: (isHeld: boolean) => void
}

/**
 * What a finger does on the chart: it moves a point with all that are chosen, bends the way that it takes hold of, chooses the
 * points that it passes over from empty ground, and makes one where it taps beside them.
 */
export function useChartHand({ geometry, scale, isStill, snaps, work, onHold }: Ground) {
  const held = useRef<Held>(undefined)
  const [box, setBox] = useState<GroundBox>()
  const { layer, envelope, chosen } = work
  const places = (of: Envelope) => of.points.map((one) => geometry.place(one.seconds * scale, share(one.value, layer)))

  const movePointsTo = ({ x, y, index, chosen: moving, envelope: from }: Held & { what: 'points' }, toX: number, toY: number) => {
    const [before, now] = [geometry.read(x, y), geometry.read(toX, toY)]
    const point = from.points[index]!
    const wanted = Math.max(0, point.seconds * scale + now.seconds - before.seconds)
    const at = snaps ? snapped(wanted, SNAP_PX * geometry.secondsPerPx, snaps) : wanted
    const byValue = valueOf(share(point.value, layer) + now.share - before.share, layer) - point.value
    work.onSlide(movePoints(from, moving, at / scale - point.seconds, byValue, layer))
  }

  const ref = usePointerDrag({
    onStart(x, y, event) {
      if (isStill) return false
      onHold(true)
      const index = nearest(places(envelope), x, y, POINT_REACH)
      if (index !== undefined) {
        const isMore = event.shiftKey || event.ctrlKey || event.metaKey
        const next = chosen.includes(index) ? chosen : isMore ? [...chosen, index] : [index]
        work.onChoose(isMore && chosen.includes(index) ? chosen.filter((one) => one !== index) : next)
        held.current = {
          what: 'points',
          index,
          chosen: next,
          isOneOfMany: !isMore && chosen.includes(index),
          envelope,
          x,
          y,
          isMoving: false,
        }
        return undefined
      }
      const way = wayNear(envelope, geometry, scale, layer, x, y)
      held.current =
        way === undefined ? { what: 'ground', x, y, isMoving: false } : { what: 'way', index: way, envelope, x, y, isMoving: false }
      return undefined
    },
    onMove(x, y) {
      const hold = held.current
      if (!hold) return
      if (!hold.isMoving && Math.hypot(x - hold.x, y - hold.y) < MEANT_PX) return
      hold.isMoving = true
      if (hold.what === 'points') movePointsTo(hold, x, y)
      else if (hold.what === 'way') {
        const at = geometry.read(x, y)
        work.onSlide(bendThrough(hold.envelope, hold.index, at.seconds / scale, valueOf(at.share, layer)))
      } else setBox(boxOf(hold, x, y))
    },
    onEnd(x, y) {
      const hold = held.current
      held.current = undefined
      onHold(false)
      setBox(undefined)
      if (!hold) return
      if (hold.what === 'points') {
        if (hold.isMoving) work.onDone()
        else if (hold.isOneOfMany) work.onChoose([hold.index])
      } else if (hold.what === 'ground' && hold.isMoving) work.onChoose(inside(places(envelope), boxOf(hold, x, y)))
      else if (hold.isMoving) work.onDone()
      else if (envelope.points.length > 0) {
        const at = geometry.read(x, y)
        work.onAdd(Math.max(0, at.seconds) / scale, valueOf(at.share, layer))
      }
    },
  })
  return { ref, box, isHeld: () => held.current !== undefined }
}

function boxOf({ x, y }: Held, toX: number, toY: number): GroundBox {
  return { x: Math.min(x, toX), y: Math.min(y, toY), width: Math.abs(toX - x), height: Math.abs(toY - y) }
}

function inside(places: readonly (readonly [number, number])[], box: GroundBox): number[] {
  return places.flatMap(([x, y], index) =>
    x >= box.x - 4 && x <= box.x + box.width + 4 && y >= box.y - 4 && y <= box.y + box.height + 4 ? [index] : [],
  )
}

function nearest(places: readonly (readonly [number, number])[], x: number, y: number, reach: number): number | undefined {
  let best: number | undefined
  let least = reach
  places.forEach(([px, py], index) => {
    const away = Math.hypot(px - x, py - y)
    if (away < least) [least, best] = [away, index]
  })
  return best
}

/** The point whose way in passes near a place. */
function wayNear(
  envelope: Envelope,
  geometry: Geometry,
  scale: number,
  layer: ChartWork['layer'],
  x: number,
  y: number,
): number | undefined {
  if (envelope.points.length < 2) return undefined
  const line = traced(envelope, layer, 0, scale)
  const at = nearest(line.map(([seconds, across]) => geometry.place(seconds, across)), x, y, WAY_REACH) // prettier-ignore
  if (at === undefined) return undefined
  const seconds = line[at]![0] / scale
  const index = envelope.points.findIndex((point) => point.seconds > seconds - 1e-9)
  return index > 0 ? index : undefined
}
