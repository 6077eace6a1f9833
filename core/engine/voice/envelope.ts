import { CurveField, CurvePointField, EnvelopeField, PointField } from '../program/layout'
import { NEVER } from '../state'

/**
 * Value of a compiled envelope `time` frames after the strike, with no regard to sustain.
 *
 * The way into a point bends by u / (u + k (1 - u)), u the share of the segment passed and k = 64^bend:
 *
 *   1 |   k<1 ___---        an ordinary division instead of a power, so that it can be computed
 *     |   _--  _-           for every frame and is the same number in every host
 *   0 |__-___-  k>1
 */
export function envelopeAt(arena: Float64Array, envelope: number, time: number): number {
  const count = arena[envelope + EnvelopeField.count]
  const first = envelope + EnvelopeField.length
  if (time <= arena[first + PointField.frame]) return arena[first + PointField.value]
  for (let index = 1; index < count; index++) {
    const to = first + index * PointField.length
    if (time < arena[to + PointField.frame]) return segmentAt(arena, to - PointField.length, to, time)
  }
  return arena[first + (count - 1) * PointField.length + PointField.value]
}

function segmentAt(arena: Float64Array, from: number, to: number, time: number): number {
  const start = arena[from + PointField.frame]
  return bent(
    arena[from + PointField.value],
    arena[to + PointField.value],
    (time - start) * (1 / (arena[to + PointField.frame] - start)),
    arena[to + PointField.k],
  )
}

/** The bent way from one value to the next, at share `u` (0..1) of the time. */
export function bent(from: number, to: number, u: number, k: number): number {
  return k === 1 ? from + (to - from) * u : from + (to - from) * (u / (u + k * (1 - u)))
}

/** The first envelope point later than `time`, in frames after the strike; NEVER when there is none. */
export function nextPointAfter(arena: Float64Array, envelope: number, time: number): number {
  const count = arena[envelope + EnvelopeField.count]
  for (let index = 0; index < count; index++) {
    const frame = arena[envelope + EnvelopeField.length + index * PointField.length + PointField.frame]
    if (frame > time) return frame
  }
  return NEVER
}

/** Height of a drawn curve at `x` (0..1): bent from point to point, level before the first and after the last. */
export function curveAt(arena: Float64Array, curve: number, x: number): number {
  const count = arena[curve + CurveField.count]
  const first = curve + CurveField.length
  if (x <= arena[first + CurvePointField.x]) return arena[first + CurvePointField.y]
  for (let index = 1; index < count; index++) {
    const to = first + index * CurvePointField.length
    if (x >= arena[to + CurvePointField.x]) continue
    const from = to - CurvePointField.length
    const share = (x - arena[from + CurvePointField.x]) / (arena[to + CurvePointField.x] - arena[from + CurvePointField.x])
    return bent(arena[from + CurvePointField.y], arena[to + CurvePointField.y], share, arena[to + CurvePointField.k])
  }
  return arena[first + (count - 1) * CurvePointField.length + CurvePointField.y]
}
