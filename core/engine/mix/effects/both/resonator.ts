import { dbToGain, sin } from '../../../math'
import { resonatorCodes } from '../../../program/codes'
import { ResonatorValue, UnitField } from '../../../program/layout'
import { get, getLine, put, putLine, toPlace } from '../../../voice/both/cells'
import { valueAt } from './parts'

/**
 * Up to four tuned lines a side that feed themselves (K. Karplus, A. Strong, "Digital synthesis of plucked-string and drum
 * timbres", CMJ 1983; D. A. Jaffe, J. O. Smith, "Extensions of the Karplus-Strong plucked-string algorithm", 1983). Strings
 * lose their highs as they ring and are struck at a place along them, which leaves out tones that have a node there; combs
 * ring all alike and are heard at that place. Lengths between samples are read by a cubic (J. L. Lagrange), and what
 * softens is one sample long, so that both are in tune.
 */

const STRINGS: i32 = 4
const TURN: i32 = 0
const WRITTEN: i32 = 1
/** For each string: its period, its gain, how much it is softened, and how loud it is. */
const STRING0: i32 = 2
const STRING: i32 = 4
/** The last two samples of each string of each side. */
const PAST: i32 = STRING0 + STRINGS * STRING
const TAU: f64 = 6.283185307179586
const LONGEST: i32 = 1073741824
const MOST_GAIN: f64 = 0.99999

export function resonate(unit: i32, left: i32, right: i32, at: f64, count: i32, rateHz: f64): void {
  const state = unit + UnitField.state0
  if (get(state + TURN) === 0 || get(unit + UnitField.isMoving) !== 0) tune(unit, state, rateHz)
  const size: i32 = toPlace(get(unit + UnitField.now0 + ResonatorValue.capacity))
  const lines: i32 = toPlace(get(unit + UnitField.lines))
  const strings: i32 = toPlace(get(unit + UnitField.now0 + ResonatorValue.strings))
  for (let i = 0; i < count; i++) {
    const mix = valueAt(unit, ResonatorValue.mix, at + i)
    const inLeft = get(left + i)
    const inRight = get(right + i)
    const one = ringing(unit, state, lines, size, strings, 0, at + i, inLeft)
    const other = ringing(unit, state, lines + (STRINGS + 1) * size, size, strings, 1, at + i, inRight)
    put(state + TURN, (toPlace(get(state + TURN)) + 1) & (LONGEST - 1))
    put(state + WRITTEN, Math.min(LONGEST, get(state + WRITTEN) + 1))
    put(left + i, inLeft + mix * (one - inLeft))
    put(right + i, inRight + mix * (other - inRight))
  }
}

/** One side: its first ring is what came in, then one for each string. */
function ringing(unit: i32, state: i32, rings: i32, size: i32, strings: i32, side: i32, into: f64, input: f64): f64 {
  const turn: i32 = toPlace(get(state + TURN))
  const place = valueAt(unit, ResonatorValue.position, into)
  const isString = get(unit + UnitField.now0 + ResonatorValue.kind) === resonatorCodes.strings
  putLine(rings + (turn & (size - 1)), input)
  let sum: f64 = 0
  for (let k = 0; k < strings; k++) {
    const row = state + STRING0 + k * STRING
    const ring = rings + (k + 1) * size
    const past = state + PAST + 2 * (STRINGS * side + k)
    const period = get(row)
    const heard = between(state, ring, size, turn, period - 1)
    const soft = get(row + 2)
    const softened = soft * (heard + get(past + 1)) + (1 - 2 * soft) * get(past)
    put(past + 1, get(past))
    put(past, heard)
    const struck: f64 = isString && place > 0 ? input - between(state, rings, size, turn, place * period) : input
    putLine(ring + (turn & (size - 1)), struck + get(row + 1) * softened)
    const told: f64 = isString ? softened : between(state, ring, size, turn, Math.max(2, place * period))
    sum += get(row + 3) * told
  }
  return sum
}

/** What a ring held so many samples ago, between two of them. */
function between(state: i32, ring: i32, size: i32, turn: i32, frames: f64): f64 {
  const whole = Math.floor(frames)
  const t = frames - whole
  if (whole < 1) return getLine(ring + (turn & (size - 1)))
  const y0 = ago(state, ring, size, turn, whole - 1)
  const y1 = ago(state, ring, size, turn, whole)
  const y2 = ago(state, ring, size, turn, whole + 1)
  const y3 = ago(state, ring, size, turn, whole + 2)
  return (
    (-t * (t - 1) * (t - 2) * y0) / 6 +
    ((t + 1) * (t - 1) * (t - 2) * y1) / 2 -
    ((t + 1) * t * (t - 2) * y2) / 2 +
    ((t + 1) * t * (t - 1) * y3) / 6
  )
}

/** Before anything was written there was nothing. */
function ago(state: i32, ring: i32, size: i32, turn: i32, frames: f64): f64 {
  return frames > get(state + WRITTEN) ? 0 : getLine(ring + ((turn - toPlace(frames)) & (size - 1)))
}

function tune(unit: i32, state: i32, rateHz: f64): void {
  const next = unit + UnitField.next0
  const strings = get(unit + UnitField.now0 + ResonatorValue.strings)
  const isString = get(unit + UnitField.now0 + ResonatorValue.kind) === resonatorCodes.strings
  for (let k = 0; k < strings; k++) {
    const row = state + STRING0 + k * STRING
    const ratio: f64 = k === 0 ? 1 : get(unit + UnitField.now0 + ResonatorValue.ratio2 + k - 1)
    const hz = Math.min(rateHz / 8, get(next + ResonatorValue.hz) * ratio)
    const soft: f64 = (isString ? 0.25 : 0.02) * get(next + ResonatorValue.damping)
    const lost = 1 - 2 * soft + 2 * soft * sin(TAU * (0.25 + hz / rateHz))
    const gain = Math.min(MOST_GAIN, dbToGain(-60 / (hz * get(next + ResonatorValue.decaySeconds))) / lost)
    put(row, rateHz / hz)
    put(row + 1, gain)
    put(row + 2, soft)
    put(row + 3, Math.sqrt((1 - gain * gain) / strings))
  }
}
