import { dbToGain, sin } from '../../math'
import { driveCodes } from '../../program/codes'
import { DriveField, DriveSide, ParamCode } from '../../program/layout'
import { GRID_FRAMES } from '../../time'
import { get, put, toPlace } from './cells'
import { moved } from './moved'

/**
 * Drive in four characters. What makes harmonics works on four samples for one, and for each takes the mean of its curve
 * between the sample before and this one, which keeps out of hearing what would come back from beyond
 * (J. D. Parker, V. Zavalishin, E. Le Bivic, "Reducing the aliasing of nonlinear waveshaping using continuous-time
 * convolution", DAFx 2016; S. Bilbao and others, "Antiderivative antialiasing for memoryless nonlinearities", 2017):
 *
 *   in ─ 4 for 1 ─ gain ─ curve ─ 1 of 4 ─ level ─ out, 16 frames later
 *        32/4      ·      0.5/4    31.5/4
 *
 * All four leave what is soft as it is, and none goes far beyond 1:
 *
 *   soft ___--- hard  __--- folded  /\  /  uneven  __---
 *       /            /             /  \/          |
 *   ---'         ---'                          ---'
 */

/** By how many frames drive is behind what it is fed with. */
export const DRIVE_FRAMES = 16
const TIMES = 4
const PHASE_TAPS = 17
const DOWN_TAPS = 64
const MOST_DB = 60
/** Up to so many dB it comes in by degrees. */
const WHOLE_DB = 6
/** Beyond this no curve is asked. */
const FARTHEST = 100000
/** Where the uneven curve stands on its own bend, how steeply it is met, what it is there, and what makes it 1 to 1. */
const LEAN = 0.6
const STEEP = 1.6
const LEANT = 0.5144957554275266
const EVENED = 0.991261822123701
/** Its steady part is let go of below so many Hz, in radians a second. */
const STEADY = 31.41592653589793

/**
 * Works on `count` frames of one or two channels from `left` and `right` on (`right` 0 for one); `table` is where the two
 * filters lie. See both/crush.ts for the rest.
 */
export function drive(row: i32, table: i32, moves: i32, time: f64, passed: f64, left: i32, right: i32, count: i32): void {
  for (let done = 0; done < count;) {
    const at = time + done
    const into = at - Math.floor(at / GRID_FRAMES) * GRID_FRAMES
    if (into === 0 || get(row + DriveField.isBegun) === 0) beginCell(row, moves, passed + done, GRID_FRAMES - into)
    const run: i32 = toPlace(Math.min(count - done, GRID_FRAMES - into))
    runSide(row, row + DriveField.side0, table, left + done, run)
    if (right !== 0) runSide(row, row + DriveField.side0 + DriveSide.length, table, right + done, run)
    put(row + DriveField.gain, get(row + DriveField.gain) + run * get(row + DriveField.gainStep))
    put(row + DriveField.mix, get(row + DriveField.mix) + run * get(row + DriveField.mixStep))
    put(row + DriveField.level, get(row + DriveField.level) + run * get(row + DriveField.levelStep))
    done += run
  }
}

/** Every 16 frames it sets out for what it is to be where the next 16 begin. */
function beginCell(row: i32, moves: i32, passed: f64, frames: f64): void {
  if (get(row + DriveField.isBegun) === 0) {
    put(row + DriveField.isBegun, 1)
    put(row + DriveField.gain, dbToGain(amountAt(row, moves, passed)))
    put(row + DriveField.mix, mixOf(amountAt(row, moves, passed)))
    put(row + DriveField.level, levelAt(row, moves, passed))
  }
  const amount = amountAt(row, moves, passed + frames)
  put(row + DriveField.gainStep, (dbToGain(amount) - get(row + DriveField.gain)) / frames)
  put(row + DriveField.mixStep, (mixOf(amount) - get(row + DriveField.mix)) / frames)
  put(row + DriveField.levelStep, (levelAt(row, moves, passed + frames) - get(row + DriveField.level)) / frames)
}

function amountAt(row: i32, moves: i32, passed: f64): f64 {
  const code: i32 = toPlace(get(row + DriveField.code))
  return Math.min(MOST_DB, Math.max(0, moved(get(row + DriveField.amountDb), moves, code, passed)))
}

function mixOf(amountDb: f64): f64 {
  return Math.min(1, amountDb / WHOLE_DB)
}

function levelAt(row: i32, moves: i32, passed: f64): f64 {
  if (get(row + DriveField.hasLevel) === 0) return 1
  const db = moved(get(row + DriveField.levelDb), moves, ParamCode.driveLevelDb, passed)
  return dbToGain(Math.min(MOST_DB, Math.max(-MOST_DB, db)))
}

/** A run of at most 16 frames of one channel. */
function runSide(row: i32, side: i32, table: i32, at: i32, count: i32): void {
  const past = side + DriveSide.past
  const driven = side + DriveSide.driven
  for (let i = 0; i < count; i++) {
    put(past + PHASE_TAPS - 1 + i, get(at + i))
    const gain = get(row + DriveField.gain) + i * get(row + DriveField.gainStep)
    const mix = get(row + DriveField.mix) + i * get(row + DriveField.mixStep)
    for (let phase = 0; phase < TIMES; phase++)
      put(driven + DOWN_TAPS - 1 + TIMES * i + phase, driveSample(row, side, mix, gain * between(past + i, table + phase * PHASE_TAPS)))
  }
  const isUneven = get(row + DriveField.kind) === driveCodes.uneven
  for (let i = 0; i < count; i++) {
    let value = one(driven + TIMES * i, table + TIMES * PHASE_TAPS)
    if (isUneven) value = withoutSteady(side, value, get(row + DriveField.keep))
    put(at + i, value * (get(row + DriveField.level) + i * get(row + DriveField.levelStep)))
  }
  for (let i = 0; i < PHASE_TAPS - 1; i++) put(past + i, get(past + i + count))
  for (let i = 0; i < DOWN_TAPS - 1; i++) put(driven + i, get(driven + i + TIMES * count))
}

/** One of the four samples that stand for the last of 17; `taps` begin with what meets that one. */
function between(past: i32, taps: i32): f64 {
  let sum: f64 = 0
  for (let k = 0; k < PHASE_TAPS; k++) sum += get(taps + k) * get(past + PHASE_TAPS - 1 - k)
  return sum
}

/** The sample that stands for 64, the newest of them last; the taps are the same from both ends. */
function one(driven: i32, taps: i32): f64 {
  let sum: f64 = 0
  for (let k = 0; k < DOWN_TAPS; k++) sum += get(taps + k) * get(driven + k)
  return sum
}

function driveSample(row: i32, side: i32, mix: f64, given: f64): f64 {
  const to = Math.min(FARTHEST, Math.max(-FARTHEST, given))
  const from = get(side + DriveSide.before)
  put(side + DriveSide.before, to)
  const straight = 0.5 * (from + to)
  return straight + mix * (meanOf(get(row + DriveField.kind), from, to, straight) - straight)
}

/** What the curve of an amount makes of a sample, with nothing kept out. */
export function driven(kind: f64, amountDb: f64, sample: f64): f64 {
  const given = dbToGain(amountDb) * sample
  return given + mixOf(amountDb) * (meanOf(kind, given, given, given) - given)
}

/** The mean of a curve over what lies between two samples. */
function meanOf(kind: f64, from: f64, to: f64, middle: f64): f64 {
  if (kind === driveCodes.hard) return meanOfHard(from, to, middle)
  if (kind === driveCodes.folded) return meanOfFolded(from, to, middle)
  if (kind === driveCodes.uneven) return EVENED * (meanOfSoft(STEEP * from + LEAN, STEEP * to + LEAN) - LEANT)
  return meanOfSoft(from, to)
}

/** Of x / √(1 + x²), whose area is √(1 + x²). */
function meanOfSoft(from: f64, to: f64): f64 {
  return (from + to) / (Math.sqrt(1 + from * from) + Math.sqrt(1 + to * to))
}

/** Of x between -1 and 1. */
function meanOfHard(from: f64, to: f64, middle: f64): f64 {
  const way = to - from
  if (Math.abs(way) < 0.0000001) return Math.min(1, Math.max(-1, middle))
  return (areaOfHard(to) - areaOfHard(from)) / way
}

function areaOfHard(x: f64): f64 {
  const size = Math.abs(x)
  return size < 1 ? 0.5 * x * x : size - 0.5
}

/** Of the sine of x. */
function meanOfFolded(from: f64, to: f64, middle: f64): f64 {
  const way = to - from
  if (Math.abs(way) < 0.0001) return sin(middle)
  return (sin(from + QUARTER) - sin(to + QUARTER)) / way
}
const QUARTER = 1.5707963267948966

/** How much of what was is kept of a steady part from frame to frame. */
export function steadyKept(rateHz: f64): f64 {
  return 1 - STEADY / rateHz
}

/** What does not move is let go of, as by a first-order high pass. */
function withoutSteady(side: i32, value: f64, keep: f64): f64 {
  const kept = value - get(side + DriveSide.wasIn) + keep * get(side + DriveSide.wasOut)
  put(side + DriveSide.wasIn, value)
  put(side + DriveSide.wasOut, Math.abs(kept) < 1e-15 ? 0 : kept)
  return kept
}
