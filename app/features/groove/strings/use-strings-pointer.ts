import { louderBy, movedBeads, stringOf, withoutBeads } from '@heliaster/core/groove'
import type { BeadId } from '@heliaster/core/kit'
import { useRef, useState } from 'react'

import { useElement } from '../../../ui/pointer/use-element'
import type { BeadHands } from '../hands/use-bead-hands'
import { beadsWithin, placeAtPoint, ROW_PX, rowTop, stepPx } from './strings-layout'
import type { Place, Sight, StringsLayout } from './strings-layout'

type Held =
  | { readonly on: 'bead'; readonly place: Place; readonly ids: ReadonlySet<BeadId>; readonly x: number; readonly y: number; readonly adds: boolean; way?: 'x' | 'y'; isOff: boolean } // prettier-ignore
  | { readonly on: 'ground'; readonly x: number; readonly y: number; readonly adds: boolean; isMarking: boolean }

/** So little is a tap; a finger rests so long before it marks; so far from its string a bead is off it. */
const TAP_PX = 5
const REST_MS = 320
const OFF_PX = 40
/** Velocities for each px that a bead is dragged up. */
const VELOCITY_PX = 1.6

interface Seen {
  /** What is dragged over, and which beads would be let go of off their strings. */
  readonly box?: Sight
  readonly leaving?: ReadonlySet<BeadId>
}

/**
 * Fingers, pen and mouse on the strings. A tap on an empty step makes a bead, on a bead chooses it; a bead is dragged up and down
 * for its velocity, along for its step, and off its string to be removed. Over empty ground a mouse marks what it goes over, a finger
 * after a rest; until then it scrolls.
 */
export function useStringsPointer(hands: BeadHands, layout: StringsLayout) {
  const [seen, setSeen] = useState<Seen>({})
  const held = useRef<Held>(undefined)
  const content = useElement({ hands, layout }, (element, given) => {
    let pointer: number | undefined
    let rest: ReturnType<typeof setTimeout> | undefined
    const at = (event: PointerEvent) => {
      const box = element.getBoundingClientRect()
      return { x: event.clientX - box.left, y: event.clientY - box.top }
    }
    const leave = () => {
      clearTimeout(rest)
      pointer = undefined
      held.current = undefined
      setSeen({})
    }
    const down = (event: PointerEvent) => {
      if (pointer !== undefined || event.button > 0) return
      const { x, y } = at(event)
      pointer = event.pointerId
      const begun = begin(given(), x, y, event.shiftKey || event.ctrlKey || event.metaKey)
      held.current = begun
      if (begun.on === 'bead' || event.pointerType !== 'touch') element.setPointerCapture(event.pointerId)
      if (begun.on === 'ground' && event.pointerType === 'touch')
        rest = setTimeout(() => {
          begun.isMarking = true
          element.setPointerCapture(event.pointerId)
          setSeen({ box: { left: x, top: y, width: 1, height: 1 } })
        }, REST_MS)
    }
    const move = (event: PointerEvent) => {
      const now = held.current
      if (event.pointerId !== pointer || !now) return
      const { x, y } = at(event)
      if (now.on === 'bead') return setSeen(drag(given(), now, x, y))
      const isFar = Math.hypot(x - now.x, y - now.y) > TAP_PX
      if (!now.isMarking && isFar && event.pointerType === 'touch') return leave() // it scrolls
      if (isFar) now.isMarking = true
      if (now.isMarking) setSeen({ box: boxOf(now.x, now.y, x, y) })
    }
    const up = (event: PointerEvent) => {
      const now = held.current
      if (event.pointerId !== pointer || !now) return
      const { x, y } = at(event)
      const isMeant = event.type === 'pointerup'
      leave()
      if (now.on === 'bead') letGo(given(), now, isMeant)
      else if (isMeant) endOnGround(given(), now, x, y)
    }
    /** While a bead is held or a box is drawn, a finger does not scroll. */
    const hold = (event: TouchEvent) => {
      const now = held.current
      if (now && (now.on === 'bead' || now.isMarking) && event.cancelable) event.preventDefault()
    }
    const menu = (event: Event) => held.current && event.preventDefault()
    const pairs = [['pointerdown', down], ['pointermove', move], ['pointerup', up], ['pointercancel', up]] as const // prettier-ignore
    for (const [type, listener] of pairs) element.addEventListener(type, listener)
    element.addEventListener('touchmove', hold, { passive: false })
    element.addEventListener('contextmenu', menu)
    return () => {
      clearTimeout(rest)
      for (const [type, listener] of pairs) element.removeEventListener(type, listener)
      element.removeEventListener('touchmove', hold)
      element.removeEventListener('contextmenu', menu)
    }
  })
  return { content, ...seen }
}

interface Given {
  readonly hands: BeadHands
  readonly layout: StringsLayout
}

const boxOf = (x: number, y: number, toX: number, toY: number): Sight => ({ left: Math.min(x, toX), top: Math.min(y, toY), width: Math.abs(toX - x), height: Math.abs(toY - y) }) // prettier-ignore

function begin({ hands, layout }: Given, x: number, y: number, adds: boolean): Held {
  const place = placeAtPoint(layout, x, y)
  if (!place?.bead) return { on: 'ground', x, y, adds, isMarking: false }
  const { id } = place.bead
  if (adds) {
    const ids = new Set(hands.chosen)
    if (!ids.delete(id)) ids.add(id)
    hands.choose(ids, place)
    return { on: 'bead', place, ids: ids.has(id) ? ids : new Set(), x, y, adds, isOff: false }
  }
  const ids = hands.chosen.has(id) ? hands.chosen : new Set([id])
  hands.choose(ids, place)
  return { on: 'bead', place, ids, x, y, adds, isOff: false }
}

/** A held bead follows: along for steps, up and down for velocity, and further off it would be gone. */
function drag({ hands, layout }: Given, held: Held & { on: 'bead' }, x: number, y: number): Seen {
  const [alongPx, upPx] = [x - held.x, held.y - y]
  if (!held.way && Math.hypot(alongPx, upPx) > TAP_PX) held.way = Math.abs(alongPx) > Math.abs(upPx) ? 'x' : 'y'
  const { row, padId } = held.place
  held.isOff = held.way !== undefined && (y < rowTop(row) - OFF_PX || y > rowTop(row) + ROW_PX + OFF_PX)
  if (held.isOff) return { leaving: held.ids }
  if (held.way === 'y') hands.slide((before) => louderBy(before, held.ids, upPx * VELOCITY_PX))
  const wide = stepPx(layout, stringOf(layout.groove, padId))
  if (held.way === 'x') hands.slide((before) => movedBeads(before, held.ids, Math.round(alongPx / wide)))
  return {}
}

function letGo({ hands }: Given, held: Held & { on: 'bead' }, isMeant: boolean): void {
  if (held.isOff && isMeant) hands.slide((before) => withoutBeads(before, held.ids))
  if (held.way) return hands.done()
  const { bead } = held.place
  if (!isMeant || !bead) return
  if (!held.adds) hands.choose(new Set([bead.id]), held.place) // of several that are chosen a tap means the one
  hands.hear(bead.id)
}

function endOnGround({ hands, layout }: Given, held: Held & { on: 'ground' }, x: number, y: number): void {
  if (held.isMarking) {
    const within = beadsWithin(layout, boxOf(held.x, held.y, x, y))
    return hands.choose(new Set([...(held.adds ? hands.chosen : []), ...within]))
  }
  const place = placeAtPoint(layout, x, y)
  if (place) hands.put(place)
}
