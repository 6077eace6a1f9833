import { EnvelopeField, PointField } from '../../program/layout'
import { NEVER } from '../../time'
import { get, toPlace } from './cells'

/** The bent way from one value to the next, at share `u` (0..1) of the time; see voice/envelope.ts. */
function bentWay(from: f64, to: f64, u: f64, k: f64): f64 {
  return k === 1 ? from + (to - from) * u : from + (to - from) * (u / (u + k * (1 - u)))
}

/** The value of an envelope `time` frames after the strike, with no regard to waiting. */
export function envelopeAt(envelope: i32, time: f64): f64 {
  const first = envelope + EnvelopeField.length
  const end = first + toPlace(get(envelope + EnvelopeField.count)) * PointField.length
  let to = first
  while (to < end && time >= get(to + PointField.frame)) to += PointField.length
  if (to === first || time <= get(first + PointField.frame)) return get(first + PointField.value)
  const from = to - PointField.length
  if (to === end) return get(from + PointField.value)
  const start = get(from + PointField.frame)
  const u = (time - start) * (1 / (get(to + PointField.frame) - start))
  return bentWay(get(from + PointField.value), get(to + PointField.value), u, get(to + PointField.k))
}

/**
 * The value of an envelope `time` frames after the strike. While its strike is held it waits at its waiting point, or goes
 * round between two points; let go at `letGo` (NEVER while it is held), it sets out from `leftAt`, the value it had then,
 * for what follows.
 */
export function envelopeValue(envelope: i32, time: f64, holds: i32, letGo: f64, leftAt: f64): f64 {
  const waiting = get(envelope + EnvelopeField.sustain)
  if (holds === 0 || !(waiting >= 0)) return envelopeAt(envelope, time)
  const point = envelope + EnvelopeField.length + toPlace(waiting) * PointField.length
  const held = get(point + PointField.frame)
  if (letGo === NEVER) return envelopeAt(envelope, time < held ? time : waitingTime(envelope, time, held))
  const after = time - letGo + held
  if (waiting >= get(envelope + EnvelopeField.count) - 1) return get(point + PointField.value)
  const next = get(point + PointField.length + PointField.frame)
  if (!(after < next)) return envelopeAt(envelope, after)
  const to = get(point + PointField.length + PointField.value)
  return bentWay(leftAt, to, (after - held) / (next - held), get(point + PointField.length + PointField.k))
}

/** Where an envelope stands whose strike is held, from its waiting point on. */
function waitingTime(envelope: i32, time: f64, held: f64): f64 {
  const from = get(envelope + EnvelopeField.loopFrom)
  if (!(from >= 0)) return held
  const start = get(envelope + EnvelopeField.length + toPlace(from) * PointField.length + PointField.frame)
  const length = held - start
  return length < 1 ? held : start + (time - start) - Math.floor((time - start) / length) * length
}

/** How an envelope goes over a stretch: straight or not at all, by a bend, or by a point where it turns. */
export const STRAIGHT = 0
export const BENT = 1
export const TURNING = 2

/** How it goes from one frame of its strike to another; where it waits to be let go it may turn at any. */
export function wayWithin(envelope: i32, from: f64, to: f64, holds: i32): i32 {
  if (holds !== 0 && get(envelope + EnvelopeField.sustain) >= 0) return TURNING
  const count = toPlace(get(envelope + EnvelopeField.count))
  for (let i = 0; i < count; i++) {
    const point = envelope + EnvelopeField.length + i * PointField.length
    const frame = get(point + PointField.frame)
    if (frame > from && frame < to) return TURNING
    if (frame >= to) return i === 0 || get(point + PointField.k) === 1 ? STRAIGHT : BENT
  }
  return STRAIGHT
}
