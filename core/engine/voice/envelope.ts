import { CurveField, CurvePointField, EnvelopeField, PointField } from '../program/layout'
import { NEVER } from '../time'

/** Results go through a cell, so that they cost no memory (see math.ts). */
const cell = new Float64Array(1)

/**
 * The value of a compiled envelope `at[i]` frames after the strike, left there, with no regard to sustain.
 *
 * The way into a point bends by u / (u + k (1 - u)), u the share of the segment passed and k = 64^bend:
 *
 *   1 |   k<1 ___---        an ordinary division instead of a power, so that it can be computed
 *     |   _--  _-           for every frame and is the same number in every host
 *   0 |__-___-  k>1
 */
export function envelopeIn(at: Float64Array, i: number, arena: Float64Array, envelope: number): void {
  const time = at[i]
  const count = arena[envelope + EnvelopeField.count]
  const first = envelope + EnvelopeField.length
  let to = first
  for (let index = 0; index < count && time >= arena[to + PointField.frame]; index++) to += PointField.length
  if (to === first || time <= arena[first + PointField.frame]) at[i] = arena[first + PointField.value]
  else if (to === first + count * PointField.length) at[i] = arena[to - PointField.length + PointField.value]
  else {
    const from = to - PointField.length
    const start = arena[from + PointField.frame]
    const u = (time - start) * (1 / (arena[to + PointField.frame] - start))
    at[i] = bent(arena[from + PointField.value], arena[to + PointField.value], u, arena[to + PointField.k])
  }
}

/** The bent way from one value to the next, at share `u` (0..1) of the time. */
export function bent(from: number, to: number, u: number, k: number): number {
  return k === 1 ? from + (to - from) * u : from + (to - from) * (u / (u + k * (1 - u)))
}

/** The first envelope point later than `time`, in frames after the strike; NEVER when there is none. */
export function nextPointAfter(arena: Float64Array, envelope: number, time: number): number {
  cell[0] = time
  nextPointIn(cell, arena, envelope)
  return cell[0]
}

function nextPointIn(at: Float64Array, arena: Float64Array, envelope: number): void {
  const time = at[0]
  at[0] = NEVER
  const count = arena[envelope + EnvelopeField.count]
  for (let index = 0; index < count; index++) {
    const frame = arena[envelope + EnvelopeField.length + index * PointField.length + PointField.frame]
    if (frame > time) {
      at[0] = frame
      return
    }
  }
}

/** Height of a drawn curve at `x` (0..1): bent from point to point, level before the first and after the last. */
export function curveAt(arena: Float64Array, curve: number, x: number): number {
  cell[0] = x
  curveIn(cell, arena, curve)
  return cell[0]
}

function curveIn(at: Float64Array, arena: Float64Array, curve: number): void {
  const x = at[0]
  const count = arena[curve + CurveField.count]
  const first = curve + CurveField.length
  let to = first
  for (let index = 0; index < count && x >= arena[to + CurvePointField.x]; index++) to += CurvePointField.length
  const from = to - CurvePointField.length
  if (to === first) at[0] = arena[first + CurvePointField.y]
  else if (to === first + count * CurvePointField.length) at[0] = arena[from + CurvePointField.y]
  else {
    const share = (x - arena[from + CurvePointField.x]) / (arena[to + CurvePointField.x] - arena[from + CurvePointField.x])
    at[0] = bent(arena[from + CurvePointField.y], arena[to + CurvePointField.y], share, arena[to + CurvePointField.k])
  }
}
