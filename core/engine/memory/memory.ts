import {
  DoneField,
  EventField,
  LogField,
  MAX_BUSES,
  MAX_PADS,
  MAX_RAYS,
  MAX_UNITS,
  PROGRAM_ENTRIES,
  READING_TABLES,
  StatusField,
} from '../program/layout'
import { READING_FLOATS, readingTable, tableAt, tapsOf } from './reading-tables'
import { createRoom } from './room'
import type { Room } from './room'

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
/** And behind those by how many dB an effect lowers, at most since someone last looked. */
export const UNIT_METERS = BUS_METERS + MAX_BUSES

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
  /** By DoneField. Said with `sayDone` once all of it is written, and read with `doneOf` before: what a count includes is whole. */
  readonly done: Int32Array
  /** Highest sample of each ray of each pad since someone last looked, a row of 32 for a pad; then of master and buses, then what effects take away. */
  readonly meters: Float64Array
  readonly chunks: (Float32Array | undefined)[]
  /** At which byte of `wasm` each chunk of samples begins. */
  readonly chunkAt: Float64Array
  /** Tables by which clips are read, one behind the other, and how many samples each reads: 0 for one that is not made. */
  readonly reading: Float32Array
  readonly readingTaps: Int32Array
  /** At which byte each of them begins. */
  readonly readingAt: Float64Array
  /** Where the next chunk goes in memory that cannot grow; 0 in memory that can. */
  readonly fixedAt: Float64Array
  /** Where the engine's own arrays begin. */
  readonly engineAt: number
  /** What all of this lies in, for the kernel; undefined where the host has no WebAssembly. */
  readonly wasm: WebAssembly.Memory | undefined
  /** All of it but the samples as doubles, for what finds its numbers by their place in memory. */
  readonly everything: Float64Array
}

/** What programs, tables and the engine's own numbers take at most; samples lie behind it. */
const HEAD_BYTES = 20 << 20
const PAGE_BYTES = 65536
/** How much memory may grow to: as much as there can be, then less, since not every device gives that many addresses. */
const MOST_PAGES = [65536, 32768, 16384, 8192]
/** How much memory that cannot grow is made with. */
const FIXED_PAGES = [8192, 4096, 2048, 1024]

/**
 * Makes the memory of an engine. `isShared` says that the page hands it to an audio thread. Where the host has no
 * WebAssembly its arrays are plain ones, and the engine computes without the kernel.
 */
export function createMemory(isShared: boolean): EngineMemory {
  const growing = createWasmMemory(true)
  const wasm = growing ?? createWasmMemory(false)
  const buffer = wasm?.buffer ?? (isShared ? new SharedArrayBuffer(HEAD_BYTES) : new ArrayBuffer(HEAD_BYTES))
  const room = createRoom(buffer as ArrayBuffer, 0, HEAD_BYTES)
  const { doubles, ints, floats } = room
  const arrays = {
    arena: doubles(ARENA_DOUBLES),
    directory: ints(PROGRAM_SLOTS),
    programTable: ints(PROGRAM_ENTRIES),
    uses: ints(PROGRAM_SLOTS),
    ring: doubles(RING_EVENTS * EventField.length),
    ringHead: ints(3),
    log: doubles(LOG_RECORDS * LogField.length),
    acts: doubles(ACT_RECORDS * EventField.length),
    status: doubles(StatusField.length),
    done: ints(DoneField.length),
    meters: doubles(UNIT_METERS + MAX_UNITS),
    chunkAt: doubles(MAX_CHUNKS),
    reading: floats(READING_FLOATS),
    readingTaps: ints(READING_TABLES),
    readingAt: doubles(READING_TABLES),
    fixedAt: doubles(1).fill(growing ? 0 : HEAD_BYTES),
  }
  for (let table = 0; table < READING_TABLES; table++) arrays.readingAt[table] = arrays.reading.byteOffset + 4 * tableAt(table)
  // Before the first block no groove plays, and none stands on its first beat.
  for (const beat of [StatusField.grooveBeat, StatusField.songBeat]) arrays.status[beat] = -1
  return {
    ...arrays,
    chunks: new Array<Float32Array | undefined>(MAX_CHUNKS).fill(undefined),
    engineAt: room.end,
    wasm,
    everything: new Float64Array(buffer, 0, HEAD_BYTES / 8),
  }
}

/** Where the engine's own arrays lie, behind what it shares. */
export function engineRoom({ arena, engineAt }: EngineMemory): Room {
  return createRoom(arena.buffer as ArrayBuffer, engineAt, HEAD_BYTES)
}

/** Memory that grows has to be of the kind that can be shared: other memory takes its arrays away when it grows. */
function createWasmMemory(grows: boolean): WebAssembly.Memory | undefined {
  if (typeof WebAssembly === 'undefined') return undefined
  for (const maximum of grows ? MOST_PAGES : FIXED_PAGES) {
    try {
      return new WebAssembly.Memory({ initial: grows ? HEAD_BYTES / PAGE_BYTES : maximum, maximum, shared: grows })
    } catch {
      continue // not this much, or not of this kind
    }
  }
  return undefined
}

/** Puts a table for reading clips where the engine finds it, unless it is there. Returns its numbers where it was not. */
export function putReadingTable(memory: EngineMemory, table: number, given?: Float32Array): Float32Array | undefined {
  if (memory.readingTaps[table] !== 0) return undefined
  const numbers = given ?? readingTable(table)
  memory.reading.set(numbers, tableAt(table))
  Atomics.store(memory.readingTaps, table, tapsOf(table))
  return numbers
}

/** Makes room for a chunk of samples. Throws a RangeError where the device gives no more memory. */
export function addChunk(memory: EngineMemory, chunk: number, frames: number): Float32Array {
  const samples = takeSamples(memory, frames)
  memory.chunkAt[chunk] = samples.byteOffset
  memory.chunks[chunk] = samples
  return samples
}

function takeSamples({ wasm, fixedAt }: EngineMemory, frames: number): Float32Array {
  if (!wasm) return new Float32Array(frames)
  const pages = Math.ceil((frames * 4) / PAGE_BYTES)
  const isFixed = fixedAt[0] > 0
  const at = isFixed ? fixedAt[0] : wasm.grow(pages) * PAGE_BYTES
  if (isFixed) fixedAt[0] += pages * PAGE_BYTES
  return new Float32Array(wasm.buffer, at, frames)
}

/** Says what was written to its end; whoever reads the number on another thread finds all that was written before it. */
export function sayDone({ done }: Pick<EngineMemory, 'done'>, field: number, number: number): void {
  Atomics.store(done, field, number)
}

/** What was written to its end, by DoneField: to be asked before that is read. */
export function doneOf({ done }: Pick<EngineMemory, 'done'>, field: number): number {
  return Atomics.load(done, field)
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
