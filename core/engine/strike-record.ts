import { LOG_RECORDS } from './memory/memory'
import { LogField, MAX_PADS, MAX_RAYS } from './program/layout'

/** What the engine decided for a strike. */
export interface StrikeRecord {
  readonly frame: number
  readonly padSlot: number
  readonly velocity: number
  readonly band: number
  readonly turn: number
  readonly strikeNumber: number
  readonly voices: number
  /** The cell of the louder band that blends in, -1 where none does. */
  readonly aboveBand: number
  readonly aboveTurn: number
  /** Which rays sound, by their places on the pad. */
  readonly rays: readonly number[]
  readonly chokedSlots: number[]
}

/** Strike number `index` of the log, which keeps the last 1024. */
export function readRecord(log: Float64Array, index: number): StrikeRecord {
  const at = (index % LOG_RECORDS) * LogField.length
  const chokedSlots: number[] = []
  for (let slot = 0; slot < MAX_PADS; slot++) if ((log[at + LogField.choked + (slot >> 5)] >>> (slot & 31)) & 1) chokedSlots.push(slot)
  return {
    frame: log[at + LogField.frame],
    padSlot: log[at + LogField.padSlot],
    velocity: log[at + LogField.velocity],
    band: log[at + LogField.band],
    turn: log[at + LogField.turn],
    strikeNumber: log[at + LogField.strikeNumber],
    voices: log[at + LogField.rays],
    aboveBand: log[at + LogField.aboveBand],
    aboveTurn: log[at + LogField.aboveTurn],
    rays: Array.from({ length: MAX_RAYS }, (_, ray) => ray).filter((ray) => (log[at + LogField.rayMask] >>> ray) & 1),
    chokedSlots,
  }
}
