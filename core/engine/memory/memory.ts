import { EventField, LogField, MAX_BUSES, MAX_PADS, MAX_RAYS, PROGRAM_ENTRIES, StatusField } from '../program/layout'

/** How many programs can be loaded at once: each pad's current one, and old ones that still sound. */
export const PROGRAM_SLOTS = 512
const ARENA_DOUBLES = 1 << 20
export const RING_EVENTS = 1024
export const LOG_RECORDS = 1024
/** How many events are kept as they acted, with their frames. */
export const ACT_RECORDS = 2048
export const MAX_CHUNKS = 1024
/** Where the meters of master and buses stand behind those of the rays. */
export const BUS_METERS = MAX_PADS * MAX_RAYS

/**
 * All that the audio thread and the page share, as typed arrays over memory that may be shared. Where the page is not
 * isolated each side has its own copy, and messages keep the two alike.
 */
export interface EngineMemory {
  /** Programs, back to back. */
  readonly arena: Float64Array
  /** Where each program slot begins in the arena; 0 where it is empty. */
  readonly directory: Int32Array
  /** The program slots of pads, kit and groove as the page wants them; 0 for none. The engine takes them with a `kit` event. */
  readonly programTable: Int32Array
  /** How many voices still read each program slot. */
  readonly uses: Int32Array
  /** Live events: written by the page at `ringHead[0]`, read by the engine up to `ringHead[1]`; `ringHead[2]` locks the table. */
  readonly ring: Float64Array
  readonly ringHead: Int32Array
  readonly log: Float64Array
  /** Events from outside as they acted, each with its frame: played again as a score they give the same samples. */
  readonly acts: Float64Array
  readonly status: Float64Array
  /** Highest sample of each ray of each pad since someone last looked, a row of 32 for a pad; then of master and buses. */
  readonly meters: Float64Array
  readonly chunks: (Float32Array | undefined)[]
}

export function createMemory(shared: boolean): EngineMemory {
  const doubles = (count: number) => new Float64Array(buffer(count * 8, shared))
  const ints = (count: number) => new Int32Array(buffer(count * 4, shared))
  return {
    arena: doubles(ARENA_DOUBLES),
    directory: ints(PROGRAM_SLOTS),
    programTable: ints(PROGRAM_ENTRIES),
    uses: ints(PROGRAM_SLOTS),
    ring: doubles(RING_EVENTS * EventField.length),
    ringHead: ints(3),
    log: doubles(LOG_RECORDS * LogField.length),
    acts: doubles(ACT_RECORDS * EventField.length),
    status: doubles(StatusField.length),
    meters: doubles(BUS_METERS + MAX_BUSES),
    chunks: new Array<Float32Array | undefined>(MAX_CHUNKS).fill(undefined),
  }
}

function buffer(bytes: number, shared: boolean): ArrayBuffer {
  return (shared ? new SharedArrayBuffer(bytes) : new ArrayBuffer(bytes)) as ArrayBuffer
}

/** Says that the table of programs is being written, or is whole again. */
export function lockTable({ ringHead }: EngineMemory, isLocked: boolean): void {
  Atomics.store(ringHead, 2, isLocked ? 1 : 0)
}

export function isTableLocked({ ringHead }: EngineMemory): boolean {
  return Atomics.load(ringHead, 2) === 1
}

/** Writes a live event where the engine takes it; false where the ring is full, which the engine is not reading then. */
export function writeRing({ ring, ringHead }: EngineMemory, event: ArrayLike<number>): boolean {
  const head = Atomics.load(ringHead, 0)
  if (((head - Atomics.load(ringHead, 1)) | 0) >= RING_EVENTS) return false
  ring.set(event, (head & (RING_EVENTS - 1)) * EventField.length)
  Atomics.store(ringHead, 0, (head + 1) | 0)
  return true
}
