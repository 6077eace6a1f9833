import { curveAt } from '../voice/envelope'
import { controlNumbers, NO_PAD, sourceCodes } from '../program/codes'
import { BeadField, Head, LockField, PARAMS, RayField, ResponseField } from '../program/layout'
import type { EngineState } from '../state'
import { oscillatorIn } from '../voice/oscillator'
import { chance, Purpose } from './chance'

/** So many strikes a second, and more, are the fastest that a response to how fast they come can tell. */
const FASTEST_HZ = 16

/** Sums what is settled with the strike that is being decided for one ray, into `engine.offsets`: responses, then the bead's own. */
export function gatherOffsets(engine: EngineState, ray: number): void {
  const { offsets, now } = engine
  const { arena } = engine.memory
  const { program } = now
  for (let i = 0; i < PARAMS; i++) offsets[i] = 0
  const first = program + arena[program + Head.settled]
  for (let i = 0; i < arena[program + Head.settledCount]; i++) {
    const at = first + i * ResponseField.length
    const only = arena[at + ResponseField.only]
    if (only < 0 || only === ray) addSettled(engine, at)
  }
  if (now.bead !== 0) lockOffsets(engine, ray)
}

/** How fast strikes come, so many frames after each other, as a share of the fastest; 0 for a first one. */
export function shareOfRate(sinceLast: number, sampleRateHz: number): number {
  return sinceLast < 0 ? 0 : Math.min(1, sampleRateHz / FASTEST_HZ / Math.max(1, sinceLast))
}

/** What is being worked out, handed from one function to the next: a number in a cell costs no memory (see math.ts). */
const x = new Float64Array(1)

/** Adds the part of one response that is settled with the strike. */
function addSettled(engine: EngineState, at: number): void {
  const { memory, now, offsets } = engine
  const { arena } = memory
  const amount = arena[at + ResponseField.amount]
  switch (arena[at + ResponseField.from]) {
    case sourceCodes.velocity:
      x[0] = now.velocity / 127
      curve(arena, at)
      x[0] = amount * (x[0] - 1)
      break
    case sourceCodes.chance: {
      const purpose = Purpose.response + 256 * (arena[at + ResponseField.draw] + 1)
      x[0] = amount * (2 * chance(engine.seed, arena[now.program + Head.padHash] | 0, now.padStrike, purpose) - 1)
      break
    }
    case sourceCodes.note:
      x[0] = now.note < 0 ? 0 : (amount * (now.note - 60)) / 12
      break
    case sourceCodes.turn:
      x[0] = now.turns > 1 ? now.turn / (now.turns - 1) : 0
      curve(arena, at)
      x[0] *= amount
      break
    case sourceCodes.strikeRate:
      x[0] = shareOfRate(now.sinceLast, engine.sampleRateHz)
      curve(arena, at)
      x[0] *= amount
      break
    default:
      addControl(engine, at, now.padSlot, offsets)
      addOscillator(engine, at, engine.frame, engine.frame, offsets)
      return
  }
  addHeld(x, arena, at, offsets)
}

/** Adds what a control moves by a response, from where it stands now; nothing for what is moved by something else. */
export function addControl(engine: EngineState, at: number, padSlot: number, sums: Float64Array): void {
  const { arena } = engine.memory
  const from = arena[at + ResponseField.from]
  if (from !== sourceCodes.control && (from !== sourceCodes.keyPressure || padSlot === NO_PAD)) return
  const number = from === sourceCodes.control ? arena[at + ResponseField.number] : controlNumbers.keyPressure + padSlot
  x[0] = number < 128 ? engine.controls[number] / 127 : engine.controls[number]
  curveBothWays(arena, at)
  x[0] = arena[at + ResponseField.bias] + arena[at + ResponseField.amount] * x[0]
  addHeld(x, arena, at, sums)
}

/** Adds what an oscillator moves by a response at a frame; nothing for what is moved by something else. */
export function addOscillator(engine: EngineState, at: number, frame: number, startFrame: number, sums: Float64Array): void {
  const { arena } = engine.memory
  if (arena[at + ResponseField.from] !== sourceCodes.oscillator) return
  oscillatorIn(x, engine, arena[at + ResponseField.number], frame, startFrame)
  curveBothWays(arena, at)
  x[0] *= arena[at + ResponseField.amount]
  addHeld(x, arena, at, sums)
}

/** A control that goes both ways bends alike to both. */
function curveBothWays(arena: Float64Array, at: number): void {
  const isBelow = x[0] < 0
  if (isBelow) x[0] = -x[0]
  curve(arena, at)
  if (isBelow) x[0] = -x[0]
}

/** Turns a share 0..1 as the curve of a response says. */
function curve(arena: Float64Array, at: number): void {
  const drawn = arena[at + ResponseField.curve]
  const k = arena[at + ResponseField.k]
  if (drawn !== 0) x[0] = curveAt(arena, at + drawn, x[0])
  else if (k !== 1) x[0] = x[0] / (x[0] + k * (1 - x[0]))
}

/** Adds a part, which stands in a cell, held between its bounds to the sum of its parameter. */
export function addHeld(x: Float64Array, arena: Float64Array, at: number, sums: Float64Array): void {
  const least = arena[at + ResponseField.least]
  const most = arena[at + ResponseField.most]
  sums[arena[at + ResponseField.to]] += x[0] < least ? least : x[0] > most ? most : x[0]
}

/** What a bead sets for its strike alone: `add` moves it on, `set` puts it where it says, whatever else moved it. */
function lockOffsets({ memory, offsets, now }: EngineState, ray: number): void {
  const { arena } = memory
  const groove = memory.directory[now.beadProgram]
  const rayRow = now.program + arena[now.program + Head.rays] + ray * RayField.length
  const values = now.program + arena[rayRow + RayField.values]
  for (let i = 0; i < arena[now.bead + BeadField.lockCount]; i++) {
    const row = groove + arena[now.bead + BeadField.locks] + i * LockField.length
    if (arena[row + LockField.ray] >= 0 && arena[row + LockField.ray] !== arena[rayRow + RayField.hash]) continue
    const to = arena[row + LockField.to]
    if (arena[row + LockField.isSet] === 1) offsets[to] = arena[row + LockField.value] - arena[values + to]
    else offsets[to] += arena[row + LockField.value]
  }
}
