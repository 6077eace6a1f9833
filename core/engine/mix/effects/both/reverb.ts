import { dbToGain, exp2, log2, sin } from '../../../math'
import { filterCodes, reverbCodes } from '../../../program/codes'
import { FilterSection, ReverbValue, UnitField } from '../../../program/layout'
import { get, getLine, put, putLine, toPlace } from '../../../voice/both/cells'
import { designSection } from '../../../voice/both/filter-design'
import { FLAT, still, valueAt } from './parts'
import { DIFFUSER_SIZE } from './sizes'

/**
 * A room of sixteen lines that feed each other (J.-M. Jot, A. Chaigne, "Digital delay networks for designing artificial
 * reverberators", AES 1991), each with a filter that takes from it, at every frequency, as many dB as belong to its length
 * (S. J. Schlecht, E. A. P. Habets, "Accurate reverberation time control in feedback delay networks", DAFx 2017). All-pass
 * filters before them (M. R. Schroeder, 1962) make its beginning dense.
 *
 *   in ─ before ─┬─ early taps ──────────────────────────────────┐
 *                └─ 4 all-passes a side ─ 16 lines ─┬─ + and - ── + ─ out
 *                                         │ mix ─ decay ┘
 */

const LINES: i32 = 16
const DIFFUSERS: i32 = 8
const TAPS: i32 = 8
const SECTION: i32 = 10
const LOW_HZ: f64 = 250
const HIGH_HZ: f64 = 4000

const TURN: i32 = 0
const WRITTEN: i32 = 1
const IS_SET: i32 = 2
const LEVEL: i32 = 3
const LENGTHS: i32 = 4
const GAINS: i32 = LENGTHS + LINES
const SECTIONS: i32 = GAINS + LINES
const MIXED: i32 = SECTIONS + 2 * LINES * SECTION
const DIFFUSED: i32 = MIXED + LINES
const TIMES: i32 = DIFFUSED + DIFFUSERS
const LOUD: i32 = TIMES + 2 * TAPS
const TURNED: i32 = LOUD + 2 * TAPS
const LONGEST: i32 = 1073741824

export function reverberate(unit: i32, left: i32, right: i32, at: f64, count: i32, rateHz: f64): void {
  const state = unit + UnitField.state0
  if (get(state + IS_SET) === 0) layOut(unit, state, rateHz)
  if (get(state + IS_SET) === 0 || get(unit + UnitField.isMoving) !== 0) setDecay(unit, state, rateHz)
  put(state + IS_SET, 1)
  const before: i32 = toPlace(get(unit + UnitField.lines))
  const beforeSize: i32 = toPlace(get(unit + UnitField.now0 + ReverbValue.beforeCapacity))
  const diffusers = before + 2 * beforeSize
  const lines = diffusers + DIFFUSERS * DIFFUSER_SIZE
  const size: i32 = toPlace(get(unit + UnitField.now0 + ReverbValue.capacity))
  const wait = get(unit + UnitField.now0 + ReverbValue.beforeFrames)
  for (let i = 0; i < count; i++) {
    const turn: i32 = toPlace(get(state + TURN))
    const inLeft = get(left + i)
    const inRight = get(right + i)
    putLine(before + (turn & (beforeSize - 1)), inLeft)
    putLine(before + beforeSize + (turn & (beforeSize - 1)), inRight)
    put(state + WRITTEN, Math.min(LONGEST, get(state + WRITTEN) + 1))
    const density = 0.7 * valueAt(unit, ReverbValue.density, at + i)
    const one = diffuse(state, diffusers, 0, turn, density, ago(state, before, beforeSize, turn, wait))
    const other = diffuse(state, diffusers, DIFFUSERS / 2, turn, density, ago(state, before + beforeSize, beforeSize, turn, wait))
    const early = valueAt(unit, ReverbValue.early, at + i)
    let wetLeft: f64 = early === 0 ? 0 : early * reflected(state, before, beforeSize, turn, 0)
    let wetRight: f64 = early === 0 ? 0 : early * reflected(state, before + beforeSize, beforeSize, turn, TAPS)
    let lateLeft: f64 = 0
    let lateRight: f64 = 0
    for (let line = 0; line < LINES; line++) {
      const heard = ago(state, lines + line * size, size, turn, get(state + LENGTHS + line))
      lateLeft += (line & 2) === 0 ? heard : -heard
      lateRight += ((line + 1) & 2) === 0 ? heard : -heard
      put(state + MIXED + line, decayed(state, line, heard))
    }
    if ((turn & 15) === 0) turnPairs(state, turn, rateHz)
    turnLines(state)
    mixLines(state + MIXED)
    for (let line = 0; line < LINES; line++) {
      const fed: f64 = (line & 1) === 0 ? one : other
      putLine(lines + line * size + (turn & (size - 1)), get(state + MIXED + line) + ((line & 4) === 0 ? fed : -fed))
    }
    wetLeft += get(state + LEVEL) * lateLeft
    wetRight += get(state + LEVEL) * lateRight
    put(state + TURN, (turn + 1) & (LONGEST - 1))
    const mix = valueAt(unit, ReverbValue.mix, at + i)
    put(left + i, inLeft + mix * (wetLeft - inLeft))
    put(right + i, inRight + mix * (wetRight - inRight))
  }
}

/** A sample of a ring before the one at `turn`. Before anything was written there was nothing. */
function ago(state: i32, ring: i32, size: i32, turn: i32, frames: f64): f64 {
  if (frames >= get(state + WRITTEN)) return 0
  return getLine(ring + ((turn - toPlace(frames)) & (size - 1)))
}

function diffuse(state: i32, rings: i32, from: i32, turn: i32, gain: f64, input: f64): f64 {
  let sample = input
  for (let k = from; k < from + DIFFUSERS / 2; k++) {
    const ring = rings + k * DIFFUSER_SIZE
    const frames = get(state + DIFFUSED + k)
    const held: f64 = frames >= get(state + WRITTEN) ? 0 : getLine(ring + ((turn - toPlace(frames)) & (DIFFUSER_SIZE - 1)))
    const fed = sample - gain * held
    putLine(ring + (turn & (DIFFUSER_SIZE - 1)), fed)
    sample = held + gain * fed
  }
  return sample
}

function reflected(state: i32, ring: i32, size: i32, turn: i32, from: i32): f64 {
  let sum: f64 = 0
  for (let k = from; k < from + TAPS; k++) sum += get(state + LOUD + k) * ago(state, ring, size, turn, get(state + TIMES + k))
  return sum
}

/** What a line loses in one pass, at every frequency. */
function decayed(state: i32, line: i32, heard: f64): f64 {
  const row = state + SECTIONS + 2 * line * SECTION
  return shelved(row + SECTION, shelved(row, heard * get(state + GAINS + line)))
}

function shelved(row: i32, input: f64): f64 {
  const one = get(row)
  const two = get(row + 1)
  const rest = input - two
  const band = get(row + FilterSection.a1) * one + get(row + FilterSection.a2) * rest
  const low = two + get(row + FilterSection.a2) * one + get(row + FilterSection.a3) * rest
  put(row, still(2 * band - one))
  put(row + 1, still(2 * low - two))
  return get(row + FilterSection.mix0) * input + get(row + FilterSection.mix1) * band + get(row + FilterSection.mix2) * low
}

const TAU: f64 = 6.283185307179586
/** How far a pair of lines is turned into each other at most, in radians; how often, in Hz, and by how much oftener the next. */
const MOST_TURN: f64 = 1.6
const TURNS_HZ: f64 = 0.9
const NEXT_HZ: f64 = 0.213

/**
 * Pairs of lines turn slowly into each other, each at its own pace, so that no tone stands and rings; nothing is lost by that
 * (S. J. Schlecht, E. A. P. Habets, "Time-varying feedback matrices in feedback delay networks", JASA 2015).
 */
function turnPairs(state: i32, turn: i32, rateHz: f64): void {
  const seconds = turn / rateHz
  for (let pair = 0; pair < LINES / 2; pair++) {
    const angle = MOST_TURN * sin(TAU * (seconds * (TURNS_HZ + NEXT_HZ * pair) - Math.floor(seconds * (TURNS_HZ + NEXT_HZ * pair))))
    put(state + TURNED + 2 * pair, sin(angle + 0.25 * TAU))
    put(state + TURNED + 2 * pair + 1, sin(angle))
  }
}

function turnLines(state: i32): void {
  for (let pair = 0; pair < LINES / 2; pair++) {
    const c = get(state + TURNED + 2 * pair)
    const s = get(state + TURNED + 2 * pair + 1)
    const one = get(state + MIXED + pair)
    const other = get(state + MIXED + pair + LINES / 2)
    put(state + MIXED + pair, c * one - s * other)
    put(state + MIXED + pair + LINES / 2, s * one + c * other)
  }
}

/** Each line into all others, as much as it had (J. Hadamard, 1893). */
function mixLines(row: i32): void {
  for (let span = 1; span < LINES; span = 2 * span)
    for (let from = 0; from < LINES; from += 2 * span)
      for (let k = from; k < from + span; k++) {
        const one = get(row + k)
        const other = get(row + k + span)
        put(row + k, one + other)
        put(row + k + span, one - other)
      }
  for (let k = 0; k < LINES; k++) put(row + k, 0.25 * get(row + k))
}

/** Lengths of lines in seconds, the shortest and the longest, for a size of 1. */
function shortest(kind: f64): f64 {
  return kind === reverbCodes.hall ? 0.0231 : kind === reverbCodes.plate ? 0.0091 : 0.0113
}

function longest(kind: f64): f64 {
  return kind === reverbCodes.hall ? 0.0617 : kind === reverbCodes.plate ? 0.0297 : 0.0353
}

/** Where its lines and taps lie, which never changes while it runs. */
function layOut(unit: i32, state: i32, rateHz: f64): void {
  const kind = get(unit + UnitField.now0 + ReverbValue.kind)
  const size = get(unit + UnitField.now0 + ReverbValue.size)
  const ratio = longest(kind) / shortest(kind)
  let length: f64 = 1
  for (let line = 0; line < LINES; line++) {
    const place: f64 = line
    const seconds = size * shortest(kind) * powerOf(ratio, place / 15)
    length = nextPrime(Math.max(length + 1, Math.floor(seconds * rateHz)))
    put(state + LENGTHS + line, length)
  }
  for (let k = 0; k < DIFFUSERS; k++)
    put(state + DIFFUSED + k, nextPrime(Math.floor(diffuserSeconds(k) * Math.min(1, 0.4 + 0.6 * size) * rateHz)))
  for (let k = 0; k < 2 * TAPS; k++) {
    const step = k % TAPS
    const seconds =
      (kind === reverbCodes.hall ? 1.6 : 1) * size * (0.0041 + 0.0051 * step + 0.0017 * ((step * 5 + (k < TAPS ? 0 : 3)) % 7) * 0.3)
    put(
      state + TIMES + k,
      get(unit + UnitField.now0 + ReverbValue.beforeFrames) + Math.floor(Math.min(0.3, seconds) * rateHz) + (k < TAPS ? 0 : 7),
    )
    const loud: f64 = kind === reverbCodes.plate ? 0 : 0.6 * powerOf(0.8, step)
    put(state + LOUD + k, ((step * 3 + (k < TAPS ? 0 : 1)) & 2) === 0 ? loud : -loud)
  }
}

function diffuserSeconds(k: i32): f64 {
  const step = k % (DIFFUSERS / 2)
  const seconds: f64 = step === 0 ? 0.0017 : step === 1 ? 0.0029 : step === 2 ? 0.0043 : 0.0061
  return k < DIFFUSERS / 2 ? seconds : seconds * 1.093
}

function powerOf(base: f64, exponent: f64): f64 {
  return exp2(exponent * log2(base))
}

function nextPrime(from: f64): f64 {
  let candidate: i32 = toPlace(Math.max(3, from))
  if ((candidate & 1) === 0) candidate++
  while (!isPrime(candidate)) candidate += 2
  return candidate
}

function isPrime(odd: i32): bool {
  for (let divisor = 3; divisor * divisor <= odd; divisor += 2) if (odd % divisor === 0) return false
  return true
}

/** Gains and shelves of all lines, so that 60 dB are lost in the time set; and the level that keeps it as loud for any time. */
function setDecay(unit: i32, state: i32, rateHz: f64): void {
  const next = unit + UnitField.next0
  const seconds = get(next + ReverbValue.decaySeconds)
  const low = seconds * get(next + ReverbValue.decayLow)
  const high = seconds * get(next + ReverbValue.decayHigh)
  let sum: f64 = 0
  for (let line = 0; line < LINES; line++) {
    const length = get(state + LENGTHS + line) / rateHz
    const row = state + SECTIONS + 2 * line * SECTION
    sum += length
    put(state + GAINS + line, dbToGain((-60 * length) / seconds))
    designSection(row, filterCodes.lowShelf, 1, 0, LOW_HZ, FLAT, -60 * length * (1 / low - 1 / seconds), rateHz)
    designSection(row + SECTION, filterCodes.highShelf, 1, 0, HIGH_HZ, FLAT, -60 * length * (1 / high - 1 / seconds), rateHz)
  }
  // Each of 16 lines is fed by one side in eight; what is fed dies away by e in seconds / 13.8.
  put(state + LEVEL, Math.sqrt((13.815510557964274 * (sum / LINES)) / Math.max(seconds, sum / LINES) / LINES))
}
