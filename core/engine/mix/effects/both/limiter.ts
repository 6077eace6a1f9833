import { log2 } from '../../../math'
import { LimiterValue, UnitField, WorkField } from '../../../program/layout'
import { get, getLine, put, putLine, toPlace } from '../../../voice/both/cells'
import { valueAt } from './parts'
import { designSplits, PARTED_DOUBLES, partSample, SPLIT_DOUBLES } from './ranges'
import { PEAK_FRAMES, PEAK_PHASES, PEAK_TAPS } from './sizes'

/**
 * Holds levels below a ceiling. On a bus its gain drops on the very sample that would pass it, since nothing there may come
 * late. On the master it looks ahead: it measures between the samples too (eight for one; ITU-R BS.1770-5, annex 2, asks
 * for four), its gain falls in a straight line before what is too loud, and what it holds back is a part of the delay:
 *
 *   in ─┬─ 8 for 1, highest ─ gain needed ─ least of the last n ─ rises again ─ mean of n ─┐
 *       └─ n + 12 frames later ──────────────────────────────────────────────────────────── × ─ out
 */

const OCTAVE_DB: f64 = 6.020599913279624
/** It holds what is measured a trace below the ceiling, for what the measure does not see. */
const MARGIN: f64 = 0.9988

const SIDES: i32 = SPLIT_DOUBLES
const GAINS: i32 = SIDES + 2 * PARTED_DOUBLES
const PARTS: i32 = GAINS + 3
/** What the one that looks ahead keeps: how often it ran, its gain as it rises, where its least is, and how many gains of the mean are below 1. */
const TURN: i32 = PARTS + 6
const RISING: i32 = TURN + 1
const BELOW: i32 = TURN + 2
const SUM: i32 = TURN + 3
const BEGUN: i32 = TURN + 4
/** The last samples of both sides, twice over, for the measure. */
const PAST: i32 = TURN + 5
/** The same of what it listens to, where that is not its own. */
const KEY_SIDES: i32 = PAST + 4 * PEAK_TAPS
const KEY_PARTS: i32 = KEY_SIDES + 2 * PARTED_DOUBLES

export function limit(unit: i32, work: i32, at: f64, count: i32): void {
  if (get(unit + UnitField.now0 + LimiterValue.aheadFrames) > 0) limitAhead(unit, work, at, count)
  else limitAtOnce(unit, work, at, count)
}

function limitAtOnce(unit: i32, work: i32, at: f64, count: i32): void {
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const keyLeft: i32 = toPlace(get(work + WorkField.keyLeft))
  const keyRight: i32 = toPlace(get(work + WorkField.keyRight))
  const state = unit + UnitField.state0
  const ranges = get(unit + UnitField.now0 + LimiterValue.ranges)
  const parts = state + PARTS
  const isKeyed = keyLeft !== 0
  const levels: i32 = isKeyed ? state + KEY_PARTS : parts
  if (ranges > 1) designSplits(state, valueAt(unit, LimiterValue.split1, at), valueAt(unit, LimiterValue.split2, at))
  for (let i = 0; i < count; i++) {
    partSample(state, state + SIDES, parts, ranges, get(left + i))
    partSample(state, state + SIDES + PARTED_DOUBLES, parts + 3, ranges, get(right + i))
    if (isKeyed) {
      partSample(state, state + KEY_SIDES, levels, ranges, get(keyLeft + i))
      partSample(state, state + KEY_SIDES + PARTED_DOUBLES, levels + 3, ranges, get(keyRight + i))
    }
    let outLeft: f64 = 0
    let outRight: f64 = 0
    for (let range = 0; range < ranges; range++) {
      const gain = gainAtOnce(unit, state + GAINS + range, levels + range, valueAt(unit, LimiterValue.ceiling1 + range, at + i), at + i)
      outLeft += gain * get(parts + range)
      outRight += gain * get(parts + 3 + range)
    }
    put(left + i, outLeft)
    put(right + i, outRight)
  }
}

/** The state holds what is taken away, so that all zero is a gain of 1. */
function gainAtOnce(unit: i32, row: i32, parts: i32, ceiling: f64, into: f64): f64 {
  const peak = Math.max(Math.abs(get(parts)), Math.abs(get(parts + 3)))
  let taken = get(row) - get(row) * valueAt(unit, LimiterValue.release, into)
  if (taken < 1e-7) taken = 0
  if (peak * (1 - taken) > ceiling) taken = 1 - ceiling / peak
  put(row, taken)
  tellReduction(unit, 1 - taken)
  return 1 - taken
}

function tellReduction(unit: i32, gain: f64): void {
  if (gain >= 1) return
  const lowered: f64 = gain < 1e-6 ? 120 : -OCTAVE_DB * log2(gain)
  if (lowered > get(unit + UnitField.reductionDb)) put(unit + UnitField.reductionDb, lowered)
}

/**
 * Its lines: both sides, held back; gains needed, to find the least of the last ones; gains as they rise, for their mean;
 * each a ring of `size` samples, a power of two.
 */
function limitAhead(unit: i32, work: i32, at: f64, count: i32): void {
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const peakTable: i32 = toPlace(get(work + WorkField.peakTable))
  const state = unit + UnitField.state0
  const ahead: i32 = toPlace(get(unit + UnitField.now0 + LimiterValue.aheadFrames))
  const mean = ahead - PEAK_FRAMES + 1
  const lines: i32 = toPlace(get(unit + UnitField.lines))
  const size: i32 = toPlace(get(unit + UnitField.floats)) >> 2
  const mask = size - 1
  if (get(state + BEGUN) === 0) {
    put(state + BEGUN, 1)
    put(state + RISING, 1)
    for (let i = 0; i < 2 * size; i++) putLine(lines + 2 * size + i, 1)
  }
  let turn: i32 = toPlace(get(state + TURN))
  for (let i = 0; i < count; i++) {
    const ceiling = MARGIN * valueAt(unit, LimiterValue.ceiling1, at + i)
    const place = turn & mask
    putLine(lines + place, get(left + i))
    putLine(lines + size + place, get(right + i))
    const one = highestOf(state + PAST, turn, get(left + i), peakTable)
    const other = highestOf(state + PAST + 2 * PEAK_TAPS, turn, get(right + i), peakTable)
    const peak = Math.max(one, other)
    putLine(lines + 2 * size + place, peak > ceiling ? ceiling / peak : 1)
    const least = leastOf(lines + 2 * size, turn, mean + 1, mask)
    const risen = get(state + RISING) + (1 - get(state + RISING)) * valueAt(unit, LimiterValue.release, at + i)
    const rising: f64 = Math.min(least, risen > 0.9999999 ? 1 : risen)
    put(state + RISING, rising)
    const gone = getLine(lines + 3 * size + ((turn - mean) & mask))
    putLine(lines + 3 * size + place, rising)
    const kept = getLine(lines + 3 * size + place)
    put(state + SUM, get(state + SUM) + (1 - kept) - (1 - gone))
    put(state + BELOW, get(state + BELOW) + (kept < 1 ? 1 : 0) - (gone < 1 ? 1 : 0))
    if (get(state + BELOW) === 0) put(state + SUM, 0)
    const gain = 1 - Math.max(0, get(state + SUM)) / mean
    tellReduction(unit, gain)
    put(left + i, gain * getLine(lines + ((turn - ahead) & mask)))
    put(right + i, gain * getLine(lines + size + ((turn - ahead) & mask)))
    turn = turn + 1 === RINGS ? 0 : turn + 1
  }
  put(state + TURN, turn)
}
/** It counts so far and begins again: the size of every ring goes into it, and that of the measure. */
const RINGS: i32 = 1572864

/** The least of the last `count` gains. */
function leastOf(ring: i32, turn: i32, count: i32, mask: i32): f64 {
  let least: f64 = 1
  for (let k = 0; k < count; k++) {
    const gain = getLine(ring + ((turn - k) & mask))
    if (gain < least) least = gain
  }
  return least
}

/** The highest of the samples and of what lies between them, around the one that is PEAK_FRAMES back. */
function highestOf(past: i32, turn: i32, input: f64, table: i32): f64 {
  const place = turn % PEAK_TAPS
  put(past + place, input)
  put(past + place + PEAK_TAPS, input)
  const from = past + place + 1 // the oldest
  let highest = Math.abs(get(from + PEAK_TAPS - 1 - PEAK_FRAMES))
  for (let phase = 1; phase < PEAK_PHASES; phase++) {
    let sum: f64 = 0
    const taps = table + phase * PEAK_TAPS
    for (let k = 0; k < PEAK_TAPS; k++) sum += get(taps + k) * get(from + k)
    highest = Math.max(highest, Math.abs(sum))
  }
  return highest
}
