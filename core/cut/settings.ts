import type { CutSettings } from '../kit/source'
import type { Strikes } from './gestures'
import { findHits, findOnsets } from './onsets'
import type { Onset, Places } from './onsets'
import type { StrengthCurve } from './strength'

/** The water line of a sensitivity 0..1; higher sensitivity shows more hits. 0.7 is the app's default line. */
export function waterLineOf(sensitivity: number): number {
  return 1 - sensitivity
}

/** Where the water stands: where someone drew it, or where the recording divides. */
export function lineOf({ findsLevel, waterLine }: Pick<CutSettings, 'findsLevel' | 'waterLine'>, { line }: Strikes): number {
  return findsLevel ? line : waterLine
}

const ATTACK_LINE = 0.3
const ATTACK_GAP_SECONDS = 0.03

interface HeardCurve {
  readonly curve: StrengthCurve
  readonly strikes?: Pick<Strikes, 'isCoded'>
}

/** The attacks that the marks of a grid may move to. */
export function attacksOf(mono: Float32Array, sampleRateHz: number, { curve, strikes }: HeardCurve, places?: Places): Onset[] {
  return findOnsets(mono, sampleRateHz, { ...curve, isCoded: strikes?.isCoded }, ATTACK_LINE, ATTACK_GAP_SECONDS, places)
}

/** The first frames of all that a recording is likely to be cut at: its hits over the line it finds, and its attacks. */
export function likelyPlaces(mono: Float32Array, sampleRateHz: number, heard: HeardCurve & { readonly strikes: Strikes }): Places {
  const places: Places = new Map()
  findHits(mono, sampleRateHz, heard.strikes, heard.strikes.line, undefined, places)
  attacksOf(mono, sampleRateHz, heard, places)
  return places
}

/** Where clips begin: at the begin of the attack with room for the fade, at a zero crossing, or at the very frame; and where they end. */
export interface EdgePlaces {
  readonly snap: NonNullable<CutSettings['snap']>
  /** Where the tail falls into the noise of the room, or where the next one begins, as slices of a grid do. */
  readonly ends: 'tail' | 'next'
  /** Onsets that end nothing before them. */
  readonly over?: readonly number[]
}

/** Slices of a grid touch each other; all else begins where it snaps to and rings out. */
export function placesOf({ snap = 'attack', grid, marksStay }: Pick<CutSettings, 'snap' | 'grid' | 'marksStay'>): EdgePlaces {
  return grid && grid.kind !== 'marks' ? { snap: marksStay ? 'none' : 'attack', ends: 'next' } : { snap, ends: 'tail' }
}
