import type { Room } from '../memory/room'
import { MAX_BUSES, MAX_UNITS, MOST_INSERTS, UnitField, WorkField } from '../program/layout'
import { PEAK_TABLE, peakTable } from './effects/peak-table'

/** How long an effect takes to come and to go. */
const FADE_SECONDS = 0.01
/** No chunk, or no bus. */
export const NONE = -1

/** The effects of all buses: what each keeps, and which stand in which bus, in order. */
export interface Inserts {
  /** Rows of UnitField. */
  readonly units: Float64Array
  readonly peakTable: Float64Array
  /** What the effect at work works on: a row of WorkField. */
  readonly work: Float64Array
  /** In which chunk the delay lines of each lie, and to which bus it listens; -1 for none. */
  readonly chunk: Int32Array
  readonly key: Int32Array
  /** How many frames each is from being wholly there; `leaves` those that go. */
  readonly absent: Int32Array
  readonly leaves: Int32Array
  /** The chain of each bus, and the one that follows once what goes is gone. */
  readonly chain: Int32Array
  readonly count: Int32Array
  readonly next: Int32Array
  readonly nextCount: Int32Array
  readonly isPending: Int32Array
  /** The program that a chain is of which is going, so that its memory stays; 0 for none. */
  readonly held: Int32Array
  readonly fadeFrames: number
  /** What an effect of the whole mix heard, for one that follows it. */
  readonly heardLeft: Float64Array
  readonly heardRight: Float64Array
  readonly dryLeft: Float64Array
  readonly dryRight: Float64Array
}

export function createInserts(sampleRateHz: number, frames: number, { doubles }: Room): Inserts {
  const ints = (count: number) => new Int32Array(count)
  const table = doubles(PEAK_TABLE)
  table.set(peakTable())
  return {
    units: doubles(MAX_UNITS * UnitField.length),
    peakTable: table,
    work: doubles(WorkField.length),
    chunk: ints(MAX_UNITS).fill(NONE),
    key: ints(MAX_UNITS).fill(NONE),
    absent: ints(MAX_UNITS),
    leaves: ints(MAX_UNITS),
    chain: ints(MAX_BUSES * MOST_INSERTS),
    count: ints(MAX_BUSES),
    next: ints(MAX_BUSES * MOST_INSERTS),
    nextCount: ints(MAX_BUSES),
    isPending: ints(MAX_BUSES),
    held: ints(MAX_BUSES),
    fadeFrames: Math.round(FADE_SECONDS * sampleRateHz),
    heardLeft: doubles(frames),
    heardRight: doubles(frames),
    dryLeft: new Float64Array(frames),
    dryRight: new Float64Array(frames),
  }
}
