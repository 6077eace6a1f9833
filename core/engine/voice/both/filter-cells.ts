import { filterCodes } from '../../program/codes'
import { centsToRatio } from '../../math'
import { FilterField, ParamCode, FilterSection } from '../../program/layout'
import { GRID_FRAMES, LONG_CELL_FRAMES, NEVER } from '../../time'
import { get, put, toPlace } from './cells'
import { envelopeValue, STRAIGHT, TURNING, wayWithin } from './envelope-time'
import { designSection } from './filter-design'
import { moved } from './moved'

/**
 * A filter's cutoff, damping and gain over the frames of a strike. Its sections are designed where a cell begins and where
 * it ends, and go straight between. A cell is as short as it must be: 256 or 64 frames where nothing but its envelope moves it
 * and hardly in them, the less the more it rings, else 16, 4 where the cutoff moves by more than that in 16, a single one where it
 * moves by more than that in 4 or may turn. Where one ends the next one begins.
 *
 *   |‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾|   |   |   |   |‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾|     spans of the grid, counted from the strike, and their cells
 */
const MOST_CENTS = 40
/** The square of the cents by which a cutoff moves at most in a long cell, where Q is 1: what straight ways leave grows with both. */
const LONG_CENTS_SQUARED = 160
/** The most by which an envelope and what else moves it turns a cutoff, in cents. */
const FARTHEST = 24000
/** The code of what no parameter moves. */
const NOTHING = -1

/**
 * Lays out the cell in which frame `time` of a strike lies, within the run from `from` to `to` or, where no more than an
 * envelope moves it, within such a span of LONG_CELL_FRAMES. `moves` is where what moves it lies; where it `canMove` by
 * nothing (0) it stands as it was designed. `letGo` is NEVER while it is held.
 */
export function settleCell(filter: i32, moves: i32, canMove: i32, time: f64, from: f64, to: f64, letGo: f64, rateHz: f64): void {
  if (canMove === 0 && get(filter + FilterField.cents) !== NEVER) {
    putSpan(filter, from, to, to - from)
    put(filter + FilterField.cellStart, from)
    put(filter + FilterField.cellEnd, to)
    flush(filter)
    return
  }
  laySpan(filter, moves, time, from, to, letGo)
  const start = get(filter + FilterField.spanStart)
  const last = get(filter + FilterField.spanEnd)
  const stride = get(filter + FilterField.stride)
  const begin = start + Math.floor((time - start) / stride) * stride
  const end = Math.min(begin + stride, last)
  const follows = get(filter + FilterField.hasNext) === 1 && get(filter + FilterField.cellEnd) === begin
  put(filter + FilterField.cellStart, begin)
  put(filter + FilterField.cellEnd, end)
  flush(filter)
  const which: i32 = toPlace(get(filter + FilterField.which))
  const cents = follows ? get(filter + FilterField.centsNext) : centsAt(filter, moves, begin, start, letGo)
  const damping = valueAt(get(filter + FilterField.damping), moves, dampingCode(which), begin - start)
  const gain = valueAt(get(filter + FilterField.gainDb), moves, gainCode(which), begin - start)
  const centsTo = end === last ? get(filter + FilterField.spanCents) : centsAt(filter, moves, end, start, letGo)
  const dampingTo = valueAt(get(filter + FilterField.damping), moves, dampingCode(which), end - start)
  const gainTo = valueAt(get(filter + FilterField.gainDb), moves, gainCode(which), end - start)
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

/** The run or span in which a frame lies, and how long its cells are: kept while frames come in their order. */
function laySpan(filter: i32, moves: i32, time: f64, from: f64, to: f64, letGo: f64): void {
  const kept = get(filter + FilterField.spanStart)
  const isLong = to - from > GRID_FRAMES
  const isKept: bool = isLong ? kept >= 0 && kept <= time && time < get(filter + FilterField.spanEnd) : kept === from
  if (isKept && time >= get(filter + FilterField.cellStart)) return
  if (!isLong) layCells(filter, moves, from, to, letGo)
  else if (!isOneCell(filter, moves, time, LONG_CELL_FRAMES, FilterField.longAgain, letGo))
    if (!isOneCell(filter, moves, time, LONG_CELL_FRAMES / 4, FilterField.shorterAgain, letGo)) {
      const start = Math.floor(time / GRID_FRAMES) * GRID_FRAMES
      layCells(filter, moves, start, start + GRID_FRAMES, letGo)
    }
}

/** Makes one cell of the span of so many frames in which `time` lies, if that does; else it is asked again at its end, which is kept at `again`. */
function isOneCell(filter: i32, moves: i32, time: f64, frames: f64, again: i32, letGo: f64): bool {
  if (time < get(filter + again)) return false
  const start = Math.floor(time / frames) * frames
  const reach = reachWithin(filter, moves, start, start + frames, letGo)
  if (reach * reach <= LONG_CENTS_SQUARED * bluntness(filter)) {
    putSpan(filter, start, start + frames, frames)
    return true
  }
  put(filter + again, start + frames)
  return false
}

/** How little a filter rings: 1/Q, and less where it lifts far. */
function bluntness(filter: i32): f64 {
  return get(filter + FilterField.damping) / (1 + Math.abs(get(filter + FilterField.gainDb)) / 8)
}

function layCells(filter: i32, moves: i32, from: f64, to: f64, letGo: f64): void {
  const reach = reachWithin(filter, moves, from, to, letGo)
  putSpan(filter, from, to, reach > 4 * MOST_CENTS ? 1 : reach > MOST_CENTS ? 4 : GRID_FRAMES)
}

function putSpan(filter: i32, from: f64, to: f64, stride: f64): void {
  put(filter + FilterField.spanStart, from)
  put(filter + FilterField.spanEnd, to)
  put(filter + FilterField.stride, stride)
}

/** By how many cents the cutoff would move within a span if it went all the way as it does where it is fastest; NEVER where it may turn. Leaves where it stands at its end. */
function reachWithin(filter: i32, moves: i32, from: f64, to: f64, letGo: f64): f64 {
  const envelope = toPlace(get(filter + FilterField.envelope))
  const scale = get(filter + FilterField.timeScale)
  const way: i32 = envelope === 0 ? STRAIGHT : wayWithin(envelope, from * scale, to * scale, holdsOf(filter))
  const parts: i32 = way === STRAIGHT ? 1 : 4
  let before = centsAt(filter, moves, from, from, letGo)
  let most: f64 = 0
  for (let i = 1; i <= parts; i++) {
    const at = i === parts ? to : from + ((to - from) * i) / parts
    const cents = centsAt(filter, moves, at, from, letGo)
    most = Math.max(most, Math.abs(cents - before))
    before = cents
  }
  put(filter + FilterField.spanCents, before)
  // In a long span it may turn and turn back between the frames that are looked at.
  return way === TURNING && (most > 0 || to - from > GRID_FRAMES) ? NEVER : most * parts
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
