import {
  CHUNK_FRAMES, m_fed, m_left, m_right, NEVER, SourceKind_plain, stageCodes_level, v_ahead, v_ampEnv, v_bus, v_fadeStart, v_frames, v_gainLeft,
  v_gainRight, v_isLive, v_left, v_position, v_right, v_rings, v_source, v_startFrame,
} from './constants' // prettier-ignore
import { noteForMeter, sendsOf } from './gains'
import { alongFull, alongSegment, bend, levelsAt, low, perFrame, rise, segmentFrom, segmentOver, timeScale } from './level'
import { chunkOf } from './source'
import { stageAt, stageCount } from './stages'

/**
 * A piece of a hit as it was recorded: at its own rate from a whole frame, through nothing but its level, to one bus. Done in one
 * go, with the samples that reading, level and gains would make one after another. False, and nothing done, where more is asked.
 */
export function playStraight(e: usize, voice: usize, at: i32, start: f64, length: i32): bool {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  if (!isStraight(e, voice)) return false
  const position = load<f64>(d, v_position)
  const count = <i32>min<f64>(<f64>length, max<f64>(0, load<f64>(d, v_frames) - position))
  const segment = count > 0 && load<i32>(w, v_ampEnv) != 0 ? segmentOver(e, voice, start, count) : 0
  if (count > 0) {
    if (segment != 0) alongSegment(d, segment)
    else if (load<i32>(w, v_ampEnv) == 0) alongFull()
    else return false
    const bus = <usize>load<i32>(w, v_bus)
    store<i32>(e + (bus << 2), 1, m_fed)
    const block = e + ((bus * CHUNK_FRAMES + at) << 3)
    const chunk = chunkOf(e, w)
    const left = chunk + ((<usize>(<f64>load<i32>(w, v_left) + position)) << 2)
    const right = chunk + ((<usize>(<f64>load<i32>(w, v_right) + position)) << 2)
    const passed = start - load<f64>(d, v_startFrame)
    noteForMeter(e, w, load<i32>(w, v_right) < 0 ? addMono(d, left, block, passed, count) : addStereo(d, left, right, block, passed, count))
  }
  store<f64>(d, position + <f64>length, v_position)
  return true
}

function isStraight(e: usize, voice: usize): bool {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  if (load<i32>(w, v_source) != SourceKind_plain || load<i32>(w, v_isLive) != 0) return false
  if (load<f64>(d, v_fadeStart) != NEVER || load<f64>(d, v_ahead) > 0 || load<i32>(w, v_rings) != 0) return false
  const stages = stageCount(e, voice)
  if (stages > 1 || (stages == 1 && stageAt(e, voice, 0) != stageCodes_level)) return false
  return sendsOf(e, voice) <= 0
}

/** Two frames of a channel from `from` on. */
function samplesAt(from: usize): v128 {
  return f64x2.promote_low_f32x4(v128.load64_zero(from))
}

function sampleAt(from: usize): v128 {
  return f64x2.splat(<f64>load<f32>(from))
}

/** One channel to both sides of a bus, whose block is at `block`; returns the highest sample of the louder side. */
function addMono(d: usize, from: usize, block: usize, passed: f64, count: i32): f64 {
  const gainLeft = load<f64>(d, v_gainLeft)
  const gainRight = load<f64>(d, v_gainRight)
  const times = timeScale
  const begin = segmentFrom
  const share = perFrame
  const base = low
  const height = rise
  const k = bend
  const pairs = count & ~1
  let since = f64x2(passed, passed + 1)
  let peaks = f64x2.splat(0)
  let to = block
  for (let i = 0; i < pairs; i += 2) {
    const value = f64x2.mul(samplesAt(from + ((<usize>i) << 2)), levelsAt(since, times, begin, share, base, height, k))
    const one = f64x2.add(v128.load(to, m_left), f64x2.mul(value, f64x2.splat(gainLeft)))
    const other = f64x2.add(v128.load(to, m_right), f64x2.mul(value, f64x2.splat(gainRight)))
    v128.store(to, one, m_left) // both were read before: see gains.ts
    v128.store(to, other, m_right)
    peaks = f64x2.max(peaks, f64x2.abs(value))
    since = f64x2.add(since, f64x2.splat(2))
    to += 16
  }
  if (pairs != count) {
    const value = f64x2.mul(
      sampleAt(from + ((<usize>pairs) << 2)),
      levelsAt(f64x2.splat(passed + <f64>pairs), times, begin, share, base, height, k),
    )
    const one = f64x2.extract_lane(value, 0)
    store<f64>(to, load<f64>(to, m_left) + one * gainLeft, m_left)
    store<f64>(to, load<f64>(to, m_right) + one * gainRight, m_right)
    peaks = f64x2.max(peaks, f64x2.abs(value))
  }
  const peak = max<f64>(f64x2.extract_lane(peaks, 0), f64x2.extract_lane(peaks, 1))
  return peak * max<f64>(abs<f64>(gainLeft), abs<f64>(gainRight))
}

/** Each channel to its side of a bus; returns the highest sample of both. */
function addStereo(d: usize, left: usize, right: usize, block: usize, passed: f64, count: i32): f64 {
  const gainLeft = load<f64>(d, v_gainLeft)
  const gainRight = load<f64>(d, v_gainRight)
  const times = timeScale
  const begin = segmentFrom
  const share = perFrame
  const base = low
  const height = rise
  const k = bend
  const pairs = count & ~1
  let since = f64x2(passed, passed + 1)
  let peaks = f64x2.splat(0)
  let to = block
  for (let i = 0; i < pairs; i += 2) {
    const level = levelsAt(since, times, begin, share, base, height, k)
    const one = f64x2.mul(f64x2.mul(samplesAt(left + ((<usize>i) << 2)), level), f64x2.splat(gainLeft))
    const other = f64x2.mul(f64x2.mul(samplesAt(right + ((<usize>i) << 2)), level), f64x2.splat(gainRight))
    const sumLeft = f64x2.add(v128.load(to, m_left), one)
    const sumRight = f64x2.add(v128.load(to, m_right), other)
    v128.store(to, sumLeft, m_left)
    v128.store(to, sumRight, m_right)
    peaks = f64x2.max(peaks, f64x2.max(f64x2.abs(one), f64x2.abs(other)))
    since = f64x2.add(since, f64x2.splat(2))
    to += 16
  }
  if (pairs != count) {
    const level = levelsAt(f64x2.splat(passed + <f64>pairs), times, begin, share, base, height, k)
    const one = f64x2.mul(f64x2.mul(sampleAt(left + ((<usize>pairs) << 2)), level), f64x2.splat(gainLeft))
    const other = f64x2.mul(f64x2.mul(sampleAt(right + ((<usize>pairs) << 2)), level), f64x2.splat(gainRight))
    store<f64>(to, load<f64>(to, m_left) + f64x2.extract_lane(one, 0), m_left)
    store<f64>(to, load<f64>(to, m_right) + f64x2.extract_lane(other, 0), m_right)
    peaks = f64x2.max(peaks, f64x2.max(f64x2.abs(one), f64x2.abs(other)))
  }
  return max<f64>(f64x2.extract_lane(peaks, 0), f64x2.extract_lane(peaks, 1))
}
