import {
  EnvelopeField_count, EnvelopeField_length, LONGEST_FRAMES, MOST_CENTS_OFF, MOST_FRAMES_OFF, MOST_PLACE, PLACES_PER_CENT, PointField_frame,
  PointField_k, PointField_length, PointField_value, RATE_PER_CENT, SetUp_arena, v_basePlace, v_baseRate, v_cellEnd, v_cellPlace,
  v_cellPlaceStep, v_otherScale, v_cellRate, v_cellRatio, v_cellStart, v_pitchEnv, v_pitchShare, v_startFrame,
} from './constants' // prettier-ignore
import { envelopeAt } from '../../voice/both/envelope-time'
import { nextPointAfter, place } from './envelope'
import { centsToRatio } from './math'

const POINT: usize = PointField_length << 3

/** Begins the cell of a voice at a frame; see voice/pitch-cells.ts. */
export function beginPitchCell(e: usize, voice: usize, frame: f64): void {
  const d = e + (voice << 3)
  const envelope = place(<usize>load<f64>(e, SetUp_arena), <f64>load<i32>(e + (voice << 2), v_pitchEnv))
  const base = load<f64>(d, v_basePlace)
  const baseRate = load<f64>(d, v_baseRate)
  const scale = load<f64>(d, v_otherScale)
  const time = (frame - load<f64>(d, v_startFrame)) * scale
  const share = load<f64>(d, v_pitchShare)
  const from = envelopeAt(<i32>(envelope >> 3), time) * share
  const first = held(base, from)
  const next = (nextPointAfter(envelope, time) - time) / scale
  let length: f64 = LONGEST_FRAMES
  if (next < length) length = max<f64>(1, floor<f64>(next))
  const way = wayAt(envelope, time)
  let k: f64 = 1
  let frames: f64 = 1
  let size: f64 = 0
  let here: f64 = 1
  if (way != 0 && load<f64>(way, PointField_k << 3) != 1) {
    k = load<f64>(way, PointField_k << 3)
    const begin = load<f64>(way - POINT, PointField_frame << 3)
    frames = (load<f64>(way, PointField_frame << 3) - begin) / scale
    const cents = abs<f64>((load<f64>(way, PointField_value << 3) - load<f64>(way - POINT, PointField_value << 3)) * share)
    size = (cents * 2 * k * abs<f64>(1 - k)) / (frames * frames)
    here = k + ((1 - k) * ((time - begin) / scale)) / frames
    const curving = size / (here * here * here)
    length = min<f64>(length, max<f64>(1, floor<f64>(sqrt<f64>(mostSquare(frames, first, baseRate) / curving))))
  }
  let to = envelopeAt(<i32>(envelope >> 3), time + length * scale) * share
  let last = held(base, to)
  while (length > 1) {
    let isTooLong = (from != first) != (to != last)
    if (!isTooLong && k != 1) {
      const there = here + ((1 - k) * length) / frames
      const d = here < there ? here : there
      isTooLong = (size / (d * d * d)) * length * length > mostSquare(frames, first > last ? first : last, baseRate)
    }
    if (!isTooLong) break
    length = ceil<f64>(length / 2)
    to = envelopeAt(<i32>(envelope >> 3), time + length * scale) * share
    last = held(base, to)
  }
  const step = length > 1 ? (last - first) / length : 0
  store<f64>(d, frame, v_cellStart)
  store<f64>(d, frame + length, v_cellEnd)
  store<f64>(d, base + first * PLACES_PER_CENT, v_cellPlace)
  store<f64>(d, step * PLACES_PER_CENT, v_cellPlaceStep)
  store<f64>(d, centsToRatio(first) * baseRate, v_cellRate)
  store<f64>(d, centsToRatio(step), v_cellRatio)
}

/** Cents within which the rate stays between its bounds, from where it is with none. */
function held(base: f64, cents: f64): f64 {
  const most = (MOST_PLACE - base) / PLACES_PER_CENT
  const least = (-MOST_PLACE - base) / PLACES_PER_CENT
  return cents < least ? least : cents > most ? most : cents
}

/** The point into which a way leads so many frames after the strike; 0 before the first and after the last. */
function wayAt(envelope: usize, time: f64): usize {
  const start = envelope + (EnvelopeField_length << 3)
  const end = start + <usize>load<f64>(envelope, EnvelopeField_count << 3) * POINT
  let to = start
  while (to < end && load<f64>(to, PointField_frame << 3) <= time) to += POINT
  return to == start || to == end ? 0 : to
}

function mostSquare(frames: f64, cents: f64, baseRate: f64): f64 {
  return min<f64>(8 * MOST_CENTS_OFF, (12 * MOST_FRAMES_OFF) / (frames * centsToRatio(cents) * baseRate * RATE_PER_CENT))
}
