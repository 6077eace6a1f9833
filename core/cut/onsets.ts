import { USUAL_GAP_SECONDS } from '../kit/source'
import { strikesOver } from './gestures'
import type { Strikes } from './gestures'
import { LEAST_SHARE, rangeOf } from './edge'
import { afterSmear } from './smear'
import { startNear } from './start-odds'
import type { StrengthCurve } from './strength'

/** A strike that was found. `frame` is the first frame that belongs to it. */
export interface Onset {
  readonly frame: number
  /** 0..1, where the water line would have to stand to hide it. */
  readonly strength: number
  /** Where a grid has it that was moved to an attack. */
  readonly gridFrame?: number
}

/**
 * The peaks of the curve at or above the water line. Of two closer than the minimum gap the stronger stays. Computed
 * from the curve alone, so the line can be moved without looking at the recording again.
 */
export function pickPeaks(curve: StrengthCurve, waterLine: number, minGapFrames: number): { hop: number; strength: number }[] {
  const { strength, hopFrames } = curve
  const peaks: { hop: number; strength: number }[] = []
  for (let hop = 0; hop < strength.length; hop++) {
    const here = strength[hop]
    if (here >= waterLine && here > (strength[hop - 1] ?? 0) && here >= (strength[hop + 1] ?? 0)) peaks.push({ hop, strength: here })
  }
  const gapHops = minGapFrames / hopFrames
  const kept: typeof peaks = []
  const taken = new Uint8Array(strength.length)
  for (const peak of [...peaks].sort((a, b) => b.strength - a.strength)) {
    if (taken[peak.hop]) continue
    kept.push(peak)
    taken.fill(1, Math.max(0, Math.ceil(peak.hop - gapHops)), Math.floor(peak.hop + gapHops) + 1)
  }
  return kept.sort((a, b) => a.hop - b.hop)
}

/** The frame of each hop that was looked for before, so that nothing is looked for twice. */
export type Places = Map<number, number>

/**
 * The hits of a recording: what stands at or above the water line by its height, each placed on the first frame that rises
 * out of what was before it. Without a line of one's own it stands where the recording divides.
 */
export function findHits(
  mono: Float32Array,
  sampleRateHz: number,
  strikes: Strikes,
  waterLine: number = strikes.line,
  minGapSeconds: number = MIN_GAP_SECONDS,
  places: Places = new Map(),
): Onset[] {
  const over = strikesOver(strikes, waterLine, minGapSeconds * sampleRateHz)
  if (over.length === 0 && waterLine < 1) return aloneInFile(mono, sampleRateHz, strikes.isCoded)
  const begins = over.map(({ hop, beginHop }) => ((hop - beginHop) * strikes.hopFrames <= minGapSeconds * sampleRateHz ? beginHop : hop))
  const onsets = over.map(({ height }, i) => ({
    frame: placeOf(mono, sampleRateHz, begins[i], strikes, places),
    strength: height,
  }))
  return onsets.filter(({ frame }, i) => i === 0 || frame > onsets[i - 1].frame)
}

/** Time that two hits are apart by at least, where nothing is said. */
export const MIN_GAP_SECONDS = USUAL_GAP_SECONDS

/** The peaks of the curve itself at or above a line, each placed on its first frame as hits are, whatever they belong to. */
export function findOnsets(
  mono: Float32Array,
  sampleRateHz: number,
  curve: StrengthCurve & Pick<Strikes, 'isCoded'>,
  waterLine: number,
  minGapSeconds: number,
  places: Places = new Map(),
): Onset[] {
  const peaks = pickPeaks(curve, waterLine, minGapSeconds * sampleRateHz)
  if (peaks.length === 0 && waterLine < 1) return aloneInFile(mono, sampleRateHz, curve.isCoded)
  return peaks.map(({ hop, strength }) => ({ frame: placeOf(mono, sampleRateHz, hop, curve, places), strength }))
}

/** The first frame of the strike near a hop, without what a codec spread before it where there was one. */
export function placeOf(
  mono: Float32Array,
  sampleRateHz: number,
  hop: number,
  { hopFrames, isCoded }: Pick<Strikes, 'hopFrames' | 'isCoded'>,
  places: Places = new Map(),
): number {
  let frame = places.get(hop)
  if (frame === undefined) {
    frame = startNear(mono, sampleRateHz, hop * hopFrames)
    if (isCoded) frame = afterSmear(mono, sampleRateHz, frame)
    places.set(hop, frame)
  }
  return frame
}

const ALONE_SECONDS = 0.15
const ALONE_PEAK = 0.001

/** A file this short has no room in it that a strike could stand out of: if it sounds, it is one. */
export function isAllStrike(mono: Float32Array, sampleRateHz: number): boolean {
  return mono.length <= ALONE_SECONDS * sampleRateHz
}

function aloneInFile(mono: Float32Array, sampleRateHz: number, isCoded = false): Onset[] {
  if (!isAllStrike(mono, sampleRateHz)) return []
  const { low, high } = rangeOf(mono, 0, mono.length)
  const peak = Math.max(high, -low)
  if (peak < ALONE_PEAK) return []
  const first = mono.findIndex((sample) => Math.abs(sample) >= LEAST_SHARE * peak)
  return [{ frame: isCoded ? afterSmear(mono, sampleRateHz, first) : first, strength: 1 }]
}
