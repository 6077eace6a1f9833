import { bent, curveAt } from '../voice/envelope'
import { controlNumbers, sourceCodes } from '../program/codes'
import { BeadField, Head, LockField, PARAMS, RayField, ResponseField } from '../program/layout'
import type { EngineState } from '../state'
import { oscillatorAt } from '../voice/oscillator'
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
    if (only >= 0 && only !== ray) continue
    offsets[arena[at + ResponseField.to]] += settledPart(engine, at)
  }
  if (now.bead !== 0) lockOffsets(engine, ray)
}

function settledPart(engine: EngineState, at: number): number {
  const { memory, now } = engine
  const { arena } = memory
  const amount = arena[at + ResponseField.amount]
  switch (arena[at + ResponseField.from]) {
    case sourceCodes.velocity:
      return held(arena, at, amount * (curved(engine, at, now.velocity / 127) - 1))
    case sourceCodes.chance: {
      const purpose = Purpose.response + 256 * (arena[at + ResponseField.draw] + 1)
      return held(arena, at, amount * (2 * chance(engine.seed, arena[now.program + Head.padHash] | 0, now.padStrike, purpose) - 1))
    }
    case sourceCodes.note:
      return now.note < 0 ? 0 : held(arena, at, (amount * (now.note - 60)) / 12)
    case sourceCodes.turn:
      return held(arena, at, amount * curved(engine, at, now.turns > 1 ? now.turn / (now.turns - 1) : 0))
    case sourceCodes.strikeRate:
      return held(arena, at, amount * curved(engine, at, fastness(engine)))
    default:
      return controlPart(engine, at, now.padSlot) + oscillatorPart(engine, at, engine.frame, engine.frame)
  }
}

/** How fast strikes of the pad come: 0 for one alone, 1 for `FASTEST_HZ` a second. */
function fastness({ now, sampleRateHz }: EngineState): number {
  return now.sinceLast < 0 ? 0 : Math.min(1, sampleRateHz / FASTEST_HZ / Math.max(1, now.sinceLast))
}

/** What a control adds by a response, from where it stands now; 0 for what is moved by something else. */
export function controlPart(engine: EngineState, at: number, padSlot: number): number {
  const { arena } = engine.memory
  const from = arena[at + ResponseField.from]
  if (from !== sourceCodes.control && from !== sourceCodes.keyPressure) return 0
  const number = from === sourceCodes.control ? arena[at + ResponseField.number] : controlNumbers.keyPressure + padSlot
  const x = number < 128 ? engine.controls[number] / 127 : engine.controls[number]
  return held(arena, at, arena[at + ResponseField.bias] + arena[at + ResponseField.amount] * bothWays(engine, at, x))
}

/** What an oscillator adds by a response at a frame; 0 for what is moved by something else. */
export function oscillatorPart(engine: EngineState, at: number, frame: number, startFrame: number): number {
  const { arena } = engine.memory
  if (arena[at + ResponseField.from] !== sourceCodes.oscillator) return 0
  const x = oscillatorAt(engine, arena[at + ResponseField.number], frame, startFrame)
  return held(arena, at, arena[at + ResponseField.amount] * bothWays(engine, at, x))
}

/** A control that goes both ways bends alike to both. */
function bothWays(engine: EngineState, at: number, x: number): number {
  return x < 0 ? -curved(engine, at, -x) : curved(engine, at, x)
}

/** A share 0..1 as the curve of a response turns it. */
function curved(engine: EngineState, at: number, x: number): number {
  const { arena } = engine.memory
  const curve = arena[at + ResponseField.curve]
  return curve === 0 ? bent(0, 1, x, arena[at + ResponseField.k]) : curveAt(arena, at + curve, x)
}

function held(arena: Float64Array, at: number, part: number): number {
  const least = arena[at + ResponseField.least]
  const most = arena[at + ResponseField.most]
  return part < least ? least : part > most ? most : part
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
