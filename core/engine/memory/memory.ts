import { EventField, KitField, LogField, MAX_PADS, MAX_RAYS, StatusField } from '../program/layout'

/** How many programs can be loaded at once: each pad's current one, and old ones that still sound. */
export const PROGRAM_SLOTS = 512
const ARENA_DOUBLES = 1 << 20
export const RING_EVENTS = 1024
export const LOG_RECORDS = 1024
export const MAX_CHUNKS = 1024

/**
 * All that the audio thread and the page share, as typed arrays over memory that may be shared. Where the page is not
 * isolated each side has its own copy, and messages keep the two alike.
 */
export interface EngineMemory {
  /** Programs, back to back. */
  readonly arena: Float64Array
  /** Where each program slot begins in the arena; 0 where it is empty. */
  readonly directory: Int32Array
  /** The program slot that each pad plays now; 0 for none. One atomic store switches it. */
  readonly padTable: Int32Array
  /** How many voices still read each program slot. */
  readonly uses: Int32Array
  readonly kit: Float64Array
  /** Live events: written by the page at `ringHead[0]`, read by the engine up to `ringHead[1]`. */
  readonly ring: Float64Array
  readonly ringHead: Int32Array
  readonly log: Float64Array
  readonly status: Float64Array
  /** Highest sample of each ray of each pad since someone last looked; a row of 32 for a pad. */
  readonly meters: Float64Array
  readonly chunks: (Float32Array | undefined)[]
}

export function createMemory(shared: boolean): EngineMemory {
  const doubles = (count: number) => new Float64Array(buffer(count * 8, shared))
  const ints = (count: number) => new Int32Array(buffer(count * 4, shared))
  const memory: EngineMemory = {
    arena: doubles(ARENA_DOUBLES),
    directory: ints(PROGRAM_SLOTS),
    padTable: ints(MAX_PADS),
    uses: ints(PROGRAM_SLOTS),
    kit: doubles(KitField.length),
    ring: doubles(RING_EVENTS * EventField.length),
    ringHead: ints(2),
    log: doubles(LOG_RECORDS * LogField.length),
    status: doubles(StatusField.length),
    meters: doubles(MAX_PADS * MAX_RAYS),
    chunks: new Array<Float32Array | undefined>(MAX_CHUNKS).fill(undefined),
  }
  memory.kit[KitField.gain] = 1
  memory.kit[KitField.maxStrikes] = 64
  memory.kit[KitField.seed] = 1
  return memory
}

function buffer(bytes: number, shared: boolean): ArrayBuffer {
  return (shared ? new SharedArrayBuffer(bytes) : new ArrayBuffer(bytes)) as ArrayBuffer
}
