import { EnvelopeField_count, EnvelopeField_length, NEVER, PointField_frame, PointField_length } from './constants'

/** Byte of a double `at` places into the arena. */
export function place(arena: usize, at: f64): usize {
  return arena + ((<usize>at) << 3)
}

const POINT: usize = PointField_length << 3

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
