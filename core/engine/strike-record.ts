import { LOG_RECORDS } from './memory/memory'
import { cameCodes, limitCodes } from './program/codes'
import { LogField, MAX_PADS, MAX_RAYS } from './program/layout'

const SLOTS = Array.from({ length: MAX_PADS }, (_, slot) => slot)

/** A hand or key, a bead of a groove, or another pad's strike. */
export type CameBy = keyof typeof cameCodes
export type FullLimit = keyof typeof limitCodes

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
  /** The pad that was struck: another one where openings or turns led from it, or a strike went along. */
  readonly struckSlot: number
  readonly cameBy: CameBy
  /** Pads of which a strike stopped to make room for this one, and whose limits were full. */
  readonly roomSlots: number[]
  readonly fullLimits: readonly FullLimit[]
}

/** Strike number `index` of the log, which keeps the last 1024. */
export function readRecord(log: Float64Array, index: number): StrikeRecord {
  const at = (index % LOG_RECORDS) * LogField.length
  const slotsIn = (field: number) => SLOTS.filter((slot) => (log[at + field + (slot >> 5)] >>> (slot & 31)) & 1)
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
    chokedSlots: slotsIn(LogField.choked),
    struckSlot: log[at + LogField.struckSlot],
    cameBy: (Object.keys(cameCodes) as CameBy[]).find((by) => cameCodes[by] === log[at + LogField.cameBy])!,
    roomSlots: slotsIn(LogField.room),
    fullLimits: (Object.keys(limitCodes) as FullLimit[]).filter((limit) => log[at + LogField.roomBy] & limitCodes[limit]),
  }
}
