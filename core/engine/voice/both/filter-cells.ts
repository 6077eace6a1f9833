import { filterCodes } from '../../program/codes'
import { centsToRatio } from '../../math'
import { FilterField, ParamCode, FilterSection } from '../../program/layout'
import { GRID_FRAMES, NEVER } from '../../time'
import { get, put, toPlace } from './cells'
import { envelopeValue, STRAIGHT, TURNING, wayWithin } from './envelope-time'
import { designSection } from './filter-design'
import { moved } from './moved'

/**
 * A filter's cutoff, damping and gain over the frames of a strike. Its sections are designed where a cell begins and where
 * it ends, and go straight between. A cell is as short as it must be: 16 frames, 4 where the cutoff moves by more than
 * MOST_CENTS in 16, a single one where it moves by more than that in 4 or may turn. Where one ends the next one begins.
 *
 *   |‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾|   |   |   |   |‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾|     spans of the grid, counted from the strike, and their cells
 */
const MOST_CENTS = 40
/** The most by which an envelope and what else moves it turns a cutoff, in cents. */
const FARTHEST = 24000
/** The code of what no parameter moves. */
const NOTHING = -1

/**
 * Lays out the cell in which frame `time` of a strike lies, within the run or span from `from` to `to`. `moves` is where what
 * moves it lies; where it `canMove` by nothing (0) it stands as it was designed. `letGo` is NEVER while it is held.
 */
export function settleCell(filter: i32, moves: i32, canMove: i32, time: f64, from: f64, to: f64, letGo: f64, rateHz: f64): void {
  if (canMove === 0 && get(filter + FilterField.cents) !== NEVER) {
    put(filter + FilterField.spanStart, from)
    put(filter + FilterField.cellStart, from)
    put(filter + FilterField.cellEnd, to)
    flush(filter)
    return
  }
  if (!(from === get(filter + FilterField.spanStart)) || time < get(filter + FilterField.cellStart)) {
    put(filter + FilterField.spanStart, from)
    put(filter + FilterField.stride, strideOf(filter, moves, from, to, letGo))
  }
  const stride = get(filter + FilterField.stride)
  const begin = from + Math.floor((time - from) / stride) * stride
  const end = Math.min(begin + stride, to)
  const follows = get(filter + FilterField.hasNext) === 1 && get(filter + FilterField.cellEnd) === begin
  put(filter + FilterField.cellStart, begin)
  put(filter + FilterField.cellEnd, end)
  flush(filter)
  const which: i32 = toPlace(get(filter + FilterField.which))
  const cents = follows ? get(filter + FilterField.centsNext) : centsAt(filter, moves, begin, from, letGo)
  const damping = valueAt(get(filter + FilterField.damping), moves, dampingCode(which), begin - from)
  const gain = valueAt(get(filter + FilterField.gainDb), moves, gainCode(which), begin - from)
  const centsTo = end === to ? get(filter + FilterField.spanCents) : centsAt(filter, moves, end, from, letGo)
  const dampingTo = valueAt(get(filter + FilterField.damping), moves, dampingCode(which), end - from)
  const gainTo = valueAt(get(filter + FilterField.gainDb), moves, gainCode(which), end - from)
  const isStill = cents === centsTo && damping === dampingTo && gain === gainTo
  put(filter + FilterField.hasNext, isStill ? 0 : 1)
  put(filter + FilterField.centsNext, centsTo)
  if (isStill && isAsDesigned(filter, cents, damping, gain)) return
  if (follows) takeNext(filter)
  else design(filter, 0, cents, damping, gain, rateHz)
  if (isStill) stayStill(filter)
  else goStraight(filter, centsTo, dampingTo, gainTo, rateHz, end - begin)
  put(filter + FilterField.cents, isStill ? cents : NEVER)
  put(filter + FilterField.dampingNow, damping)
  put(filter + FilterField.gainNow, gain)
}

function isAsDesigned(filter: i32, cents: f64, damping: f64, gain: f64): bool {
  if (get(filter + FilterField.cents) !== cents) return false
  return get(filter + FilterField.dampingNow) === damping && get(filter + FilterField.gainNow) === gain
}

/** Codes of what moves a filter: the first, the second, and the low cut, of which only the cutoff moves. */
function dampingCode(which: i32): i32 {
  return which === 0 ? ParamCode.filter1Damping : which === 1 ? ParamCode.filter2Damping : NOTHING
}

function gainCode(which: i32): i32 {
  return which === 0 ? ParamCode.filter1GainDb : which === 1 ? ParamCode.filter2GainDb : NOTHING
}

function cutoffCode(which: i32): i32 {
  return which === 0 ? ParamCode.filter1CutoffHz : which === 1 ? ParamCode.filter2CutoffHz : ParamCode.lowCutHz
}

/** The same for what may be moved by nothing. */
function valueAt(base: f64, moves: i32, code: i32, passed: f64): f64 {
  return code === NOTHING ? base : moved(base, moves, code, passed)
}

/** By how many cents the cutoff is moved at a frame of the strike, the run or span of which began at `from`. */
function centsAt(filter: i32, moves: i32, time: f64, from: f64, letGo: f64): f64 {
  const which: i32 = toPlace(get(filter + FilterField.which))
  const code = cutoffCode(which)
  const reach: i32 = which === 1 ? ParamCode.filter2EnvelopeCents : ParamCode.filter1EnvelopeCents
  const turned = moved(0, moves, code, time - from)
  const envelope = toPlace(get(filter + FilterField.envelope))
  if (envelope === 0) return held(turned)
  const scale = get(filter + FilterField.timeScale)
  const left: f64 = letGo === NEVER ? NEVER : letGo * scale
  const value = envelopeValue(envelope, Math.max(0, time) * scale, holdsOf(filter), left, get(filter + FilterField.leftAt))
  return held(turned + value * moved(get(filter + FilterField.envelopeCents), moves, reach, time - from))
}

/** Whether its strike is held until it is let go. */
function holdsOf(filter: i32): i32 {
  return toPlace(get(filter + FilterField.holds))
}

function held(cents: f64): f64 {
  return Math.min(FARTHEST, Math.max(-FARTHEST, cents))
}

/** How long the cells of a span are. Leaves where the cutoff stands at its end. */
function strideOf(filter: i32, moves: i32, from: f64, to: f64, letGo: f64): f64 {
  const envelope = toPlace(get(filter + FilterField.envelope))
  const scale = get(filter + FilterField.timeScale)
  const way: i32 = envelope === 0 ? STRAIGHT : wayWithin(envelope, from * scale, to * scale, holdsOf(filter))
  const parts: i32 = way === STRAIGHT ? 1 : 4
  const first = centsAt(filter, moves, from, from, letGo)
  let before = first
  let most: f64 = 0
  for (let i = 1; i <= parts; i++) {
    const at = i === parts ? to : from + ((to - from) * i) / parts
    const cents = centsAt(filter, moves, at, from, letGo)
    most = Math.max(most, Math.abs(cents - before))
    before = cents
  }
  put(filter + FilterField.spanCents, before)
  if (way === TURNING && most > 0) return 1
  const inFour = (most * parts) / 4 // straight, it moves by a quarter of all in four frames
  if (inFour > MOST_CENTS) return 1
  return inFour * 4 > MOST_CENTS ? 4 : GRID_FRAMES
}

function design(filter: i32, at: i32, cents: f64, damping: f64, gain: f64, rateHz: f64): void {
  const kind = toPlace(get(filter + FilterField.kind))
  const sections = toPlace(get(filter + FilterField.sections))
  const hz = centsToRatio(cents) * get(filter + FilterField.cutoffHz)
  for (let i = 0; i < sections; i++) {
    const section = filter + FilterField.section0 + i * FilterSection.length
    designSection(section + at, kind, sections, i, hz, damping, gain, rateHz)
  }
}

function stayStill(filter: i32): void {
  const end = endOf(filter)
  for (let section = filter + FilterField.section0; section < end; section += FilterSection.length)
    for (let j = 0; j < 6; j++) put(section + FilterSection.a1Step + j, 0)
}

/** Behind the last section that is in use. */
function endOf(filter: i32): i32 {
  const sections: i32 = toPlace(get(filter + FilterField.sections))
  return filter + FilterField.section0 + sections * FilterSection.length
}

/** What was designed for the end of the last cell is where this one begins. */
function takeNext(filter: i32): void {
  const end = endOf(filter)
  for (let section = filter + FilterField.section0; section < end; section += FilterSection.length)
    for (let j = 0; j < 6; j++) put(section + FilterSection.a1 + j, get(section + FilterSection.a1Next + j))
}

/** Designs the end of a cell, and steps a frame that lead there. */
function goStraight(filter: i32, cents: f64, damping: f64, gain: f64, rateHz: f64, frames: f64): void {
  design(filter, FilterSection.a1Next - FilterSection.a1, cents, damping, gain, rateHz)
  const end = endOf(filter)
  for (let section = filter + FilterField.section0; section < end; section += FilterSection.length)
    for (let j = 0; j < 6; j++)
      put(section + FilterSection.a1Step + j, (get(section + FilterSection.a1Next + j) - get(section + FilterSection.a1 + j)) / frames)
}

/** Numbers this small would decay into denormals, which are slow. */
function flush(filter: i32): void {
  const end = endOf(filter)
  for (let section = filter + FilterField.section0; section < end; section += FilterSection.length)
    for (let j = 0; j < 4; j++) {
      const state = section + FilterSection.one + j
      if (Math.abs(get(state)) < 1e-15) put(state, 0)
    }
}

/** Whether a filter does anything. */
export function isOn(filter: i32): bool {
  return get(filter + FilterField.kind) !== filterCodes.off
}
