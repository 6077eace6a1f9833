import { effectCodes } from '../../../program/codes'
import { UnitField, WorkField } from '../../../program/layout'
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
 * An effect over `count` frames of a bus, in place. `unit` is where it keeps what it has, `work` what it works on, a row of
 * WorkField, which is left behind these frames. Its numbers move on the grid of 16 frames, counted from frame 0, and go
 * straight between, so that blocks change nothing.
 */
export function runEffect(unit: i32, work: i32, frame: f64, count: i32): void {
  const nearing: f64 = Math.min(1, GRID_FRAMES / (NEAR_SECONDS * get(work + WorkField.rateHz)))
  for (let done: i32 = 0; done < count;) {
    const at = frame + done
    const into = at - Math.floor(at / GRID_FRAMES) * GRID_FRAMES
    if (into === 0 || get(unit + UnitField.isBegun) === 0) beginCell(unit, nearing)
    const run: i32 = toPlace(Math.min(count - done, GRID_FRAMES - into))
    runKind(unit, work, at, into, run)
    goOn(work, run)
    done += run
  }
}

function runKind(unit: i32, work: i32, frame: f64, into: f64, count: i32): void {
  const kind = get(unit + UnitField.kind)
  const left: i32 = toPlace(get(work + WorkField.left))
  const right: i32 = toPlace(get(work + WorkField.right))
  const rateHz = get(work + WorkField.rateHz)
  if (kind === effectCodes.width) widenBus(unit, left, right, into, count)
  else if (kind === effectCodes.equaliser) equalise(unit, left, right, into, count)
  else if (kind === effectCodes.compressor) compress(unit, work, into, count)
  else if (kind === effectCodes.gate) gate(unit, work, into, count)
  else if (kind === effectCodes.limiter) limit(unit, work, into, count)
  else if (kind === effectCodes.drive) driveBus(unit, work, frame, into, count)
  else if (kind === effectCodes.crush) crushBus(unit, work, frame, count)
  else if (kind === effectCodes.transient) shapeBus(unit, work, frame, count)
  else if (kind === effectCodes.echo) echo(unit, left, right, into, count)
  else if (kind === effectCodes.reverb) reverberate(unit, left, right, into, count, rateHz)
  else if (kind === effectCodes.room) convolve(unit, left, right, into, count)
  else if (kind === effectCodes.resonator) resonate(unit, left, right, into, count, rateHz)
}

/** What is worked on lies `run` frames further on. */
function goOn(work: i32, run: i32): void {
  const isKeyed = get(work + WorkField.keyLeft) !== 0
  put(work + WorkField.left, get(work + WorkField.left) + run)
  put(work + WorkField.right, get(work + WorkField.right) + run)
  if (!isKeyed) return
  put(work + WorkField.keyLeft, get(work + WorkField.keyLeft) + run)
  put(work + WorkField.keyRight, get(work + WorkField.keyRight) + run)
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
