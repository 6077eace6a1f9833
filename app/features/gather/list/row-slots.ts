import { startTransition, useEffect, useRef, useState } from 'react'

/** How many rows change in one drawing. More would hold the page for longer than a frame or two. */
const MOST_AT_ONCE = 5

/**
 * Slots that rows are drawn into: slot s holds a row whose index is s modulo their number, so that rows that go out of
 * sight come back as others, which is far cheaper than new ones. `first` to `last` are wanted; at most `most` slots change.
 */
export function nextSlots(slots: readonly number[], first: number, last: number, most: number): readonly number[] {
  const size = Math.max(slots.length, last - first + 1)
  const next = size === slots.length ? [...slots] : placed(slots, size)
  let changed = 0
  for (let index = first; index <= last && changed < most; index++) {
    if (next[index % size] === index) continue
    next[index % size] = index
    changed++
  }
  return changed === 0 && size === slots.length ? slots : next
}

const EMPTY = -1

/** The same rows in more slots. */
function placed(slots: readonly number[], size: number): number[] {
  const next = new Array<number>(size).fill(EMPTY)
  for (const index of slots) if (index !== EMPTY) next[index % size] = index
  return next
}

/** The rows to draw now, by slot; those that came into sight follow a few at a time, in pieces that can be interrupted. */
export function useRowSlots(first: number, last: number): readonly { slot: number; index: number }[] {
  const [slots, setSlots] = useState<readonly number[]>([])
  const drawing = useRef<readonly number[]>(undefined) // set until it is on the page: what is being drawn is never thrown away
  useEffect(() => {
    if (drawing.current === slots) drawing.current = undefined
    if (drawing.current || last < first) return
    const next = nextSlots(slots, first, last, MOST_AT_ONCE)
    if (next === slots) return
    drawing.current = next
    startTransition(() => setSlots(next))
  }, [slots, first, last])
  return slots.flatMap((index, slot) => (index === EMPTY ? [] : [{ slot, index }]))
}
