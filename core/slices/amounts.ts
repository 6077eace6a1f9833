import type { Slice } from '../kit/clip'
import type { BusId } from '../kit/ids'
import { parameters } from '../kit/parameters'

/** What is drawn over the slices of a clip: a number of their own, or what they send to a bus. */
export type SliceLane =
  { readonly kind: 'value'; readonly param: 'gainDb' | 'pan' | 'tuneCents' } | { readonly kind: 'send'; readonly busId: BusId }

/** An amount for each slice, in order; undefined where nothing is set. */
export type Amounts = readonly (number | undefined)[]

/** Slices from `first` to `last`, both of them, by their places. */
export interface SliceSpan {
  readonly first: number
  readonly last: number
}

export const spanOf = (one: number, other: number): SliceSpan => ({ first: Math.min(one, other), last: Math.max(one, other) })
const lengthOf = ({ first, last }: SliceSpan) => last - first + 1
const has = ({ first, last }: SliceSpan, place: number) => place >= first && place <= last

/** Sends and levels are off at this, dB. */
export const OFF_DB = parameters.gainDb.min

export function amountsOf(slices: readonly Slice[], lane: SliceLane): Amounts {
  return slices.map(({ values, sends }) => (lane.kind === 'value' ? values[lane.param] : sends?.[lane.busId]?.gainDb))
}

/** The same slices with these amounts; what is the same stays the same object. */
export function withAmounts(slices: readonly Slice[], lane: SliceLane, amounts: Amounts): Slice[] {
  const before = amountsOf(slices, lane)
  return slices.map((slice, i) => (amounts[i] === before[i] ? slice : withAmount(slice, lane, amounts[i])))
}

function withAmount(slice: Slice, lane: SliceLane, amount: number | undefined): Slice {
  if (lane.kind === 'value') {
    const { [lane.param]: _before, ...values } = slice.values
    return { ...slice, values: amount === undefined ? values : { ...values, [lane.param]: amount } }
  }
  const { [lane.busId]: _before, ...others } = slice.sends ?? {}
  const sends = amount === undefined ? others : { ...others, [lane.busId]: { gainDb: amount } }
  const { sends: _sends, ...plain } = slice
  return Object.keys(sends).length > 0 ? { ...plain, sends } : plain
}

/** One amount on some slices. */
export function setOn(amounts: Amounts, places: readonly number[], amount: number | undefined): Amounts {
  return amounts.map((before, i) => (places.includes(i) ? amount : before))
}

/** A line drawn from one slice to another, with all between them. */
export function drawnAlong(amounts: Amounts, from: { place: number; amount: number }, to: { place: number; amount: number }): Amounts {
  const span = spanOf(from.place, to.place)
  return amounts.map((before, i) => {
    if (!has(span, i)) return before
    if (from.place === to.place) return to.amount
    return from.amount + ((to.amount - from.amount) * (i - from.place)) / (to.place - from.place)
  })
}

export const copied = (amounts: Amounts, { first, last }: SliceSpan): Amounts => amounts.slice(first, last + 1)
export const cleared = (amounts: Amounts, span: SliceSpan): Amounts => amounts.map((before, i) => (has(span, i) ? undefined : before))

/** A stretch laid down from a slice on, as far as there are slices. */
export function pasted(amounts: Amounts, at: number, piece: Amounts): Amounts {
  return amounts.map((before, i) => (i >= at && i < at + piece.length ? piece[i - at] : before))
}

/** A stretch at another place, where it takes the place of what was there; where it was, nothing is left. */
export function movedSpan(amounts: Amounts, span: SliceSpan, by: number): { readonly amounts: Amounts; readonly span: SliceSpan } {
  const way = Math.max(-span.first, Math.min(amounts.length - 1 - span.last, by))
  const first = span.first + way
  return { amounts: pasted(cleared(amounts, span), first, copied(amounts, span)), span: { first, last: first + lengthOf(span) - 1 } }
}

/** A stretch drawn over more or fewer slices: what was in it is spread evenly; what it no longer covers has nothing. */
export function resizedSpan(amounts: Amounts, span: SliceSpan, to: SliceSpan): Amounts {
  const piece = copied(amounts, span)
  const spread = Array.from({ length: lengthOf(to) }, (_, i) => piece[Math.floor((i * piece.length) / lengthOf(to))])
  return pasted(cleared(amounts, span), to.first, spread)
}

/** Amounts by chance between two, in steps of `step` from the least. */
export function atRandom(amounts: Amounts, span: SliceSpan, { least, most, step }: { least: number; most: number; step: number }, random: () => number): Amounts {
  const steps = Math.max(1, Math.round((most - least) / step))
  return amounts.map((before, i) => (has(span, i) ? least + ((most - least) * Math.min(steps, Math.floor(random() * (steps + 1)))) / steps : before))
} // prettier-ignore

/** Stairs from one amount to another; by twos where `every` is 2: the first of them has `from`, the second `to`. */
export function inSteps(amounts: Amounts, span: SliceSpan, from: number, to: number): Amounts {
  const steps = Math.max(1, lengthOf(span) - 1)
  return amounts.map((before, i) => (has(span, i) ? from + ((to - from) * (i - span.first)) / steps : before))
}

/** Every so many slices, from the first of a stretch on, have an amount; the others of it have another. */
export function onEvery(amounts: Amounts, span: SliceSpan, every: number, amount: number | undefined, others: number | undefined): Amounts {
  return amounts.map((before, i) => (has(span, i) ? ((i - span.first) % every === 0 ? amount : others) : before))
}
