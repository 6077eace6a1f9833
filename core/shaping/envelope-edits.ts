import type { Envelope, EnvelopeName, EnvelopePoint } from '../kit'

export type Layer = EnvelopeName

/** The range that can be drawn; typed values may go as far as the document allows. */
export const PITCH_RANGE_CENTS = 4800
export const layerLimits = { level: [0, 1], pitch: [-12000, 12000], filter1: [0, 1], filter2: [0, 1] } as const

/** A new envelope spans the hit it is for. */
export function newEnvelope(layer: Layer, seconds: number): Envelope {
  const span = Math.max(0.02, Number(seconds.toFixed(3)))
  const point = (share: number, value: number, bend: number): EnvelopePoint => ({ seconds: Number((span * share).toFixed(4)), value, bend })
  if (layer === 'level') return { points: [point(0, 1, 0), point(0.4, 0.7, 0), point(1, 0, -0.3)] }
  return layer !== 'pitch' ? { points: [point(0, 1, 0), point(0.4, 0, -0.4)] } : { points: [point(0, 1200, 0), point(0.25, 0, -0.5)] }
}

/** Points stand this far apart in time at least, so that each can be taken hold of. */
export const APART_SECONDS = 0.0001
export const LATEST_SECONDS = 3600

/** Moves a point by hand; it stays between its neighbours in time. */
export function movePoint(envelope: Envelope, index: number, seconds: number, value: number, layer: Layer): Envelope {
  const { points } = envelope
  const [low, high] = layerLimits[layer]
  const before = points[index - 1]
  const after = points[index + 1]
  const earliest = before ? before.seconds + APART_SECONDS : 0
  const latest = Math.max(earliest, after ? after.seconds - APART_SECONDS : 60)
  const moved = {
    ...points[index],
    seconds: Math.min(latest, Math.max(earliest, rounded(seconds, 5))),
    value: Math.min(high, Math.max(low, rounded(value, layer === 'pitch' ? 0 : 4))),
  }
  return { ...envelope, points: points.map((point, i) => (i === index ? moved : point)) }
}

/** An envelope after something was typed, and what is said where that could not be taken as it was. */
export interface Typed {
  readonly envelope: Envelope
  readonly words?: string
}

/** A typed time: the points after it move along, by as much. */
export function typeTime(envelope: Envelope, index: number, seconds: number): Typed {
  const { points } = envelope
  const before = points[index - 1]
  const least = before ? rounded(before.seconds + APART_SECONDS, 5) : 0
  const last = points[points.length - 1].seconds - points[index].seconds
  const taken = Math.min(LATEST_SECONDS - last, Math.max(least, rounded(seconds, 5)))
  const by = taken - points[index].seconds
  const moved = points.map((point, i) => (i < index ? point : { ...point, seconds: Math.max(0, rounded(point.seconds + by, 5)) }))
  const words =
    seconds < least && before
      ? `Point ${index} is at ${ms(before.seconds)}; point ${index + 1} stands just behind it, at ${ms(taken)}.`
      : seconds < least
        ? 'An envelope begins with its strike, at 0 ms.'
        : taken < rounded(seconds, 5)
          ? 'An envelope lasts an hour at most.'
          : undefined
  return { envelope: { ...envelope, points: moved }, ...(words ? { words } : {}) }
}

/** A typed level (1 is full) or pitch (cents). */
export function typeValue(envelope: Envelope, index: number, value: number, layer: Layer): Typed {
  const [low, high] = layerLimits[layer]
  const changed = movePoint(envelope, index, envelope.points[index].seconds, value, layer)
  if (value >= low && value <= high) return { envelope: withTimes(changed, envelope) }
  const words = layer.startsWith('filter')
    ? `A filter’s envelope goes from 0 to 100 % of its reach, so it stands at ${value > high ? 100 : 0} %.`
    : layer === 'level'
      ? `A level goes from 0 to 100 %, so it stands at ${value > high ? 100 : 0} %. The pad’s own level makes it louder.`
      : `A pitch goes ten octaves up or down, so it stands at ${value > high ? high : low} cents.`
  return { envelope: withTimes(changed, envelope), words }
}

/** What was typed was no time: all times stay, even of points that stand on each other. */
function withTimes(changed: Envelope, { points }: Envelope): Envelope {
  return { ...changed, points: changed.points.map((point, i) => ({ ...point, seconds: points[i].seconds })) }
}

function ms(seconds: number): string {
  return `${rounded(seconds * 1000, 1)} ms`
}

export function addPoint(envelope: Envelope, seconds: number, value: number, layer: Layer): [Envelope, number] {
  const found = envelope.points.findIndex((point) => point.seconds > seconds)
  const index = found < 0 ? envelope.points.length : found
  const points = [...envelope.points.slice(0, index), { seconds, value, bend: 0 }, ...envelope.points.slice(index)]
  const moved = withPlaces(envelope, points, (place) => (place >= index ? place + 1 : place))
  return [movePoint(moved, index, seconds, value, layer), index]
}

export function removePoint(envelope: Envelope, index: number): Envelope {
  const points = envelope.points.filter((_, i) => i !== index)
  return withPlaces(envelope, points, (place) => (place === index ? undefined : place > index ? place - 1 : place))
}

/** An envelope with other points, whose waiting point and round stay where they were; what lost its point is gone. */
export function withPlaces(
  { sustain, loop }: Envelope,
  points: readonly EnvelopePoint[],
  placeOf: (place: number) => number | undefined,
): Envelope {
  const waits = sustain === undefined ? undefined : placeOf(sustain)
  const from = loop && placeOf(loop.from)
  const to = loop && placeOf(loop.to)
  const round = from !== undefined && to !== undefined && from < to ? { loop: { from, to } } : {}
  return { points: [...points], ...(waits === undefined ? {} : { sustain: waits }), ...round }
}

export function rounded(value: number, places: number): number {
  return Number(value.toFixed(places))
}
