import { magnitudes } from '../cut/spectrum'

/**
 * What a sound is like, whatever its level: for each stretch of time after its strike, how much there is in each band, dB
 * over what is too faint to count, 0 to 54. Whole numbers, so that thousands are kept and compared at once.
 */
export type Portrait = Uint8Array

/** Bands spread evenly on the mel scale between these. */
export const BANDS = 24
const LOWEST_HZ = 60
const HIGHEST_HZ = 15000
/** Stretches of time after the strike, s: the stroke, what answers, what rings, what stays. */
const STRETCHES = [0, 0.012, 0.04, 0.1, 0.22, 0.45] as const
const WINDOW_SECONDS = 0.021
const STEP_SECONDS = 0.006
/** What lies further under the loudest moment is not compared. */
const RANGE_DB = 54

/** However much rang before, so much of what is heard counts as a hit's own. */
export const LEAST_OWN = 0.1

export const PORTRAIT_LENGTH = BANDS * (STRETCHES.length - 1)

/** The portrait of a sound from the frame of its strike on; `mono` may go on after `endFrame`, which is not looked at. */
export function portraitOf(mono: Float32Array, sampleRateHz: number, fromFrame = 0, endFrame = mono.length): Portrait {
  return portraitFromSums(sumsOf(mono, sampleRateHz, fromFrame, endFrame))
}

/** What is heard of a sound, by stretches and bands. */
export interface Sums {
  /** Energy in each band of each stretch, and how many moments of it were looked at. */
  readonly all: Float64Array
  /** The same without what rang before. */
  readonly own: Float64Array
  readonly counts: Float64Array
  /** The most that any band had of its own at any moment. */
  readonly loudest: number
}

/** What is heard from a frame on; `ringing` says what of a band is left of what was struck before, so many seconds after that frame. */
export function sumsOf(
  mono: Float32Array,
  sampleRateHz: number,
  fromFrame: number,
  endFrame: number,
  ringing?: (band: number, seconds: number) => number,
): Sums {
  const { size, edges } = bandsFor(sampleRateHz)
  const step = Math.round(STEP_SECONDS * sampleRateHz)
  const last = Math.min(endFrame, fromFrame + Math.round(STRETCHES[STRETCHES.length - 1] * sampleRateHz))
  const sound = mono.subarray(Math.max(0, fromFrame), Math.max(0, last))
  const all = new Float64Array(PORTRAIT_LENGTH)
  const own = ringing ? new Float64Array(PORTRAIT_LENGTH) : all
  const counts = new Float64Array(STRETCHES.length - 1)
  let loudest = 1e-12
  for (let at = 0, frame = 0; frame === 0 || at < sound.length; frame++, at = frame * step) {
    const seconds = at / sampleRateHz
    const row = stretchAt(seconds) * BANDS
    const energies = energiesIn(magnitudes(sound, at, size), edges)
    counts[row / BANDS]++
    for (let band = 0; band < BANDS; band++) {
      const energy = energies[band]
      all[row + band] += energy
      const left = ringing ? Math.max(energy - ringing(band, seconds), LEAST_OWN * energy) : energy
      if (ringing) own[row + band] += left
      if (left > loudest) loudest = left
    }
  }
  return { all, own, counts, loudest }
}

export function portraitFromSums({ own, counts, loudest }: Sums): Portrait {
  return Uint8Array.from(own, (sum, i) => {
    const count = counts[Math.floor(i / BANDS)]
    const db = count > 0 ? 10 * Math.log10(sum / count / loudest + 1e-12) : -RANGE_DB
    return Math.round(Math.max(0, Math.min(RANGE_DB, RANGE_DB + db)))
  })
}

/** The frames of a window at a rate, and where bands begin in its spectrum. */
export function bandsFor(sampleRateHz: number): { readonly size: number; readonly edges: readonly number[] } {
  const size = 2 ** Math.round(Math.log2(WINDOW_SECONDS * sampleRateHz))
  return { size, edges: bandEdges(size, sampleRateHz) }
}

function stretchAt(seconds: number): number {
  let stretch = 0
  while (stretch < STRETCHES.length - 2 && seconds >= STRETCHES[stretch + 1]) stretch++
  return stretch
}

export function energiesIn(bins: Float64Array, edges: readonly number[]): number[] {
  return Array.from({ length: BANDS }, (_, band) => {
    const from = edges[band]
    const to = Math.max(from + 1, edges[band + 1])
    let sum = 0
    for (let bin = from; bin < to; bin++) sum += (bins[bin] ?? 0) ** 2
    return sum
  })
}

const toMel = (hz: number) => 2595 * Math.log10(1 + hz / 700)
const fromMel = (mel: number) => 700 * (10 ** (mel / 2595) - 1)

function bandEdges(size: number, sampleRateHz: number): number[] {
  const [low, high] = [toMel(LOWEST_HZ), toMel(HIGHEST_HZ)]
  return Array.from({ length: BANDS + 1 }, (_, i) => Math.round((fromMel(low + ((high - low) * i) / BANDS) * size) / sampleRateHz))
}

/** How much each stretch counts: what is struck is told by its stroke and what answers. */
export const WEIGHTS = [1, 1, 0.8, 0.6, 0.4]
/** A sound a little louder in all of a stretch is as much the same thing. */
export const LEVEL_SHARE = 0.5

/** How unlike two sounds are, 0 for the same: the mean difference of their bands, dB, a common difference of a stretch counting half. */
export function unlikeness(a: Portrait, b: Portrait): number {
  let total = 0
  for (let stretch = 0; stretch < WEIGHTS.length; stretch++) {
    const from = stretch * BANDS
    let mean = 0
    for (let i = from; i < from + BANDS; i++) mean += a[i] - b[i]
    mean *= LEVEL_SHARE / BANDS
    let sum = 0
    for (let i = from; i < from + BANDS; i++) sum += Math.abs(a[i] - b[i] - mean)
    total += (WEIGHTS[stretch] * sum) / BANDS
  }
  return total / ALL_WEIGHTS
}
const ALL_WEIGHTS = WEIGHTS.reduce((sum, weight) => sum + weight, 0)

const FIRST_CODE = 35

/** A portrait as it is kept in a document: a character for each number. */
export function portraitText(portrait: Portrait): string {
  return String.fromCharCode(...portrait.map((value) => FIRST_CODE + value))
}

/** Undefined where it is no portrait of ours. */
export function portraitFrom(text: string): Portrait | undefined {
  if (text.length !== PORTRAIT_LENGTH) return undefined
  const portrait = new Uint8Array(PORTRAIT_LENGTH)
  for (let i = 0; i < PORTRAIT_LENGTH; i++) {
    portrait[i] = text.charCodeAt(i) - FIRST_CODE
    if (portrait[i] > RANGE_DB) return undefined
  }
  return portrait
}

/** How loud a band is heard, by its level: energy to the power of 0.23, as specific loudness grows (E. Zwicker). */
const LOUDNESS = Float64Array.from({ length: RANGE_DB + 1 }, (_, db) => (db === 0 ? 0 : 10 ** (0.023 * db)))

/** Where the loudness of the stroke balances, in bands: what is heard as brightness, which the lowest tone does not decide alone. */
export function brightnessOf(portrait: Portrait): number {
  let weighted = 0
  let total = 0
  for (let i = 0; i < 2 * BANDS; i++) {
    const loudness = LOUDNESS[portrait[i]]
    weighted += loudness * (i % BANDS)
    total += loudness
  }
  return total > 0 ? weighted / total : 0
}

const NEARLY_DB = 9

/** The lowest band that is nearly as strong as any in what rings: how low a sound is. */
export function lowestBandOf(portrait: Portrait): number {
  const ring = portrait.subarray(BANDS, 4 * BANDS)
  const strongest = ring.reduce((most, value) => Math.max(most, value), 0)
  for (let band = 0; band < BANDS; band++)
    for (let stretch = 0; stretch < 3; stretch++) if (ring[stretch * BANDS + band] >= strongest - NEARLY_DB) return band
  return 0
}
