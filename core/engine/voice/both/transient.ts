import { dbToGain, exp2, log2 } from '../../math'
import { ParamCode, TransientField } from '../../program/layout'
import { get, put } from './cells'
import { moved } from './moved'

/**
 * Attack and tail of a hit, raised or lowered by its own curve: a quick follower of its level stands above a slow one while
 * it strikes, and both fall together while it rings. How far the quick one stands above says how much of the sound is attack.
 *
 *   level |\  quick                    attack share  |‾‾\
 *         | \__________                              |   \____
 *         |/ slow      ‾‾‾--                         |        ‾‾‾‾‾‾‾
 */

/** Times of the followers: up and down, seconds. */
const QUICK_UP = 0.0003
const QUICK_DOWN = 0.03
const SLOW_UP = 0.025
const SLOW_DOWN = 0.06
/** So far above the slow follower, which goes after it, all is attack; so far it may rise between two crests of a low tone. */
const ALL_ATTACK_DB = 9
const RIPPLE_DB = 1.5
/** The gain is worked out so often, counted from the strike, and goes straight between. */
const STEP_FRAMES = 8
const MOST_DB = 24
const OCTAVE_DB = 6.020599913279624
/** Softer than this nothing is told apart. */
const FLOOR = 0.000001

/** Works on `count` frames of one or two channels from `left` and `right` on (`right` 0 for one); see both/crush.ts for the rest. */
export function shapeTransient(row: i32, moves: i32, time: f64, passed: f64, left: i32, right: i32, count: i32, rateHz: f64): void {
  const quickUp = shareOf(QUICK_UP, rateHz)
  const quickDown = shareOf(QUICK_DOWN, rateHz)
  const slowUp = shareOf(SLOW_UP, rateHz)
  const slowDown = shareOf(SLOW_DOWN, rateHz)
  let quick = get(row + TransientField.quick)
  let slow = get(row + TransientField.slow)
  let gain = get(row + TransientField.gain)
  let step = get(row + TransientField.step)
  for (let i = 0; i < count; i++) {
    const isFirst = get(row + TransientField.isBegun) === 0
    if (isFirst || time + i - Math.floor((time + i) / STEP_FRAMES) * STEP_FRAMES === 0) {
      const share = isFirst ? 1 : attackShare(quick, slow)
      const target = gainFor(row, moves, passed + i, share)
      if (isFirst) gain = target
      step = (target - gain) / STEP_FRAMES
      put(row + TransientField.isBegun, 1)
    }
    const one = Math.abs(get(left + i))
    const other: f64 = right === 0 ? 0 : Math.abs(get(right + i))
    const level = Math.max(one, other)
    quick += (level - quick) * (level > quick ? quickUp : quickDown)
    slow += (quick - slow) * (quick > slow ? slowUp : slowDown)
    put(left + i, get(left + i) * gain)
    if (right !== 0) put(right + i, get(right + i) * gain)
    gain += step
  }
  put(row + TransientField.quick, quick)
  put(row + TransientField.slow, slow)
  put(row + TransientField.gain, gain)
  put(row + TransientField.step, step)
}

/** By which share a follower nears the level in one frame: all but 1/e of the way in its time. */
function shareOf(seconds: f64, rateHz: f64): f64 {
  return 1 - exp2(-1.4426950408889634 / (seconds * rateHz))
}

function attackShare(quick: f64, slow: f64): f64 {
  const above = OCTAVE_DB * log2((quick + FLOOR) / (slow + FLOOR))
  return Math.min(1, Math.max(0, (above - RIPPLE_DB) / (ALL_ATTACK_DB - RIPPLE_DB)))
}

function gainFor(row: i32, moves: i32, passed: f64, share: f64): f64 {
  const attack = held(moved(get(row + TransientField.attackDb), moves, ParamCode.attackDb, passed))
  const tail = held(moved(get(row + TransientField.tailDb), moves, ParamCode.tailDb, passed))
  return dbToGain(share * attack + (1 - share) * tail)
}

function held(db: f64): f64 {
  return Math.min(MOST_DB, Math.max(-MOST_DB, db))
}
