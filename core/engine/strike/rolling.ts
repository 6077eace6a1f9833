import { addEvent } from '../events'
import { cameCodes, EventType, modeCodes } from '../program/codes'
import { EventField, Head, MAX_PADS, ParamCode } from '../program/layout'
import { programOf } from '../state'
import type { EngineState } from '../state'
import { gatherOffsets } from './responses'
import { strike } from './strike'

/** What goes on while it is held strikes this often at most, and this seldom, s. */
const LEAST_SECONDS = 0.004
const MOST_SECONDS = 10
const WIDTH = EventField.length
/** What only responses of the whole pad move. */
const NO_RAY = -1

/** Whether strikes of a pad go on while they are held: each of them is over by itself. */
export function goesOn(arena: Float64Array, program: number): boolean {
  const mode = arena[program + Head.mode]
  return arena[program + Head.rollSeconds] > 0 && (mode === modeCodes.hold || mode === modeCodes.loopUntilLetGo)
}

/**
 * After a strike that is held: the next one is made when its time has come, as long as the key is. `begun` is the frame of the first. What
 * has no key (0), and what a groove strikes (below 0), is struck once.
 */
export function goOnRolling(engine: EngineState, begun: number): void {
  const { memory, now, made, offsets, playing } = engine
  const { arena } = memory
  if (now.key <= 0 || now.program === 0 || playing[now.padSlot] === 0 || !goesOn(arena, now.program)) return
  gatherOffsets(engine, NO_RAY)
  const seconds = arena[now.program + Head.rollSeconds] + offsets[ParamCode.rollSeconds]
  const held = seconds < LEAST_SECONDS ? LEAST_SECONDS : seconds > MOST_SECONDS ? MOST_SECONDS : seconds
  made.fill(0)
  made[EventField.frame] = engine.frame + Math.floor(held * engine.sampleRateHz + 0.5)
  made[EventField.type] = EventType.roll
  made[EventField.padSlot] = now.padSlot
  made[EventField.struckSlot] = now.struckSlot
  made[EventField.velocity] = now.velocity
  made[EventField.note] = now.note
  made[EventField.key] = now.key
  made[EventField.gain] = now.gain
  made[EventField.path0] = begun
  addEvent(engine, made, 0)
}

/** The next strike of what is held; nothing where its pad was silenced since it began. */
export function roll(engine: EngineState, events: Float64Array, at: number): void {
  const { now } = engine
  const padSlot = events[at + EventField.padSlot]
  const begun = events[at + EventField.path0]
  if (engine.rollEnd[padSlot] >= begun || programOf(engine, padSlot) === 0) return
  now.padSlot = padSlot
  now.struckSlot = events[at + EventField.struckSlot]
  now.velocity = events[at + EventField.velocity]
  now.note = events[at + EventField.note]
  now.key = events[at + EventField.key]
  now.gain = events[at + EventField.gain]
  now.inputFrame = engine.frame
  now.cameBy = cameCodes.hand
  now.passOn = now.bead = now.beadProgram = 0
  now.wantsBand = now.wantsTurn = -1
  strike(engine)
  goOnRolling(engine, begun)
}

/** What one key holds of a pad goes on no longer; key 0 stands for all. */
export function endRolling({ queue }: EngineState, struckSlot: number, key: number): void {
  const { rows, heap } = queue
  for (let i = 0; i < queue.length; i++) {
    const at = heap[i] * WIDTH
    if (rows[at + EventField.type] !== EventType.roll || rows[at + EventField.struckSlot] !== struckSlot) continue
    if (key === 0 || rows[at + EventField.key] === key) rows[at + EventField.type] = 0
  }
}

/** A pad that was silenced goes on no longer, -1 for all. */
export function silenceRolling({ rollEnd, frame }: EngineState, padSlot: number): void {
  if (padSlot >= 0) rollEnd[padSlot] = frame
  else for (let slot = 0; slot < MAX_PADS; slot++) rollEnd[slot] = frame
}
