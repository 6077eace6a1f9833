import type { Clip } from '@heliaster/core/kit'
import { drawnAlong, movedSpan, resizedSpan, spanOf, withBorder } from '@heliaster/core/slices'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'
import { useRef } from 'react'

import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import type { Slices } from './slices-view'
import type { Lane } from './lanes'
import { amountAt } from './lanes'

export type HandMode = 'draw' | 'stretch' | 'cut'

interface Ground {
  readonly clip: Clip
  readonly slices: Slices
  readonly amounts: Amounts
  readonly lane: Lane
  readonly mode: HandMode
  readonly span: SliceSpan
  readonly height: number
  /** Frames of the file for px, and back. */
  readonly frameAt: (x: number) => number
  readonly xOf: (frame: number) => number
  readonly gapFrames: number
  onChoose(span: SliceSpan): void
  onAmounts(amounts: Amounts, span: SliceSpan): void
  onSlices(slices: Slices): void
  /** A tap where there is no border makes one. */
  onCutAt(frame: number): void
  onDone(): void
}

const REACH_PX = 22

type Held =
  | { readonly kind: 'draw'; last: { place: number; amount: number }; amounts: Amounts }
  | { readonly kind: 'choose'; readonly from: number }
  | { readonly kind: 'move'; readonly from: number; readonly amounts: Amounts; readonly span: SliceSpan; isMoved: boolean }
  | { readonly kind: 'resize'; readonly isEnd: boolean; readonly amounts: Amounts; readonly span: SliceSpan }
  | { readonly kind: 'border'; readonly place: number; readonly slices: Slices }
  | { readonly kind: 'cut'; readonly frame: number }

/** The slice of a frame, by its place. */
export function sliceAt(slices: Slices, frame: number): number {
  return Math.max(
    0,
    slices.findLastIndex((slice) => slice.frame <= frame),
  )
}

/** One finger over the slices: draws amounts, chooses, moves and resizes a stretch, or moves and makes borders. */
export function useSliceHand(ground: Ground) {
  const held = useRef<Held>(undefined)
  const placeAt = (x: number) => sliceAt(ground.slices, ground.frameAt(x))
  const draw = (x: number, y: number, from?: { place: number; amount: number }) => {
    const to = { place: placeAt(x), amount: amountAt(ground.lane, 1 - y / ground.height) }
    const amounts = drawnAlong(held.current?.kind === 'draw' ? held.current.amounts : ground.amounts, from ?? to, to)
    held.current = { kind: 'draw', last: to, amounts }
    ground.onAmounts(amounts, { first: to.place, last: to.place })
  }
  return usePointerDrag({
    onStart(x, y) {
      held.current = undefined
      if (ground.mode === 'draw') return draw(x, y)
      held.current = ground.mode === 'cut' ? grabBorder(ground, x) : grabStretch(ground, x, placeAt(x))
      if (held.current.kind === 'choose') ground.onChoose(spanOf(held.current.from, held.current.from))
      return undefined
    },
    onMove(x, y) {
      const now = held.current
      if (now?.kind === 'draw') draw(x, y, now.last)
      else if (now?.kind === 'choose') ground.onChoose(spanOf(now.from, placeAt(x)))
      else if (now?.kind === 'border') ground.onSlices(withBorder(ground.clip, now.slices, now.place, ground.frameAt(x), ground.gapFrames))
      else if (now?.kind === 'move') {
        const moved = movedSpan(now.amounts, now.span, placeAt(x) - now.from)
        now.isMoved ||= moved.span.first !== now.span.first
        if (now.isMoved) ground.onAmounts(moved.amounts, moved.span)
      } else if (now?.kind === 'resize') {
        const at = placeAt(x)
        const span = now.isEnd ? { first: now.span.first, last: Math.max(now.span.first, at) } : { first: Math.min(now.span.last, at), last: now.span.last } // prettier-ignore
        ground.onAmounts(resizedSpan(now.amounts, now.span, span), span)
      }
    },
    onEnd(x) {
      const now = held.current
      held.current = undefined
      if (now?.kind === 'cut') ground.onCutAt(now.frame)
      // A tap inside of a stretch chooses the slice alone.
      if (now?.kind === 'move' && !now.isMoved) ground.onChoose(spanOf(placeAt(x), placeAt(x)))
      if (now && now.kind !== 'choose') ground.onDone()
    },
  })
}

/** The edges of a stretch that is longer than a slice are taken hold of, its middle too; anything else begins another one. */
function grabStretch({ xOf, slices, clip, span, amounts }: Ground, x: number, place: number): Held {
  if (span.last > span.first) {
    const [from, to] = edgesOf(clip, slices, span).map(xOf) as [number, number]
    const [nearStart, nearEnd] = [Math.abs(x - from), Math.abs(x - to)]
    if (Math.min(nearStart, nearEnd) <= Math.min(REACH_PX, (to - from) / 4)) return { kind: 'resize', isEnd: nearEnd <= nearStart, amounts, span } // prettier-ignore
    if (x > from && x < to) return { kind: 'move', from: place, amounts, span, isMoved: false }
  }
  return { kind: 'choose', from: place }
}

/** A border is taken hold of near it, and a slice cut in its middle, however narrow it is. */
function grabBorder({ clip, slices, frameAt, xOf }: Ground, x: number): Held {
  const borders = slices.slice(1).map(({ frame }, i) => ({ place: i + 1, far: Math.abs(xOf(frame) - x) }))
  const near = borders.sort((a, b) => a.far - b.far)[0]
  const here = sliceAt(slices, frameAt(x))
  const [from, to] = edgesOf(clip, slices, { first: here, last: here }).map(xOf) as [number, number]
  return near && near.far <= Math.min(REACH_PX, (to - from) / 3)
    ? { kind: 'border', place: near.place, slices }
    : { kind: 'cut', frame: frameAt(x) }
}

/** Where a stretch begins and ends, frames of the file. */
export function edgesOf({ endFrame }: Pick<Clip, 'endFrame'>, slices: Slices, { first, last }: SliceSpan): [number, number] {
  return [slices[first]!.frame, slices[last + 1]?.frame ?? endFrame]
}
