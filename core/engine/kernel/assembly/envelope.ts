import {
  EnvelopeField_count,
  EnvelopeField_length,
  NEVER,
  PointField_frame,
  PointField_k,
  PointField_length,
  PointField_value,
} from './constants'

/** Byte of a double `at` places into the arena. */
export function place(arena: usize, at: f64): usize {
  return arena + ((<usize>at) << 3)
}

/** The bent way from one value to the next, at share `u` (0..1) of the time. */
export function bent(from: f64, to: f64, u: f64, k: f64): f64 {
  return k == 1 ? from + (to - from) * u : from + (to - from) * (u / (u + k * (1 - u)))
}

const POINT: usize = PointField_length << 3

/** The value of an envelope `time` frames after the strike, with no regard to sustain. */
export function envelopeAt(envelope: usize, time: f64): f64 {
  const count = <i32>load<f64>(envelope, EnvelopeField_count << 3)
  const first = envelope + (EnvelopeField_length << 3)
  let to = first
  for (let index = 0; index < count && time >= load<f64>(to, PointField_frame << 3); index++) to += POINT
  if (to == first || time <= load<f64>(first, PointField_frame << 3)) return load<f64>(first, PointField_value << 3)
  const from = to - POINT
  if (to == first + <usize>count * POINT) return load<f64>(from, PointField_value << 3)
  const start = load<f64>(from, PointField_frame << 3)
  const u = (time - start) * (1 / (load<f64>(to, PointField_frame << 3) - start))
  return bent(load<f64>(from, PointField_value << 3), load<f64>(to, PointField_value << 3), u, load<f64>(to, PointField_k << 3))
}

/** The first envelope point later than `time`, in frames after the strike; NEVER where there is none. */
export function nextPointAfter(envelope: usize, time: f64): f64 {
  const count = <i32>load<f64>(envelope, EnvelopeField_count << 3)
  let point = envelope + (EnvelopeField_length << 3)
  for (let index = 0; index < count; index++) {
    const frame = load<f64>(point, PointField_frame << 3)
    if (frame > time) return frame
    point += POINT
  }
  return NEVER
}
