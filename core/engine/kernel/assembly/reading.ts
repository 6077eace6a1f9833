import {
  GUARD_FRAMES, positions, READING_PLACES, READING_TABLES, SetUp_readingAt, SetUp_readingTaps, v_frames, v_left, v_levels, v_right,
} from './constants' // prettier-ignore

/**
 * Reads frames `from` to `to` of a run at its positions through one table into the blocks at `left` and, unless it is 0,
 * `right`; see voice/reading.ts. `chunk` is where the samples of the voice's chunk begin.
 */
export function readThrough(e: usize, voice: usize, chunk: usize, table: i32, from: i32, to: i32, left: usize, right: usize): void {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const level = min<i32>(table / READING_TABLES, load<i32>(w, v_levels))
  const allTaps = <usize>load<f64>(e, SetUp_readingTaps)
  let within = min<i32>(table - level * READING_TABLES, READING_TABLES - 1)
  while (within > 0 && load<i32>(allTaps + ((<usize>within) << 2)) == 0) within-- // a table that nobody foresaw
  const taps = load<i32>(allTaps + ((<usize>within) << 2))
  const numbers = <usize>load<f64>(<usize>load<f64>(e, SetUp_readingAt) + ((<usize>within) << 3))
  const scale = 1 / <f64>(1 << level)
  const before = chunk + ((<usize>(levelStart(<i32>load<f64>(d, v_frames), level) - taps / 2 + 1)) << 2)
  const fromLeft = before + ((<usize>load<i32>(w, v_left)) << 2)
  const fromRight = before + ((<usize>load<i32>(w, v_right)) << 2)
  const rowBytes = (<usize>taps) << 2
  if (right == 0) readOne(e + positions, from, to, scale, numbers, rowBytes, fromLeft, left)
  else readBoth(e + positions, from, to, scale, numbers, rowBytes, fromLeft, fromRight, left, right)
}

/** How far behind the first sample of a channel that of a level lies. */
function levelStart(frames: i32, level: i32): i32 {
  let start = 0
  for (let i = 0; i < level; i++) start += ((frames + (1 << i) - 1) >> i) + 2 * GUARD_FRAMES
  return start
}

/** Eight sums of a row and of the next one go on side by side, so that none waits for the one before. */
function readOne(at: usize, from: i32, to: i32, scale: f64, numbers: usize, rowBytes: usize, samples: usize, out: usize): void {
  const isOdd = (rowBytes & 16) != 0
  for (let i = from; i < to; i++) {
    const position = load<f64>(at + ((<usize>i) << 3)) * scale
    const whole = <i32>position
    const place = (position - <f64>whole) * READING_PLACES
    const row = <i32>place
    let c = numbers + <usize>row * rowBytes
    let n = c + rowBytes
    const end = c + (rowBytes & ~63)
    let s = samples + ((<usize>whole) << 2)
    let here = f32x4.splat(0)
    let next = f32x4.splat(0)
    let hereToo = f32x4.splat(0)
    let nextToo = f32x4.splat(0)
    while (c < end) {
      let four = v128.load(s)
      let fourToo = v128.load(s, 16)
      here = f32x4.add(here, f32x4.mul(v128.load(c), four))
      next = f32x4.add(next, f32x4.mul(v128.load(n), four))
      hereToo = f32x4.add(hereToo, f32x4.mul(v128.load(c, 16), fourToo))
      nextToo = f32x4.add(nextToo, f32x4.mul(v128.load(n, 16), fourToo))
      four = v128.load(s, 32)
      fourToo = v128.load(s, 48)
      here = f32x4.add(here, f32x4.mul(v128.load(c, 32), four))
      next = f32x4.add(next, f32x4.mul(v128.load(n, 32), four))
      hereToo = f32x4.add(hereToo, f32x4.mul(v128.load(c, 48), fourToo))
      nextToo = f32x4.add(nextToo, f32x4.mul(v128.load(n, 48), fourToo))
      s += 64
      c += 64
      n += 64
    }
    if ((rowBytes & 32) != 0) {
      const four = v128.load(s)
      const fourToo = v128.load(s, 16)
      here = f32x4.add(here, f32x4.mul(v128.load(c), four))
      next = f32x4.add(next, f32x4.mul(v128.load(n), four))
      hereToo = f32x4.add(hereToo, f32x4.mul(v128.load(c, 16), fourToo))
      nextToo = f32x4.add(nextToo, f32x4.mul(v128.load(n, 16), fourToo))
      s += 32
      c += 32
      n += 32
    }
    if (isOdd) {
      const four = v128.load(s)
      here = f32x4.add(here, f32x4.mul(v128.load(c), four))
      next = f32x4.add(next, f32x4.mul(v128.load(n), four))
    }
    const value = between(f32x4.add(here, hereToo), f32x4.add(next, nextToo), <f32>(place - <f64>row))
    store<f64>(out + ((<usize>i) << 3), <f64>value)
  }
}

/** Both channels by the same numbers. */
function readBoth(
  at: usize,
  from: i32,
  to: i32,
  scale: f64,
  numbers: usize,
  rowBytes: usize,
  fromLeft: usize,
  fromRight: usize,
  left: usize,
  right: usize,
): void {
  const isOdd = (rowBytes & 16) != 0
  for (let i = from; i < to; i++) {
    const position = load<f64>(at + ((<usize>i) << 3)) * scale
    const whole = <i32>position
    const place = (position - <f64>whole) * READING_PLACES
    const row = <i32>place
    let c = numbers + <usize>row * rowBytes
    let n = c + rowBytes
    const end = n - 16
    let s = fromLeft + ((<usize>whole) << 2)
    let r = fromRight + ((<usize>whole) << 2)
    let here = f32x4.splat(0)
    let next = f32x4.splat(0)
    let hereRight = f32x4.splat(0)
    let nextRight = f32x4.splat(0)
    let hereToo = f32x4.splat(0)
    let nextToo = f32x4.splat(0)
    let hereRightToo = f32x4.splat(0)
    let nextRightToo = f32x4.splat(0)
    while (c < end) {
      let a = v128.load(c)
      let b = v128.load(n)
      let four = v128.load(s)
      let fourRight = v128.load(r)
      here = f32x4.add(here, f32x4.mul(a, four))
      next = f32x4.add(next, f32x4.mul(b, four))
      hereRight = f32x4.add(hereRight, f32x4.mul(a, fourRight))
      nextRight = f32x4.add(nextRight, f32x4.mul(b, fourRight))
      a = v128.load(c, 16)
      b = v128.load(n, 16)
      four = v128.load(s, 16)
      fourRight = v128.load(r, 16)
      hereToo = f32x4.add(hereToo, f32x4.mul(a, four))
      nextToo = f32x4.add(nextToo, f32x4.mul(b, four))
      hereRightToo = f32x4.add(hereRightToo, f32x4.mul(a, fourRight))
      nextRightToo = f32x4.add(nextRightToo, f32x4.mul(b, fourRight))
      s += 32
      r += 32
      c += 32
      n += 32
    }
    if (isOdd) {
      const a = v128.load(c)
      const b = v128.load(n)
      const four = v128.load(s)
      const fourRight = v128.load(r)
      here = f32x4.add(here, f32x4.mul(a, four))
      next = f32x4.add(next, f32x4.mul(b, four))
      hereRight = f32x4.add(hereRight, f32x4.mul(a, fourRight))
      nextRight = f32x4.add(nextRight, f32x4.mul(b, fourRight))
    }
    const share = <f32>(place - <f64>row)
    store<f64>(left + ((<usize>i) << 3), <f64>between(f32x4.add(here, hereToo), f32x4.add(next, nextToo), share))
    store<f64>(right + ((<usize>i) << 3), <f64>between(f32x4.add(hereRight, hereRightToo), f32x4.add(nextRight, nextRightToo), share))
  }
}

/** The sums of two rows, each (0 + 2) + (1 + 3), and a share of the way between them. */
function between(here: v128, next: v128, share: f32): f32 {
  const first = summed(here)
  return first + share * (summed(next) - first)
}

function summed(four: v128): f32 {
  const pairs = f32x4.add(four, v128.shuffle<f32>(four, four, 2, 3, 0, 1))
  return f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1)
}
