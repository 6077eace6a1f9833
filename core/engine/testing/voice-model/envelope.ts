import type { Envelope } from '../../../kit/shape'
import { RATE } from './terms'

/** The value of an envelope so many frames after the strike; undefined for one without points. */
export function envelopeAt({ points }: Envelope, time: number, scale = 1): number | undefined {
  if (points.length === 0) return undefined
  const frameOf = (i: number) => points[i].seconds * scale * RATE
  const next = points.findIndex((_, i) => frameOf(i) > time)
  if (next === 0 || time <= frameOf(0)) return points[0].value
  if (next < 0) return points[points.length - 1].value
  return way(points[next - 1].value, points[next], (time - frameOf(next - 1)) / (frameOf(next) - frameOf(next - 1)))
}

function way(from: number, to: { value: number; bend: number }, u: number): number {
  const k = 64 ** to.bend
  return from + (to.value - from) * (u / (u + k * (1 - u)))
}

/** An envelope whose strike is held waits at its point, and sets out from there once it is let go. */
export function heldEnvelopeAt(envelope: Envelope, time: number, scale: number, letGo: number): number | undefined {
  const { points, sustain } = envelope
  if (sustain === undefined || points.length === 0) return envelopeAt(envelope, time, scale)
  const waits = points[sustain].seconds * scale * RATE
  if (time < letGo) return envelopeAt(envelope, Math.min(time, waits), scale)
  const left = envelopeAt(envelope, Math.min(letGo, waits), scale)!
  const after = time - letGo + waits
  if (sustain >= points.length - 1) return points[sustain].value
  const next = points[sustain + 1].seconds * scale * RATE
  if (after >= next) return envelopeAt(envelope, after, scale)
  return way(left, points[sustain + 1], (after - waits) / (next - waits))
}
