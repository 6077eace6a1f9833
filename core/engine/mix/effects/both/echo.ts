import { EchoValue, UnitField } from '../../../program/layout'
import { get, getLine, put, putLine, toPlace } from '../../../voice/both/cells'
import { runOnePole, valueAt } from './parts'

/**
 * What was heard so many whole frames ago, filtered, and that again. Going to and fro, all of it begins on the left and
 * changes sides each time. Where its time is changed, one goes over into the other.
 */

/** Over so many frames one time goes into another. */
const FADE_FRAMES: f64 = 1024
const TURN: i32 = 0
const WRITTEN: i32 = 1
const FRAMES: i32 = 2
const OLD_FRAMES: i32 = 3
const FADE: i32 = 4
const FILTERS: i32 = 5
const LONGEST: i32 = 1073741824

export function echo(unit: i32, left: i32, right: i32, at: f64, count: i32): void {
  const state = unit + UnitField.state0
  const lines: i32 = toPlace(get(unit + UnitField.lines))
  const size: i32 = toPlace(get(unit + UnitField.now0 + EchoValue.capacity))
  if (get(state + FRAMES) === 0) put(state + FRAMES, get(unit + UnitField.now0 + EchoValue.frames))
  for (let i = 0; i < count; i++) {
    settleTime(unit, state)
    const into = at + i
    const fro = valueAt(unit, EchoValue.toAndFro, into)
    const back = valueAt(unit, EchoValue.feedback, into)
    const mix = valueAt(unit, EchoValue.mix, into)
    const low = valueAt(unit, EchoValue.lowPass, into)
    const high = valueAt(unit, EchoValue.highPass, into)
    const one = filtered(state + FILTERS, low, high, heard(state, lines, size))
    const other = filtered(state + FILTERS + 2, low, high, heard(state, lines + size, size))
    const inLeft = get(left + i)
    const inRight = get(right + i)
    const turn: i32 = toPlace(get(state + TURN))
    const middle = 0.5 * (inLeft + inRight)
    putLine(lines + (turn & (size - 1)), inLeft + fro * (middle - inLeft) + back * (one + fro * (other - one)))
    putLine(lines + size + (turn & (size - 1)), inRight - fro * inRight + back * (other + fro * (one - other)))
    put(state + TURN, (turn + 1) & (LONGEST - 1))
    put(state + WRITTEN, Math.min(size, get(state + WRITTEN) + 1))
    put(left + i, inLeft + mix * (one - inLeft))
    put(right + i, inRight + mix * (other - inRight))
  }
}

function settleTime(unit: i32, state: i32): void {
  if (get(state + FADE) > 0) {
    put(state + FADE, get(state + FADE) - 1)
    return
  }
  const wanted = get(unit + UnitField.now0 + EchoValue.frames)
  if (wanted === get(state + FRAMES)) return
  put(state + OLD_FRAMES, get(state + FRAMES))
  put(state + FRAMES, wanted)
  put(state + FADE, FADE_FRAMES)
}

function heard(state: i32, line: i32, size: i32): f64 {
  const now = ago(state, line, size, get(state + FRAMES))
  const fade = get(state + FADE)
  if (fade === 0) return now
  const before = ago(state, line, size, get(state + OLD_FRAMES))
  return now + (fade / FADE_FRAMES) * (before - now)
}

/** Before anything was written there was nothing. */
function ago(state: i32, line: i32, size: i32, frames: f64): f64 {
  if (frames > get(state + WRITTEN)) return 0
  return getLine(line + ((toPlace(get(state + TURN)) - toPlace(frames)) & (size - 1)))
}

function filtered(row: i32, low: f64, high: f64, input: f64): f64 {
  const soft = runOnePole(row, low, input)
  return soft - runOnePole(row + 1, high, soft)
}
