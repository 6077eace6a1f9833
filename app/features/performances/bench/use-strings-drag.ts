import type { EventId, Performance } from '@heliaster/core/kit'
import { movedBy } from '@heliaster/core/performance'
import { useRef, useState } from 'react'

import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { edgeNear, strikeNear, strikesWithin } from './strings-layout'
import type { StringsLayout } from './strings-layout'
import type { StringsHands } from './use-strings-keys'

type Given = Omit<StringsHands, 'onRemove'> & { readonly layout: StringsLayout }

interface Box {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

/** What a drag began on, with the performance as it was then: each of its edits says the whole. */
type Held =
  | { readonly on: 'edge'; readonly edge: 'from' | 'to'; readonly before: Performance }
  | { readonly on: 'strikes'; readonly ids: ReadonlySet<EventId>; readonly x: number; readonly before: Performance }
  | { readonly on: 'ground'; readonly x: number; readonly y: number; readonly adds: boolean }

/** So little is a tap. */
const TAP_PX = 4
/** Between the two edges stays so much. */
const LEAST_SECONDS = 0.05

/** A tap chooses a strike, a drag moves the chosen ones in time or an edge; over empty ground it chooses what it goes over. */
export function useStringsDrag({ performance, layout, chosen, onChoose, onFields, onDone }: Given) {
  const held = useRef<Held>(undefined)
  const [box, setBox] = useState<Box>()
  const begin = (x: number, y: number, adds: boolean): Held => {
    const edge = edgeNear(performance, layout, x, y)
    if (edge) return { on: 'edge', edge, before: performance }
    const strike = strikeNear(performance, layout, x, y)
    if (!strike) return { on: 'ground', x, y, adds }
    const ids = chosen.has(strike.id) ? chosen : new Set([...(adds ? chosen : []), strike.id])
    onChoose(ids)
    return { on: 'strikes', ids, x, before: performance }
  }
  const follow = (now: Held, x: number, y: number) => {
    if (now.on === 'edge') onFields(edgeAt(now.before, now.edge, layout.frameAt(x)))
    else if (now.on === 'strikes') {
      if (Math.abs(x - now.x) > TAP_PX) onFields(movedBy(now.before, now.ids, layout.frameAt(x) - layout.frameAt(now.x)))
    } else setBox({ left: Math.min(x, now.x), top: Math.min(y, now.y), width: Math.abs(x - now.x), height: Math.abs(y - now.y) })
  }
  const end = (x: number, y: number) => {
    const now = held.current
    held.current = undefined
    setBox(undefined)
    if (now?.on !== 'ground') return onDone()
    const area = { left: Math.min(x, now.x), top: Math.min(y, now.y), width: Math.abs(x - now.x), height: Math.abs(y - now.y) }
    const within = area.width > TAP_PX ? strikesWithin(performance, layout, area) : []
    onChoose(new Set([...(now.adds ? chosen : []), ...within]))
  }
  const drag = usePointerDrag(
    {
      onStart: (x, y, event) => void (held.current = begin(x, y, event.shiftKey)),
      onMove: (x, y) => held.current && follow(held.current, x, y),
      onEnd: end,
    },
    { isSideways: true },
  )
  return { drag, box }
}

/** An edge of what is heard, never past the other one. */
export function edgeAt(performance: Performance, edge: 'from' | 'to', frame: number): Partial<Performance> {
  const least = Math.round(LEAST_SECONDS * performance.sampleRateHz)
  return edge === 'from'
    ? { fromFrame: Math.max(0, Math.min(frame, performance.toFrame - least)) }
    : { toFrame: Math.max(frame, performance.fromFrame + least) }
}
