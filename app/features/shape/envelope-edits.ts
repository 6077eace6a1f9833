import type { Envelope, EnvelopePoint } from '@heliaster/core/kit'

export type Layer = 'amp' | 'pitch'

/** The range that can be drawn; typed values may go as far as the document allows. */
export const PITCH_RANGE_CENTS = 4800
const limits = { amp: [0, 1], pitch: [-12000, 12000] } as const

/** A new envelope spans the hit it is for. */
export function newEnvelope(layer: Layer, seconds: number): Envelope {
  const span = Math.max(0.02, Number(seconds.toFixed(3)))
  const point = (share: number, value: number, bend: number): EnvelopePoint => ({ seconds: Number((span * share).toFixed(4)), value, bend })
  return layer === 'amp'
    ? { points: [point(0, 1, 0), point(0.4, 0.7, 0), point(1, 0, -0.3)] }
    : { points: [point(0, 1200, 0), point(0.25, 0, -0.5)] }
}

/** Moves a point; it stays between its neighbours in time. */
export function movePoint(envelope: Envelope, index: number, seconds: number, value: number, layer: Layer): Envelope {
  const { points } = envelope
  const [low, high] = limits[layer]
  const earliest = points[index - 1]?.seconds ?? 0
  const latest = points[index + 1]?.seconds ?? 60
  const moved = {
    ...points[index],
    seconds: Math.min(latest, Math.max(earliest, round(seconds, 5))),
    value: Math.min(high, Math.max(low, round(value, layer === 'amp' ? 4 : 0))),
  }
  return { ...envelope, points: points.map((point, i) => (i === index ? moved : point)) }
}

export function addPoint(envelope: Envelope, seconds: number, value: number, layer: Layer): [Envelope, number] {
  const found = envelope.points.findIndex((point) => point.seconds > seconds)
  const index = found < 0 ? envelope.points.length : found
  const points = [...envelope.points.slice(0, index), { seconds, value, bend: 0 }, ...envelope.points.slice(index)]
  const sustain = envelope.sustain !== undefined && envelope.sustain >= index ? envelope.sustain + 1 : envelope.sustain
  return [movePoint({ ...envelope, points, ...(sustain === undefined ? {} : { sustain }) }, index, seconds, value, layer), index]
}

export function removePoint(envelope: Envelope, index: number): Envelope {
  const { sustain, ...rest } = envelope
  const points = envelope.points.filter((_, i) => i !== index)
  if (sustain === undefined || sustain === index) return { ...rest, points }
  return { ...rest, points, sustain: sustain > index ? sustain - 1 : sustain }
}

function round(value: number, places: number): number {
  return Number(value.toFixed(places))
}
