import { filterCodes } from '../../program/codes'
import { centsToRatio, exp2 } from '../../math'
import { CrushField, FilterSection, MovesField, ParamCode } from '../../program/layout'
import { GRID_FRAMES } from '../../time'
import { get, put } from './cells'
import { designSection } from './filter-design'
import { moved } from './moved'

/**
 * Fewer bits and a lower rate, for the dirt that they make: a sample is taken now and then, rounded, and held. With its own
 * filter the sound is held below half of that rate before and after, which leaves the rounding and little else.
 *
 *   in ─┬─ (low pass) ─ take and hold ─ round ─ (low pass) ─┐
 *       └────────────────────────────────────────────────── mix ─ out
 */

/** Where its own filter ends, in parts of the lower rate. */
const FILTER_SHARE = 0.45
const FLAT = 1.4142135623730951

/**
 * Works on `count` frames of one or two channels from `left` and `right` on (`right` 0 for one), the first of them `time`
 * frames after the strike and `passed` frames into what moves it, which lies at `moves`: see moved.ts.
 */
export function crush(row: i32, moves: i32, time: f64, passed: f64, left: i32, right: i32, count: i32, rateHz: f64): void {
  const steps = moves + MovesField.steps
  const isMoving = get(steps + ParamCode.crushBits) !== 0 || get(steps + ParamCode.crushRateHz) !== 0
  let levels = levelsAt(row, moves, passed)
  let hz = hzAt(row, moves, passed)
  for (let i = 0; i < count; i++) {
    const at = passed + i
    if (isMoving) {
      levels = levelsAt(row, moves, at)
      hz = hzAt(row, moves, at)
    }
    const cell = time + i - Math.floor((time + i) / GRID_FRAMES) * GRID_FRAMES
    if (cell === 0 || get(row + CrushField.isBegun) === 0) beginCell(row, hz, rateHz)
    const mix = Math.min(1, Math.max(0, moved(get(row + CrushField.mix), moves, ParamCode.crush, at)))
    const phase = get(row + CrushField.phase) + Math.min(1, hz / rateHz)
    const takes = phase >= 1
    put(row + CrushField.phase, takes ? phase - 1 : phase)
    crushSample(row, left + i, 0, mix, levels, takes)
    if (right !== 0) crushSample(row, right + i, 1, mix, levels, takes)
  }
}

/** How many levels lie between silence and the loudest sample. */
function levelsAt(row: i32, moves: i32, passed: f64): f64 {
  return exp2(Math.min(24, Math.max(1, moved(get(row + CrushField.bits), moves, ParamCode.crushBits, passed))) - 1)
}

function hzAt(row: i32, moves: i32, passed: f64): f64 {
  const cents = moved(0, moves, ParamCode.crushRateHz, passed)
  return Math.max(20, get(row + CrushField.rateHz) * centsToRatio(Math.min(24000, Math.max(-24000, cents))))
}

/** Every 16 frames its own filter follows the rate, and what has died away is silence. */
function beginCell(row: i32, hz: f64, rateHz: f64): void {
  put(row + CrushField.isBegun, 1)
  if (get(row + CrushField.isFiltered) === 0) return
  for (let i = 0; i < 2; i++) {
    const section = row + CrushField.section0 + i * FilterSection.length
    designSection(section, filterCodes.lowPass, 1, 0, hz * FILTER_SHARE, FLAT, 0, rateHz)
    for (let j = 0; j < 4; j++) if (Math.abs(get(section + FilterSection.one + j)) < 1e-15) put(section + FilterSection.one + j, 0)
  }
}

function crushSample(row: i32, at: i32, side: i32, mix: f64, levels: f64, takes: bool): void {
  const isFiltered = get(row + CrushField.isFiltered) !== 0
  const input = get(at)
  const before = isFiltered ? lowPass(row + CrushField.section0, side, input) : input
  if (takes) put(row + CrushField.held + side, Math.floor(before * levels + 0.5) / levels)
  const held = get(row + CrushField.held + side)
  const after = isFiltered ? lowPass(row + CrushField.section0 + FilterSection.length, side, held) : held
  put(at, input + mix * (after - input))
}

/** A sample through a section of its own filter; side 0 is the left one. */
function lowPass(section: i32, side: i32, input: f64): f64 {
  const state = section + FilterSection.one + 2 * side
  const one = get(state)
  const two = get(state + 1)
  const rest = input - two
  const band = get(section + FilterSection.a1) * one + get(section + FilterSection.a2) * rest
  const low = two + get(section + FilterSection.a2) * one + get(section + FilterSection.a3) * rest
  put(state, 2 * band - one)
  put(state + 1, 2 * low - two)
  return low
}
