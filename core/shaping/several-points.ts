import { bendToK } from '../engine'
import type { Envelope, EnvelopePoint } from '../kit'
import { APART_SECONDS, LATEST_SECONDS, layerLimits, rounded, withPlaces } from './envelope-edits'
import type { Layer } from './envelope-edits'

/**
 * Several points of an envelope at once. `chosen` are places of points, in any order; where none or one is chosen, what is
 * done to a stretch of time is done to the whole. Nothing here makes points run backward or leave their range.
 */
export type Chosen = readonly number[]

export const MOST_POINTS = 32
const SHARPEST = 64

/** The first and last place of what is worked on. */
function rangeOf({ points }: Envelope, chosen: Chosen): readonly [first: number, last: number] {
  const inside = chosen.filter((place) => place >= 0 && place < points.length)
  return inside.length < 2 ? [0, points.length - 1] : [Math.min(...inside), Math.max(...inside)]
}

const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))
const timed = (seconds: number) => rounded(clamp(seconds, 0, LATEST_SECONDS), 5)
const valued = (value: number, layer: Layer) => {
  const [low, high] = layerLimits[layer]
  return clamp(rounded(value, layer === 'pitch' ? 0 : 4), low, high)
}

/** Moves the chosen points together, as far as their neighbours and their range let all of them go. */
export function movePoints(envelope: Envelope, chosen: Chosen, bySeconds: number, byValue: number, layer: Layer): Envelope {
  const { points } = envelope
  const [low, high] = layerLimits[layer]
  const moving = new Set(chosen)
  let [earliest, latest, deepest, highest] = [-Infinity, Infinity, -Infinity, Infinity]
  points.forEach((point, place) => {
    if (!moving.has(place)) return
    const [before, after] = [points[place - 1], points[place + 1]]
    if (!moving.has(place - 1)) earliest = Math.max(earliest, (before ? before.seconds + APART_SECONDS : 0) - point.seconds)
    if (!moving.has(place + 1)) latest = Math.min(latest, (after ? after.seconds - APART_SECONDS : LATEST_SECONDS) - point.seconds)
    deepest = Math.max(deepest, low - point.value)
    highest = Math.min(highest, high - point.value)
  })
  const seconds = earliest > latest ? 0 : clamp(bySeconds, earliest, latest)
  const value = clamp(byValue, deepest, highest)
  const moved = (point: EnvelopePoint) => ({
    ...point,
    seconds: timed(point.seconds + seconds),
    value: valued(point.value + value, layer),
  })
  return { ...envelope, points: points.map((point, place) => (moving.has(place) ? moved(point) : point)) }
}

/** Takes points away; one is left at least, the first of them all. */
export function removePoints(envelope: Envelope, chosen: Chosen): Envelope {
  const { points } = envelope
  const going = new Set(chosen)
  if (points.every((_, place) => going.has(place))) going.delete(0)
  const left = points.flatMap((_, place) => (going.has(place) ? [] : [place]))
  return withPlaces(
    envelope,
    left.map((place) => points[place]!),
    (place) => (going.has(place) ? undefined : left.indexOf(place)),
  )
}

/** Makes the stretch between the chosen points `factor` times as long; what comes after it moves along. */
export function stretchTime(envelope: Envelope, chosen: Chosen, factor: number): Envelope {
  const { points } = envelope
  if (points.length === 0 || !(factor > 0)) return envelope
  const [first, last] = rangeOf(envelope, chosen)
  const from = chosen.length < 2 ? 0 : points[first]!.seconds
  const later = (points[last]!.seconds - from) * (factor - 1)
  const stretched = points.map(({ seconds, ...rest }, place) => ({
    ...rest,
    seconds: place < first ? seconds : timed(place <= last ? from + (seconds - from) * factor : seconds + later),
  }))
  return { ...envelope, points: apart(stretched) }
}

/** Points that were brought too close stand just behind each other again, so that each can be taken hold of. */
function apart(points: readonly EnvelopePoint[]): EnvelopePoint[] {
  const made: EnvelopePoint[] = []
  for (const point of points) {
    const before = made[made.length - 1]
    const seconds = before && point.seconds < before.seconds + APART_SECONDS ? timed(before.seconds + APART_SECONDS) : point.seconds
    made.push({ ...point, seconds })
  }
  return made
}

/** Multiplies the values of the chosen points, or of all: levels and openings from nothing, pitches from no change. */
export function scaleAmount(envelope: Envelope, chosen: Chosen, factor: number, layer: Layer): Envelope {
  const scaled = new Set(chosen.length === 0 ? envelope.points.keys() : chosen)
  const points = envelope.points.map((point, place) =>
    scaled.has(place) ? { ...point, value: valued(point.value * factor, layer) } : point,
  )
  return { ...envelope, points }
}

/** Turns the stretch between the chosen points back to front, each way with its bend. */
export function backToFront(envelope: Envelope, chosen: Chosen): Envelope {
  const { points, sustain, loop } = envelope
  if (points.length < 2) return envelope
  const [first, last] = rangeOf(envelope, chosen)
  const ends = points[first]!.seconds + points[last]!.seconds
  const turned = (place: number) => (place < first || place > last ? place : first + last - place)
  const made = points.map((point, place) => {
    if (place < first || place > last) return point
    const was = points[turned(place)]!
    // The way into a point was the way out of it; read backward, early is late.
    const bend = place === first ? point.bend : -points[turned(place) + 1]!.bend
    return { seconds: timed(ends - was.seconds), value: was.value, bend: bend === 0 ? 0 : bend }
  })
  return {
    points: made,
    ...(sustain === undefined ? {} : { sustain: turned(sustain) }),
    ...roundOf(loop && [turned(loop.from), turned(loop.to)]),
  }
}

function roundOf(places: readonly [number, number] | undefined): Pick<Envelope, 'loop'> {
  return places && places[0] !== places[1] ? { loop: { from: Math.min(...places), to: Math.max(...places) } } : {}
}

/** Turns the chosen points, or all, upside down: pitches fall instead of rise; levels and openings within the range they have. */
export function upsideDown(envelope: Envelope, chosen: Chosen, layer: Layer): Envelope {
  const turning = new Set(chosen.length < 2 ? envelope.points.keys() : chosen)
  const values = envelope.points.flatMap(({ value }, place) => (turning.has(place) ? [value] : []))
  const sum = layer === 'pitch' ? 0 : Math.min(...values) + Math.max(...values)
  const points = envelope.points.map((point, place) => (turning.has(place) ? { ...point, value: valued(sum - point.value, layer) } : point))
  return { ...envelope, points }
}

/** A copied stretch of an envelope: its points from 0 s, and whether it was all there was. */
export interface CopiedPoints {
  readonly layer: Layer
  readonly envelope: Envelope
  readonly isWhole: boolean
}

/** Copies the stretch between the chosen points; all of it where fewer than two are chosen. */
export function copyPoints(envelope: Envelope, chosen: Chosen, layer: Layer): CopiedPoints {
  const [first, last] = rangeOf(envelope, chosen)
  if (first === 0 && last === envelope.points.length - 1) return { layer, envelope, isWhole: true }
  const from = envelope.points[first]!.seconds
  const points = envelope.points.slice(first, last + 1).map((point) => ({ ...point, seconds: rounded(point.seconds - from, 5) }))
  return { layer, envelope: { points }, isWhole: false }
}

/** So many cents stand for the whole of a level or an opening where one is laid onto the pitch. */
export const PASTED_CENTS = 1200

/**
 * Lays what was copied onto an envelope: a whole one takes its place; a stretch begins at `seconds` and takes the place of
 * what is there, up to its end. Nothing where that would be more than 32 points. Between pitch and the others, all of a
 * level is an octave.
 */
export function pastePoints(envelope: Envelope, copied: CopiedPoints, seconds: number, layer: Layer): Envelope | undefined {
  const convert = (value: number) => {
    if ((copied.layer === 'pitch') === (layer === 'pitch')) return value
    return valued(layer === 'pitch' ? value * PASTED_CENTS : Math.abs(value) / PASTED_CENTS, layer)
  }
  const laid = copied.envelope.points.map((point) => ({ ...point, value: convert(point.value) }))
  if (copied.isWhole || envelope.points.length === 0) return { ...copied.envelope, points: laid }
  const from = timed(seconds)
  const until = from + laid[laid.length - 1]!.seconds
  const stays = (point: EnvelopePoint) => point.seconds < from - APART_SECONDS / 2 || point.seconds > until + APART_SECONDS / 2
  const kept = envelope.points.flatMap((point, place) => (stays(point) ? [place] : []))
  const before = kept.filter((place) => envelope.points[place]!.seconds < from)
  const points = apart([
    ...before.map((place) => envelope.points[place]!),
    ...laid.map((point) => ({ ...point, seconds: timed(from + point.seconds) })),
    ...kept.slice(before.length).map((place) => envelope.points[place]!),
  ])
  if (points.length > MOST_POINTS) return undefined
  const moved = (place: number) => {
    const at = kept.indexOf(place)
    return at < 0 ? undefined : at < before.length ? at : at + laid.length
  }
  return withPlaces(envelope, points, moved)
}

/** Stretches the whole so that it ends when the hit does. */
export function fitTo(envelope: Envelope, seconds: number): Envelope {
  const last = envelope.points[envelope.points.length - 1]?.seconds ?? 0
  return last > 0 && seconds > 0 ? stretchTime(envelope, [], seconds / last) : envelope
}

/** Bends the way into a point so that it passes through a place; where it neither rises nor falls, nothing changes. */
export function bendThrough(envelope: Envelope, index: number, seconds: number, value: number): Envelope {
  const [from, to] = [envelope.points[index - 1], envelope.points[index]]
  if (!from || !to || from.value === to.value) return envelope
  const share = clamp((seconds - from.seconds) / (to.seconds - from.seconds), 0.02, 0.98)
  const way = clamp((value - from.value) / (to.value - from.value), 0.001, 0.999)
  const k = clamp((share * (1 - way)) / (way * (1 - share)), bendToK(-1), bendToK(1))
  const bend = rounded(Math.log(k) / Math.log(SHARPEST), 3)
  return { ...envelope, points: envelope.points.map((point, place) => (place === index ? { ...point, bend } : point)) }
}
