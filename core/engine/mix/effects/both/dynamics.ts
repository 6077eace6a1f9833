import { dbToGain, log2 } from '../../../math'
import { CompressorValue, GateValue, RangeValue, UnitField, WorkField } from '../../../program/layout'
import { get, put, toPlace } from '../../../voice/both/cells'
import { valueAt } from './parts'
import { designSplits, PARTED_DOUBLES, partSample, SPLIT_DOUBLES } from './ranges'

/**
 * Compressor and gate. The compressor reckons in dB: its curve with a soft knee gives by how much a level is to be lowered,
 * and that is followed quickly or slowly (D. Giannoulis, M. Massberg, J. D. Reiss, "Digital dynamic range compressor
 * design", JAES 2012: feed-forward, smooth and branching, behind the curve). The level is the highest sample of the last
 * 10 ms, so that a tone of 50 Hz and more has one level and not a new one in each half of its wave.
 */

const HOLD_SECONDS: f64 = 0.01
/** How fast the level falls once it is no longer held, seconds to 1/e. */
const FALL_SECONDS: f64 = 0.005
const OCTAVE_DB: f64 = 6.020599913279624
/** Less than this is no level. */
const FLOOR: f64 = 1e-9
const NO_LEVEL_DB: f64 = -200

/** What a range keeps. */
const LEVEL: i32 = 0
const HELD: i32 = 1
const REDUCTION: i32 = 2
const GAIN_FOR: i32 = 3
const GAIN: i32 = 4
const DB_FOR: i32 = 5
const DB: i32 = 6
const RANGE_DOUBLES: i32 = 7

const SIDES: i32 = SPLIT_DOUBLES
const RANGES: i32 = SIDES + 4 * PARTED_DOUBLES
const PARTS: i32 = RANGES + 3 * RANGE_DOUBLES

export function compress(unit: i32, work: i32, at: f64, count: i32): void {
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const keyLeft: i32 = toPlace(get(work + WorkField.keyLeft))
  const keyRight: i32 = toPlace(get(work + WorkField.keyRight))
  const rateHz = get(work + WorkField.rateHz)
  const state = unit + UnitField.state0
  const ranges = get(unit + UnitField.now0 + CompressorValue.ranges)
  const isKeyed = keyLeft !== 0
  const parts = state + PARTS
  const levels: i32 = isKeyed ? parts + 6 : parts
  if (ranges > 1) designSplits(state, valueAt(unit, CompressorValue.split1, at), valueAt(unit, CompressorValue.split2, at))
  for (let i = 0; i < count; i++) {
    const into = at + i
    const mix = valueAt(unit, CompressorValue.mix, into)
    partSample(state, state + SIDES, parts, ranges, get(left + i))
    partSample(state, state + SIDES + PARTED_DOUBLES, parts + 3, ranges, get(right + i))
    if (isKeyed) {
      partSample(state, state + SIDES + 2 * PARTED_DOUBLES, parts + 6, ranges, get(keyLeft + i))
      partSample(state, state + SIDES + 3 * PARTED_DOUBLES, parts + 9, ranges, get(keyRight + i))
    }
    let outLeft: f64 = 0
    let outRight: f64 = 0
    for (let range = 0; range < ranges; range++) {
      const level = Math.max(Math.abs(get(levels + range)), Math.abs(get(levels + 3 + range)))
      const gain = gainOf(unit, state + RANGES + range * RANGE_DOUBLES, range, level, into, rateHz)
      const share = 1 + mix * (gain - 1)
      outLeft += share * get(parts + range)
      outRight += share * get(parts + 3 + range)
    }
    put(left + i, outLeft)
    put(right + i, outRight)
  }
}

/** The highest sample of the last 10 ms, and then a quick fall. */
function heldLevel(row: i32, level: f64, rateHz: f64): f64 {
  const before = get(row + LEVEL)
  if (level >= before) {
    put(row + LEVEL, level)
    put(row + HELD, Math.floor(HOLD_SECONDS * rateHz))
    return level
  }
  if (get(row + HELD) > 0) {
    put(row + HELD, get(row + HELD) - 1)
    return before
  }
  const fallen = before - (before - level) * (1 / (FALL_SECONDS * rateHz))
  put(row + LEVEL, fallen < FLOOR ? 0 : fallen)
  return fallen
}

function gainOf(unit: i32, row: i32, range: i32, level: f64, into: f64, rateHz: f64): f64 {
  const value: i32 = CompressorValue.range0 + range * RangeValue.length
  const held = heldLevel(row, level, rateHz)
  if (held !== get(row + DB_FOR)) {
    put(row + DB_FOR, held)
    put(row + DB, held > FLOOR ? OCTAVE_DB * log2(held) : NO_LEVEL_DB)
  }
  const db: f64 = held > FLOOR ? get(row + DB) : NO_LEVEL_DB
  const wanted = loweredBy(db - valueAt(unit, value + RangeValue.thresholdDb, into), valueAt(unit, CompressorValue.kneeDb, into))
  const target = wanted * valueAt(unit, value + RangeValue.slope, into)
  const before = get(row + REDUCTION)
  const share = valueAt(unit, value + (target > before ? RangeValue.attack : RangeValue.release), into)
  const next = before + (target - before) * share
  const reduction = Math.abs(target - next) < 1e-7 ? target : next
  put(row + REDUCTION, reduction)
  if (reduction > get(unit + UnitField.reductionDb)) put(unit + UnitField.reductionDb, reduction)
  const raised = valueAt(unit, value + RangeValue.makeUpDb, into) - reduction
  if (raised === 0) return 1
  if (raised !== get(row + GAIN_FOR)) {
    put(row + GAIN_FOR, raised)
    put(row + GAIN, dbToGain(raised))
  }
  return get(row + GAIN)
}

/** How far above the threshold a level counts, in dB, with a knee of that many dB. */
function loweredBy(over: f64, kneeDb: f64): f64 {
  if (2 * over <= -kneeDb) return 0
  if (2 * over >= kneeDb) return over
  return ((over + 0.5 * kneeDb) * (over + 0.5 * kneeDb)) / (2 * kneeDb)
}

const IS_OPEN: i32 = 2
const OPEN_FOR: i32 = 3
/** How far it stands open between its two gains, 0 to 1. */
const OPEN: i32 = 4
/** It closes 3 dB below where it opens, so that it does not flutter. */
const CLOSES: f64 = 0.7079457843841379

/** What is softer than the threshold is lowered; it opens in a straight line and closes by equal dB. */
export function gate(unit: i32, work: i32, at: f64, count: i32): void {
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const keyLeft: i32 = toPlace(get(work + WorkField.keyLeft))
  const keyRight: i32 = toPlace(get(work + WorkField.keyRight))
  const rateHz = get(work + WorkField.rateHz)
  const row = unit + UnitField.state0
  let least: f64 = 1
  for (let i = 0; i < count; i++) {
    const one: f64 = keyLeft !== 0 ? get(keyLeft + i) : get(left + i)
    const other: f64 = keyLeft !== 0 ? get(keyRight + i) : get(right + i)
    const held = heldLevel(row, Math.max(Math.abs(one), Math.abs(other)), rateHz)
    const gain = openness(unit, row, held, at + i)
    if (gain < least) least = gain
    if (gain === 1) continue
    put(left + i, get(left + i) * gain)
    put(right + i, get(right + i) * gain)
  }
  const lowered: f64 = least < 1e-6 ? 120 : -OCTAVE_DB * log2(least)
  if (lowered > get(unit + UnitField.reductionDb)) put(unit + UnitField.reductionDb, lowered)
}

function openness(unit: i32, row: i32, held: f64, into: f64): f64 {
  const opensAt = valueAt(unit, GateValue.opensAt, into)
  const isLoud = held > 0 && held >= (get(row + IS_OPEN) !== 0 ? opensAt * CLOSES : opensAt)
  const openFor: f64 = isLoud ? valueAt(unit, GateValue.holdFrames, into) : Math.max(0, get(row + OPEN_FOR) - 1)
  put(row + OPEN_FOR, openFor)
  const isOpen = isLoud || openFor > 0
  put(row + IS_OPEN, isOpen ? 1 : 0)
  const shut = valueAt(unit, GateValue.shut, into)
  if (shut === 1) return 1
  let open = get(row + OPEN)
  if (isOpen) open = Math.min(1, open + valueAt(unit, GateValue.rise, into))
  else open = Math.max(0, ((shut + open * (1 - shut)) * valueAt(unit, GateValue.fall, into) - shut) / (1 - shut))
  put(row + OPEN, open)
  return open === 1 ? 1 : shut + open * (1 - shut)
}
