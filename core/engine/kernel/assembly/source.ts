import {
  GRID_FRAMES, scratchLeft, scratchRight, SetUp_arena, SetUp_chunkAt, SourceKind_plain, SourceKind_resampled, v_baseRate,
  v_cellEnd, v_cellRate, v_cellRateEnd, v_cellRateSlope, v_cellStart, v_chunk, v_frames, v_isLive, v_left, v_loops, v_pitchEnv,
  v_position, v_right, v_runRate, v_runRateRatio, v_source, v_startFrame,
} from './constants' // prettier-ignore
import { envelopeAt, nextPointAfter, place } from './envelope'
import { centsToRatio } from './math'

/** Reads so many frames of a voice's clip into the scratch blocks, silence after its end; returns how many lie before that end. */
export function readSource(e: usize, voice: usize, start: f64, count: i32, stereo: bool): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  if (load<i32>(w, v_isLive) != 0) return readRun(e, voice, 0, count, stereo, load<f64>(d, v_runRate), 0, 0, load<f64>(d, v_runRateRatio))
  const kind = load<i32>(w, v_source)
  if (kind == SourceKind_plain) return copyRun(e, voice, count, stereo)
  if (kind == SourceKind_resampled) return readRun(e, voice, 0, count, stereo, load<f64>(d, v_baseRate), 0, 0, 1)
  return readGliding(e, voice, start, count, stereo)
}

function readGliding(e: usize, voice: usize, start: f64, count: i32, stereo: bool): i32 {
  const d = e + (voice << 3)
  let produced = 0
  for (let done = 0; done < count;) {
    if (start + <f64>done >= load<f64>(d, v_cellEnd)) beginCell(e, voice, start + <f64>done)
    const run = <i32>min<f64>(<f64>(count - done), load<f64>(d, v_cellEnd) - start - <f64>done)
    const passed = start + <f64>done - load<f64>(d, v_cellStart)
    produced += readRun(e, voice, done, run, stereo, load<f64>(d, v_cellRate), load<f64>(d, v_cellRateSlope), passed, 1)
    done += run
  }
  return produced
}

/** A pitch cell runs to the next control frame or the next envelope point, whichever comes first. */
function beginCell(e: usize, voice: usize, frame: f64): void {
  const d = e + (voice << 3)
  const envelope = place(<usize>load<f64>(e, SetUp_arena), <f64>load<i32>(e + (voice << 2), v_pitchEnv))
  const time = frame - load<f64>(d, v_startFrame)
  const grid = (floor<f64>(frame / GRID_FRAMES) + 1) * GRID_FRAMES
  const point = floor<f64>(nextPointAfter(envelope, time)) + load<f64>(d, v_startFrame)
  const end = point > frame && point < grid ? point : grid
  const base = load<f64>(d, v_baseRate)
  const first = load<f64>(d, v_cellEnd) == frame ? load<f64>(d, v_cellRateEnd) : centsToRatio(envelopeAt(envelope, time)) * base
  const last = centsToRatio(envelopeAt(envelope, end - load<f64>(d, v_startFrame))) * base
  store<f64>(d, first, v_cellRate)
  store<f64>(d, last, v_cellRateEnd)
  store<f64>(d, frame, v_cellStart)
  store<f64>(d, end, v_cellEnd)
  store<f64>(d, (last - first) / (end - frame), v_cellRateSlope)
}

/** Rate 1 from a whole frame: the samples themselves. */
function copyRun(e: usize, voice: usize, count: i32, stereo: bool): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const position = load<f64>(d, v_position)
  const available = <i32>min<f64>(<f64>count, max<f64>(0, load<f64>(d, v_frames) - position))
  store<f64>(d, position + <f64>count, v_position)
  if (available < count) silence(e, available, count)
  const chunk = chunkOf(e, w)
  copy(e + scratchLeft, chunk + ((<usize>(<f64>load<i32>(w, v_left) + position)) << 2), available)
  if (stereo) copy(e + scratchRight, chunk + ((<usize>(<f64>load<i32>(w, v_right) + position)) << 2), available)
  return available
}

function copy(to: usize, from: usize, count: i32): void {
  const pairs = count & ~1
  for (let i = 0; i < pairs; i += 2) v128.store(to + ((<usize>i) << 3), f64x2.promote_low_f32x4(v128.load64_zero(from + ((<usize>i) << 2))))
  if (pairs < count) store<f64>(to + ((<usize>pairs) << 3), <f64>load<f32>(from + ((<usize>pairs) << 2)))
}

/** Where the samples of a voice's chunk begin. */
function chunkOf(e: usize, w: usize): usize {
  return <usize>load<f64>(<usize>load<f64>(e, SetUp_chunkAt) + ((<usize>load<i32>(w, v_chunk)) << 3))
}

function silence(e: usize, from: i32, to: i32): void {
  const bytes = (<usize>(to - from)) << 3
  memory.fill(e + scratchLeft + ((<usize>from) << 3), 0, bytes)
  memory.fill(e + scratchRight + ((<usize>from) << 3), 0, bytes)
}

/**
 * Four-point cubic interpolation at a rate that goes straight from `first` by `slope` a frame, `passed` frames in; or that
 * is multiplied by `ratio` from frame to frame, where the voice is moved, and kept for its next run.
 */
function readRun(e: usize, voice: usize, at: i32, count: i32, stereo: bool, first: f64, slope: f64, passed: f64, ratio: f64): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const chunk = chunkOf(e, w)
  const frames = load<f64>(d, v_frames)
  const glides = load<i32>(w, v_isLive) != 0
  const loops = load<i32>(w, v_loops) != 0
  const left = chunk + ((<usize>load<i32>(w, v_left)) << 2)
  const right = chunk + ((<usize>load<i32>(w, v_right)) << 2)
  const toLeft = e + scratchLeft + ((<usize>at) << 3)
  const toRight = e + scratchRight + ((<usize>at) << 3)
  let position = load<f64>(d, v_position)
  let rate = first + passed * slope
  let i = 0
  for (; i < count; i++) {
    if (position >= frames) {
      if (!loops) break
      position %= frames
    }
    const whole = <i32>position
    const t = position - <f64>whole
    const seam = loops && t > 0 && (whole < 1 || <f64>whole > frames - 3)
    store<f64>(toLeft + ((<usize>i) << 3), seam ? overSeam(left, whole, t, <i32>frames) : between(left + ((<usize>whole) << 2), t))
    if (stereo)
      store<f64>(toRight + ((<usize>i) << 3), seam ? overSeam(right, whole, t, <i32>frames) : between(right + ((<usize>whole) << 2), t))
    position += rate
    rate = glides ? rate * ratio : first + (passed + <f64>i + 1) * slope
  }
  store<f64>(d, position, v_position)
  if (glides) store<f64>(d, rate, v_runRate)
  if (i < count) silence(e, at + i, at + count)
  return i
}

/** As `between`, where a loop goes on from its end to its start. */
function overSeam(first: usize, whole: i32, t: f64, frames: i32): f64 {
  const a = <f64>load<f32>(first + ((<usize>((whole + frames - 1) % frames)) << 2))
  const b = <f64>load<f32>(first + ((<usize>whole) << 2))
  const c = <f64>load<f32>(first + ((<usize>((whole + 1) % frames)) << 2))
  const f = <f64>load<f32>(first + ((<usize>((whole + 2) % frames)) << 2))
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - f + t * (3 * (b - c) + f - a)))
}

/** The value a share `t` (0..1) of the way from the sample at `p` to the next. */
function between(p: usize, t: f64): f64 {
  const a = <f64>load<f32>(p - 4)
  const b = <f64>load<f32>(p)
  const c = <f64>load<f32>(p, 4)
  const f = <f64>load<f32>(p, 8)
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - f + t * (3 * (b - c) + f - a)))
}
