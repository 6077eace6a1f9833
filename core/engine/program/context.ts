import type { Audio } from '../../audio/audio'
import type { AudioHash, BusId, PadId } from '../../kit/ids'
import type { Clip } from '../../kit/kit'
import { exp2, log2 } from '../math'
import type { Region } from '../memory/sample-store'

/**
 * How a clip is read: by how many cents it is raised at most, whether its end goes on at its start, and whether its strikes
 * are held and let go. `alongLoop` asks for it as its own loop makes it.
 */
export interface Reading {
  readonly mostCents: number
  readonly loops: boolean
  readonly isHeld: boolean
  readonly alongLoop?: boolean
}

/** Memory of an effect: as many samples, or these. */
export interface EffectMemory {
  readonly floats: number
  readonly samples?: Float32Array
}

export interface PlacedEffect<Made> {
  /** Its row among the engine's effects. */
  readonly unit: number
  /** Where its memory begins; chunk -1 where it needs none. */
  readonly chunk: number
  readonly lines: number
  readonly made: Made
}

/** What compiling needs to know beside the kit: where things lie in the engine. */
export interface CompileContext {
  readonly sampleRateHz: number
  /** The slot of a pad in the engine. */
  slotOf(padId: PadId): number
  /** The slot of a bus, 0 for the master and for one that is not there. */
  busSlotOf(busId: BusId | undefined): number
  /** Where a clip's samples lie, fit for how they are read, or undefined when its audio is not there (yet). */
  regionOf(clip: Clip, reading: Reading): Region | undefined
  /**
   * The place of an effect by its key, the same as long as it is there, and its memory, as `make` lays it out the first time.
   * Undefined where its audio is not there (yet), or the device gives no more memory.
   */
  effectOf<Made extends EffectMemory>(key: string, make: () => Made | undefined): PlacedEffect<Made> | undefined
  /** Audio that an effect is made of; where it is not there (yet) it is asked for. */
  impulseOf(audio: AudioHash): Audio | undefined
}

/** Makes room for a table of `count` rows and returns where it begins. */
export function table(out: number[], count: number, width: number): number {
  const at = out.length
  for (let i = 0; i < count * width; i++) out.push(0)
  return at
}

export function toFrames(seconds: number, { sampleRateHz }: Pick<CompileContext, 'sampleRateHz'>): number {
  return Math.floor(seconds * sampleRateHz + 0.5)
}

/** k of the bend formula: 64^bend, exactly 1 for a straight line. */
export function bendToK(bend: number): number {
  return bend === 0 ? 1 : exp2(6 * bend)
}

/** The code of a name; undefined for one that has none. */
export function codeIn(codes: Readonly<Record<string, number>>, name: string): number | undefined {
  return codes[name]
}

/** A value in what responses move it by: cents of a frequency, octaves of a ratio, itself otherwise. */
export function movedValue(value: number, movedBy: string | undefined): number {
  if (movedBy === 'cents') return 1200 * log2(value)
  if (movedBy === 'octaves') return log2(value)
  return value
}
