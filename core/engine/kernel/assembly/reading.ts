import {
  GUARD_FRAMES, positions, READING_PLACES, READING_TABLES, SetUp_readingAt, SetUp_readingTaps, v_laidFrames, v_left, v_levels, v_right,
} from './constants' // prettier-ignore

/** What frames are read by, settled anew for each run of them: numbers of a table, and where the clip's samples begin for it. */
let numbers: usize = 0
let rowBytes: usize = 0
let scale: f64 = 1
let fromLeft: usize = 0
let fromRight: usize = 0

/**
 * Reads frames `from` to `to` of the scratch blocks at their positions through one table into the blocks at `left` and,
 * unless it is 0, `right`; see voice/reading.ts. `chunk` is where the samples of the voice's chunk begin.
 */
export function readThrough(e: usize, voice: usize, chunk: usize, table: i32, from: i32, to: i32, left: usize, right: usize): void {
  settleReading(e, voice, chunk, table)
  const block = (<usize>from) << 3
  const places = e + positions + block
  if (right == 0) readOne(places, to - from, left + block)
  else readBoth(places, to - from, left + block, right + block)
}

function settleReading(e: usize, voice: usize, chunk: usize, table: i32): void {
  const w = e + (voice << 2)
  const level = min<i32>(table / READING_TABLES, load<i32>(w, v_levels))
  const allTaps = <usize>load<f64>(e, SetUp_readingTaps)
  let within = min<i32>(table - level * READING_TABLES, READING_TABLES - 1)
  while (within > 0 && load<i32>(allTaps + ((<usize>within) << 2)) == 0) within-- // a table that nobody foresaw
  const taps = load<i32>(allTaps + ((<usize>within) << 2))
  const before = chunk + ((<usize>(levelStart(<i32>load<f64>(e + (voice << 3), v_laidFrames), level) - taps / 2 + 1)) << 2)
  numbers = <usize>load<f64>(<usize>load<f64>(e, SetUp_readingAt) + ((<usize>within) << 3))
  rowBytes = (<usize>taps) << 2
  scale = 1 / <f64>(1 << level)
  fromLeft = before + ((<usize>load<i32>(w, v_left)) << 2)
  fromRight = before + ((<usize>load<i32>(w, v_right)) << 2)
}

/** How far behind the first sample of a channel that of a level lies. */
function levelStart(frames: i32, level: i32): i32 {
  let start = 0
  for (let i = 0; i < level; i++) start += ((frames + (1 << i) - 1) >> i) + 2 * GUARD_FRAMES
  return start
}

/** The lowest bits of each half are its whole number, which is below 2^32. */
function wholeBits(place: v128): v128 {
  return f64x2.add(place, f64x2.splat(4503599627370496)) // 2^52: what is whole stands in the lowest bits
}

/**
 * Four frames at once, each by its row and by the next one: eight sums of four lanes, none of which waits for another. Each
 * lane goes its share of the way from one row's sum to the next one's; the lanes are summed as (0 + 2) + (1 + 3).
 */
function readOne(places: usize, count: i32, out: usize): void {
  const table = numbers
  const bytes = rowBytes
  const times = scale
  const samples = fromLeft
  const fours = count & ~3
  let p = places
  let o = out
  for (let i = 0; i < fours; i += 4) {
    const ab = f64x2.mul(v128.load(p), f64x2.splat(times))
    const cd = f64x2.mul(v128.load(p, 16), f64x2.splat(times))
    const wholeAb = f64x2.floor(ab)
    const wholeCd = f64x2.floor(cd)
    const placeAb = f64x2.mul(f64x2.sub(ab, wholeAb), f64x2.splat(READING_PLACES))
    const placeCd = f64x2.mul(f64x2.sub(cd, wholeCd), f64x2.splat(READING_PLACES))
    const rowAb = f64x2.floor(placeAb)
    const rowCd = f64x2.floor(placeCd)
    const shareAb = f32x4.demote_f64x2_zero(f64x2.sub(placeAb, rowAb))
    const shareCd = f32x4.demote_f64x2_zero(f64x2.sub(placeCd, rowCd))
    const ofAb = wholeBits(wholeAb)
    const ofCd = wholeBits(wholeCd)
    const inAb = wholeBits(rowAb)
    const inCd = wholeBits(rowCd)
    let sa = samples + ((<usize>i32x4.extract_lane(ofAb, 0)) << 2)
    let sb = samples + ((<usize>i32x4.extract_lane(ofAb, 2)) << 2)
    let sc = samples + ((<usize>i32x4.extract_lane(ofCd, 0)) << 2)
    let sd = samples + ((<usize>i32x4.extract_lane(ofCd, 2)) << 2)
    let a = table + <usize>i32x4.extract_lane(inAb, 0) * bytes
    let b = table + <usize>i32x4.extract_lane(inAb, 2) * bytes
    let c = table + <usize>i32x4.extract_lane(inCd, 0) * bytes
    let d = table + <usize>i32x4.extract_lane(inCd, 2) * bytes
    const end = a + bytes
    let hereA = f32x4.splat(0)
    let hereB = f32x4.splat(0)
    let hereC = f32x4.splat(0)
    let hereD = f32x4.splat(0)
    let nextA = f32x4.splat(0)
    let nextB = f32x4.splat(0)
    let nextC = f32x4.splat(0)
    let nextD = f32x4.splat(0)
    while (a < end) {
      let four = v128.load(sa)
      hereA = f32x4.add(hereA, f32x4.mul(v128.load(a), four))
      nextA = f32x4.add(nextA, f32x4.mul(v128.load(a + bytes), four))
      four = v128.load(sb)
      hereB = f32x4.add(hereB, f32x4.mul(v128.load(b), four))
      nextB = f32x4.add(nextB, f32x4.mul(v128.load(b + bytes), four))
      four = v128.load(sc)
      hereC = f32x4.add(hereC, f32x4.mul(v128.load(c), four))
      nextC = f32x4.add(nextC, f32x4.mul(v128.load(c + bytes), four))
      four = v128.load(sd)
      hereD = f32x4.add(hereD, f32x4.mul(v128.load(d), four))
      nextD = f32x4.add(nextD, f32x4.mul(v128.load(d + bytes), four))
      a += 16
      b += 16
      c += 16
      d += 16
      sa += 16
      sb += 16
      sc += 16
      sd += 16
    }
    const sums = summed(
      between(hereA, nextA, v128.shuffle<f32>(shareAb, shareAb, 0, 0, 0, 0)),
      between(hereB, nextB, v128.shuffle<f32>(shareAb, shareAb, 1, 1, 1, 1)),
      between(hereC, nextC, v128.shuffle<f32>(shareCd, shareCd, 0, 0, 0, 0)),
      between(hereD, nextD, v128.shuffle<f32>(shareCd, shareCd, 1, 1, 1, 1)),
    )
    v128.store(o, f64x2.promote_low_f32x4(sums))
    v128.store(o, f64x2.promote_low_f32x4(v128.shuffle<f32>(sums, sums, 2, 3, 2, 3)), 16)
    p += 32
    o += 32
  }
  for (let i = fours; i < count; i++) {
    readFrame(load<f64>(p), samples, o)
    p += 8
    o += 8
  }
}

/** Two frames of both channels at once, by the same numbers. */
function readBoth(places: usize, count: i32, left: usize, right: usize): void {
  const table = numbers
  const bytes = rowBytes
  const times = scale
  const samples = fromLeft
  const pairs = count & ~1
  const across = fromRight - fromLeft
  let p = places
  let block: usize = 0
  for (let i = 0; i < pairs; i += 2) {
    const ab = f64x2.mul(v128.load(p), f64x2.splat(times))
    const whole = f64x2.floor(ab)
    const place = f64x2.mul(f64x2.sub(ab, whole), f64x2.splat(READING_PLACES))
    const row = f64x2.floor(place)
    const share = f32x4.demote_f64x2_zero(f64x2.sub(place, row))
    const shareA = v128.shuffle<f32>(share, share, 0, 0, 0, 0)
    const shareB = v128.shuffle<f32>(share, share, 1, 1, 1, 1)
    const wholes = wholeBits(whole)
    const within = wholeBits(row)
    let sa = samples + ((<usize>i32x4.extract_lane(wholes, 0)) << 2)
    let sb = samples + ((<usize>i32x4.extract_lane(wholes, 2)) << 2)
    let a = table + <usize>i32x4.extract_lane(within, 0) * bytes
    let b = table + <usize>i32x4.extract_lane(within, 2) * bytes
    const end = a + bytes
    let hereLeftA = f32x4.splat(0)
    let hereLeftB = f32x4.splat(0)
    let hereRightA = f32x4.splat(0)
    let hereRightB = f32x4.splat(0)
    let nextLeftA = f32x4.splat(0)
    let nextLeftB = f32x4.splat(0)
    let nextRightA = f32x4.splat(0)
    let nextRightB = f32x4.splat(0)
    while (a < end) {
      let four = v128.load(sa)
      let fourRight = v128.load(sa + across)
      let numbersHere = v128.load(a)
      let numbersNext = v128.load(a + bytes)
      hereLeftA = f32x4.add(hereLeftA, f32x4.mul(numbersHere, four))
      nextLeftA = f32x4.add(nextLeftA, f32x4.mul(numbersNext, four))
      hereRightA = f32x4.add(hereRightA, f32x4.mul(numbersHere, fourRight))
      nextRightA = f32x4.add(nextRightA, f32x4.mul(numbersNext, fourRight))
      four = v128.load(sb)
      fourRight = v128.load(sb + across)
      numbersHere = v128.load(b)
      numbersNext = v128.load(b + bytes)
      hereLeftB = f32x4.add(hereLeftB, f32x4.mul(numbersHere, four))
      nextLeftB = f32x4.add(nextLeftB, f32x4.mul(numbersNext, four))
      hereRightB = f32x4.add(hereRightB, f32x4.mul(numbersHere, fourRight))
      nextRightB = f32x4.add(nextRightB, f32x4.mul(numbersNext, fourRight))
      a += 16
      b += 16
      sa += 16
      sb += 16
    }
    const sums = summed(
      between(hereLeftA, nextLeftA, shareA),
      between(hereLeftB, nextLeftB, shareB),
      between(hereRightA, nextRightA, shareA),
      between(hereRightB, nextRightB, shareB),
    )
    v128.store(left + block, f64x2.promote_low_f32x4(sums))
    v128.store(right + block, f64x2.promote_low_f32x4(v128.shuffle<f32>(sums, sums, 2, 3, 2, 3)))
    p += 16
    block += 16
  }
  if (pairs == count) return
  readFrame(load<f64>(p), samples, left + block)
  readFrame(load<f64>(p), samples + across, right + block)
}

/** One frame of one channel by itself; the same sums. */
function readFrame(place: f64, samples: usize, out: usize): void {
  const position = place * scale
  const whole = <i32>position
  const within = (position - <f64>whole) * READING_PLACES
  const row = <i32>within
  let a = numbers + <usize>row * rowBytes
  let s = samples + ((<usize>whole) << 2)
  const end = a + rowBytes
  let here = f32x4.splat(0)
  let next = f32x4.splat(0)
  while (a < end) {
    const four = v128.load(s)
    here = f32x4.add(here, f32x4.mul(v128.load(a), four))
    next = f32x4.add(next, f32x4.mul(v128.load(a + rowBytes), four))
    a += 16
    s += 16
  }
  const lanes = between(here, next, f32x4.splat(<f32>(within - <f64>row)))
  const pairs = f32x4.add(lanes, v128.shuffle<f32>(lanes, lanes, 2, 3, 0, 1))
  store<f64>(out, <f64>(f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1)))
}

/** In each lane, a share of the way from the sum by one row to that by the next. */
function between(here: v128, next: v128, share: v128): v128 {
  return f32x4.add(here, f32x4.mul(share, f32x4.sub(next, here)))
}

/** The lanes of four sums, each (0 + 2) + (1 + 3), side by side. */
function summed(a: v128, b: v128, c: v128, d: v128): v128 {
  const ac = f32x4.add(v128.shuffle<f32>(a, c, 0, 4, 1, 5), v128.shuffle<f32>(a, c, 2, 6, 3, 7))
  const bd = f32x4.add(v128.shuffle<f32>(b, d, 0, 4, 1, 5), v128.shuffle<f32>(b, d, 2, 6, 3, 7))
  return f32x4.add(v128.shuffle<f32>(ac, bd, 0, 4, 1, 5), v128.shuffle<f32>(ac, bd, 2, 6, 3, 7))
}
