import { effectCodes } from '../../../program/codes'
import { UnitField } from '../../../program/layout'
import { GRID_FRAMES } from '../../../time'
import { get, put, toPlace } from '../../../voice/both/cells'
import { crushBus, driveBus, shapeBus, widenBus } from './as-in-voices'
import { compress, gate } from './dynamics'
import { echo } from './echo'
import { equalise } from './equaliser'
import { limit } from './limiter'
import { resonate } from './resonator'
import { reverberate } from './reverb'
import { convolve } from './room'

/** In so many seconds the numbers of an effect are all but 1/e of the way where they are to be. */
const NEAR_SECONDS: f64 = 0.005

/**
 * An effect over `count` frames of a bus, in place. `unit`, `left` and `right` are places in memory; so are `keyLeft` and
 * `keyRight`, what it listens to, or 0 where that is its own bus. Its numbers move on the grid of 16 frames, counted from
 * frame 0, and go straight between, so that blocks change nothing.
 */
export function runEffect(
  unit: i32,
  left: i32,
  right: i32,
  keyLeft: i32,
  keyRight: i32,
  frame: f64,
  count: i32,
  rateHz: f64,
  driveTable: i32,
  peakTable: i32,
  still: i32,
): void {
  for (let done: i32 = 0; done < count;) {
    const at = frame + done
    const into = at - Math.floor(at / GRID_FRAMES) * GRID_FRAMES
    if (into === 0 || get(unit + UnitField.isBegun) === 0) beginCell(unit, Math.min(1, GRID_FRAMES / (NEAR_SECONDS * rateHz)))
    const run: i32 = toPlace(Math.min(count - done, GRID_FRAMES - into))
    const key: i32 = keyLeft === 0 ? 0 : keyLeft + done
    const other: i32 = keyLeft === 0 ? 0 : keyRight + done
    runKind(unit, left + done, right + done, key, other, at, into, run, rateHz, driveTable, peakTable, still)
    done += run
  }
}

function runKind(
  unit: i32,
  left: i32,
  right: i32,
  keyLeft: i32,
  keyRight: i32,
  frame: f64,
  into: f64,
  count: i32,
  rateHz: f64,
  driveTable: i32,
  peakTable: i32,
  still: i32,
): void {
  const kind = get(unit + UnitField.kind)
  if (kind === effectCodes.width) widenBus(unit, left, right, into, count)
  else if (kind === effectCodes.equaliser) equalise(unit, left, right, into, count)
  else if (kind === effectCodes.compressor) compress(unit, left, right, keyLeft, keyRight, into, count, rateHz)
  else if (kind === effectCodes.gate) gate(unit, left, right, keyLeft, keyRight, into, count, rateHz)
  else if (kind === effectCodes.limiter) limit(unit, left, right, keyLeft, keyRight, into, count, peakTable)
  else if (kind === effectCodes.drive) driveBus(unit, left, right, frame, into, count, rateHz, driveTable, still)
  else if (kind === effectCodes.crush) crushBus(unit, left, right, frame, count, rateHz, still)
  else if (kind === effectCodes.transient) shapeBus(unit, left, right, frame, count, rateHz, still)
  else if (kind === effectCodes.echo) echo(unit, left, right, into, count)
  else if (kind === effectCodes.reverb) reverberate(unit, left, right, into, count, rateHz)
  else if (kind === effectCodes.room) convolve(unit, left, right, into, count)
  else if (kind === effectCodes.resonator) resonate(unit, left, right, into, count, rateHz)
}

/** Every 16 frames its numbers set out for where they are to be; at its beginning they stand there. */
function beginCell(unit: i32, share: f64): void {
  const isFirst = get(unit + UnitField.isBegun) === 0
  if (!isFirst && get(unit + UnitField.isDirty) === 0) {
    put(unit + UnitField.isMoving, 0)
    return
  }
  const count = get(unit + UnitField.count)
  const jumps = get(unit + UnitField.jumps)
  let moves: f64 = 0
  let isThere: f64 = 1
  for (let i = 0; i < count; i++) {
    const target = get(unit + UnitField.target0 + i)
    const now: f64 = isFirst ? target : get(unit + UnitField.next0 + i)
    const next: f64 = isFirst || i < jumps ? target : nearer(now, target, share)
    const from: f64 = i < jumps ? target : now
    if (i < jumps && target !== get(unit + UnitField.now0 + i)) moves = 1
    if (next !== from) moves = 1
    if (next !== target) isThere = 0
    put(unit + UnitField.now0 + i, from)
    put(unit + UnitField.next0 + i, next)
    put(unit + UnitField.step0 + i, (next - from) / GRID_FRAMES)
  }
  put(unit + UnitField.isBegun, 1)
  put(unit + UnitField.isMoving, moves)
  // Once it stands where it is to be it has one more cell to arrive in.
  put(unit + UnitField.isDirty, isThere === 1 && moves === 0 ? 0 : 1)
}

function nearer(now: f64, target: f64, share: f64): f64 {
  const next = now + (target - now) * share
  return Math.abs(target - next) <= 1e-9 + 1e-6 * Math.abs(target) ? target : next
}
