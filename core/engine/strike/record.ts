import { doneOf, LOG_RECORDS, sayDone } from '../memory/memory'
import { DoneField, LogField } from '../program/layout'
import type { EngineState } from '../state'

/** Opens the log record of the strike that is being decided; nobody reads it before `endRecord`. */
export function beginRecord(engine: EngineState): void {
  const { memory, now } = engine
  const { log } = memory
  const at = (doneOf(memory, DoneField.strikes) % LOG_RECORDS) * LogField.length
  for (let i = 0; i < LogField.length; i++) log[at + i] = 0
  log[at + LogField.frame] = engine.frame
  log[at + LogField.inputFrame] = now.inputFrame
  log[at + LogField.padSlot] = now.padSlot
  log[at + LogField.velocity] = now.velocity
  log[at + LogField.band] = -1
  log[at + LogField.turn] = -1
  log[at + LogField.strikeNumber] = now.padStrike
  log[at + LogField.aboveBand] = -1
  log[at + LogField.aboveTurn] = -1
  log[at + LogField.struckSlot] = now.struckSlot
  log[at + LogField.cameBy] = now.cameBy
  now.record = at
}

/** Closes it: from now on it is told. */
export function endRecord({ memory }: EngineState): void {
  sayDone(memory, DoneField.strikes, doneOf(memory, DoneField.strikes) + 1)
}

/** Notes that a ray of it sounds. */
export function recordRay(engine: EngineState, ray: number): void {
  const { log } = engine.memory
  const at = engine.now.record + LogField.rayMask
  log[at] = (log[at] | (1 << ray)) >>> 0
}
