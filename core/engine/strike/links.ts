import { addEvent } from '../events'
import { cameCodes, controlNumbers, CONTROLS, EventType, onCodes, pickCodes } from '../program/codes'
import {
  AlsoField,
  BeadField,
  EventField,
  Head,
  MAX_PADS,
  OpeningField,
  OpeningsField,
  PATH_WORDS,
  TakeTurnsField,
} from '../program/layout'
import { programOf } from '../state'
import type { EngineState } from '../state'
import { curveAt } from '../voice/envelope'
import { chance, Purpose, shuffledTurn } from './chance'
import { choke, stopPad } from './stops'
import { goOnRolling } from './rolling'
import { strike } from './strike'

/**
 * A strike from outside. It goes through the openings of the pad that is struck, then to the next of the pads that take
 * turns, and what sounds strikes others along.
 */
export function beginStrike(engine: EngineState, events: Float64Array, at: number): void {
  const { now } = engine
  now.padSlot = now.struckSlot = events[at + EventField.padSlot]
  now.gain = 1
  now.passOn = 1
  now.cameBy = cameCodes.hand
  now.bead = now.beadProgram = 0
  now.wantsBand = events[at + EventField.wantsBand] - 1
  now.wantsTurn = events[at + EventField.wantsTurn] - 1
  engine.path.fill(0)
  sound(engine, events, at)
}

/** A strike that another one made: with its level, for the same finger, and never through a pad it came from. */
export function goOnAlong(engine: EngineState, events: Float64Array, at: number): void {
  const { now, path } = engine
  now.padSlot = events[at + EventField.padSlot]
  now.struckSlot = events[at + EventField.struckSlot]
  now.gain = events[at + EventField.gain]
  now.passOn = events[at + EventField.passOn]
  now.cameBy = cameCodes.along
  now.bead = now.beadProgram = 0
  now.wantsBand = now.wantsTurn = -1
  for (let word = 0; word < PATH_WORDS; word++) path[word] = events[at + EventField.path0 + word]
  sound(engine, events, at)
}

/** A strike of a bead, with what is set on it; the bead's row and program are in `engine.now`. */
export function strikeBead(engine: EngineState, events: Float64Array, at: number): void {
  const { now, memory } = engine
  now.padSlot = now.struckSlot = events[at + EventField.padSlot]
  now.gain = 1
  now.passOn = 1
  now.cameBy = cameCodes.bead
  now.wantsBand = memory.arena[now.bead + BeadField.bandHash]
  now.wantsTurn = memory.arena[now.bead + BeadField.turnHash]
  engine.path.fill(0)
  sound(engine, events, at)
}

function sound(engine: EngineState, events: Float64Array, at: number): void {
  const { now } = engine
  now.velocity = events[at + EventField.velocity]
  now.note = events[at + EventField.note]
  now.inputFrame = events[at + EventField.inputFrame]
  now.key = events[at + EventField.key]
  throughOpenings(engine)
  throughTurns(engine)
  if (isOnPath(engine, now.padSlot)) return
  setOnPath(engine, now.padSlot)
  strike(engine)
  goOnRolling(engine, engine.frame)
  if (now.program !== 0 && now.passOn !== 0) strikeAlong(engine)
}

/** The place of a part of a pad's program; 0 where it has none. */
function partOf(engine: EngineState, padSlot: number, field: number): number {
  const program = programOf(engine, padSlot)
  const at = program === 0 ? -1 : engine.memory.arena[program + field]
  return at < 0 ? 0 : program + at
}

/** To the pad whose threshold the controller has reached; to the lowest where it has reached none. */
function throughOpenings(engine: EngineState): void {
  const openings = partOf(engine, engine.now.padSlot, Head.openings)
  if (openings !== 0) engine.now.padSlot = openPad(engine, openings)
}

function openPad({ memory, controls }: EngineState, openings: number): number {
  const { arena } = memory
  const value = controls[arena[openings + OpeningsField.controller]]
  const rows = openings + OpeningsField.length
  let row = 0
  while (row + 1 < arena[openings + OpeningsField.count] && arena[rows + (row + 1) * OpeningField.length + OpeningField.from] <= value)
    row++
  return arena[rows + row * OpeningField.length + OpeningField.padSlot]
}

/** To the next of the pads that take turns with the one that is struck, the first one first. */
function throughTurns(engine: EngineState): void {
  const { memory, now } = engine
  const { arena } = memory
  const turns = partOf(engine, now.padSlot, Head.takeTurns)
  if (turns === 0) return
  const strikeNumber = engine.takenTurns[arena[turns + TakeTurnsField.counter]]++
  now.padSlot = arena[turns + TakeTurnsField.length + placeOf(engine, turns, strikeNumber)]
}

/** Which of the pads that take turns is next. */
function placeOf(engine: EngineState, turns: number, strikeNumber: number): number {
  const { memory, seed, deck } = engine
  const { arena } = memory
  const count = arena[turns + TakeTurnsField.count]
  const key = arena[turns + TakeTurnsField.tieHash] | 0
  const round = Math.floor(strikeNumber / count)
  switch (arena[turns + TakeTurnsField.pick]) {
    case pickCodes.random:
      return Math.floor(count * chance(seed, key, strikeNumber, Purpose.tie))
    case pickCodes.shuffle:
      deck.seed = seed
      deck.key = key
      deck.list = 0
      deck.count = count
      return shuffledTurn(deck, round, strikeNumber - round * count)
    default:
      return strikeNumber - round * count
  }
}

/** Strikes that the one that sounds now makes: each with its chance, its level and its delay, to the frame. */
function strikeAlong(engine: EngineState): void {
  const { memory, now, made } = engine
  const { arena } = memory
  const { program } = now
  for (let i = 0; i < arena[program + Head.alsoCount]; i++) {
    const row = program + arena[program + Head.also] + i * AlsoField.length
    const key = arena[row + AlsoField.tieHash] | 0
    const draw = chance(engine.seed, key, now.padStrike, Purpose.tie + 256 * (i + 1))
    const padSlot = arena[row + AlsoField.padSlot]
    if (draw >= arena[row + AlsoField.chance] || isOnPath(engine, padSlot)) continue
    made[EventField.frame] = engine.frame + arena[row + AlsoField.delayFrames]
    made[EventField.type] = EventType.along
    made[EventField.padSlot] = padSlot
    made[EventField.velocity] = alongVelocity(engine, row)
    made[EventField.note] = now.note
    made[EventField.inputFrame] = now.inputFrame
    made[EventField.key] = now.key
    made[EventField.gain] = now.gain * arena[row + AlsoField.gain]
    made[EventField.struckSlot] = now.struckSlot
    made[EventField.passOn] = arena[row + AlsoField.passOn]
    for (let word = 0; word < PATH_WORDS; word++) made[EventField.path0 + word] = engine.path[word]
    addEvent(engine, made, 0)
  }
}

/** The velocity of a pad that is struck along: that of the strike, or what its curve makes of it, 1..127. */
function alongVelocity({ memory, now }: EngineState, row: number): number {
  const { arena } = memory
  const curve = arena[row + AlsoField.curve]
  if (curve < 0) return now.velocity
  return Math.min(127, Math.max(1, Math.floor(127 * curveAt(arena, now.program + curve, now.velocity / 127) + 0.5)))
}

function isOnPath({ path }: EngineState, padSlot: number): boolean {
  return ((path[padSlot >> 5] >>> (padSlot & 31)) & 1) === 1
}

function setOnPath({ path }: EngineState, padSlot: number): void {
  const word = padSlot >> 5
  path[word] = (path[word] | (1 << (padSlot & 31))) >>> 0
}

/**
 * A control moves; controllers as they are sent (0..127), all others from 0 to 1, bend from -1 to 1. At or below the value
 * that closes, the pads of a controller's openings are silenced but the one it has come to; pressure on a pad beyond the
 * half silences what it silences by pressure.
 */
export function moveControl(engine: EngineState, control: number, value: number): void {
  if (!(control >= 0 && control < CONTROLS)) return
  const { controls } = engine
  const before = controls[control]
  controls[control] = value
  const padSlot = control - controlNumbers.keyPressure
  if (control < 128) closeOpenings(engine, control, value)
  else if (padSlot >= 0 && padSlot < MAX_PADS && before <= 0.5 && value > 0.5) {
    const program = programOf(engine, padSlot)
    if (program !== 0) choke(engine, program, onCodes.pressure)
  }
}

function closeOpenings(engine: EngineState, controller: number, value: number): void {
  const { arena } = engine.memory
  for (let padSlot = 0; padSlot < MAX_PADS; padSlot++) {
    const openings = partOf(engine, padSlot, Head.openings)
    if (openings === 0 || arena[openings + OpeningsField.controller] !== controller) continue
    if (value <= arena[openings + OpeningsField.chokeAt] && openPad(engine, openings) !== padSlot) stopPad(engine, padSlot)
  }
}
