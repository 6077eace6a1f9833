import { magnitudes } from '../cut/spectrum'

/**
 * Excitation patterns of the ear (B. R. Glasberg, B. C. J. Moore, "Derivation of auditory filter shapes from notched-noise
 * data", Hearing Research 1990): rounded-exponential filters along the scale of equivalent rectangular bandwidths, whose
 * lower side grows shallower the louder what enters it is:
 *
 *   1 |    /\        soft        1 |      /\       loud
 *     |   /  \                    |  __-'   \
 *     |__/    \___                |-'        \__     frequency
 */

/** A sine of full scale is taken to be heard at so many dB SPL. */
export const FULL_SCALE_DB_SPL = 90
/** Filters stand half an ERB apart, from about 40 Hz to 16 kHz; what enters them is gathered in quarters. */
const FIRST_ERB = 1.5
const LAST_ERB = 38
const FILTER_STEP = 0.5
const PART_STEP = 0.25
export const FILTERS = Math.round((LAST_ERB - FIRST_ERB) / FILTER_STEP) + 1
const PARTS = Math.round((LAST_ERB - FIRST_ERB) / PART_STEP) + 1

/** Equivalent rectangular bandwidth in Hz of the filter at a frequency in Hz. */
export const erbHz = (hz: number): number => 24.7 * (0.00437 * hz + 1)
/** The place of a frequency in Hz on the scale of ERBs, and back. */
export const erbOf = (hz: number): number => 21.4 * Math.log10(0.00437 * hz + 1)
export const hzOfErb = (erb: number): number => (10 ** (erb / 21.4) - 1) / 0.00437

/** The centre of each filter, Hz. */
export const filterHz: readonly number[] = Array.from({ length: FILTERS }, (_, i) => hzOfErb(FIRST_ERB + i * FILTER_STEP))
const partHz = Array.from({ length: PARTS }, (_, i) => hzOfErb(FIRST_ERB + i * PART_STEP))

const slopeOf = (hz: number): number => (4 * hz) / erbHz(hz)
const SLOPE_1K = slopeOf(1000)
/** Filters are as measured for so many dB in each ERB; a dB more makes the lower side so much shallower. */
const MEASURED_DB = 51
const SHALLOWER = 0.38
const LEAST_SLOPE = 0.1

/** How much of what lies at `hz` passes the filter at `centreHz` when its ERB holds `levelDb` dB SPL. A share of power, 0..1. */
export function passes(hz: number, centreHz: number, levelDb: number): number {
  const away = Math.abs(hz - centreHz) / centreHz
  const slope = slopeOf(centreHz)
  const p = hz >= centreHz ? slope : Math.max(LEAST_SLOPE, slope - SHALLOWER * (slope / SLOPE_1K) * (levelDb - MEASURED_DB))
  return (1 + p * away) * Math.exp(-p * away)
}

/** Threshold of what is heard in quiet, dB SPL (E. Terhardt, "Calculating virtual pitch", 1979). */
export function quietDb(hz: number): number {
  const k = hz / 1000
  return 3.64 * k ** -0.8 - 6.5 * Math.exp(-0.6 * (k - 3.3) ** 2) + 0.001 * k ** 4
}

/** Components of less than this are left out, dB SPL. */
const SILENT_DB = -10

/** The excitation that components of so many dB SPL (at frequencies in Hz) make in each filter, dB. */
export function excitationOf(hz: readonly number[], levelsDb: ArrayLike<number>): Float64Array {
  const sums = new Float64Array(FILTERS)
  for (let part = 0; part < hz.length; part++) {
    const level = levelsDb[part]
    if (level < SILENT_DB) continue
    const power = 10 ** (level / 10)
    for (let filter = 0; filter < FILTERS; filter++) sums[filter] += power * passes(hz[part], filterHz[filter], level)
  }
  return sums.map((power) => 10 * Math.log10(power + 1e-12))
}

const FRAME = 4096
const HOP = 1024

/** Excitation of a sound (one channel at 48 kHz) over time: one pattern each 21 ms, of 85 ms. */
export function excitationsOf(samples: Float32Array): Float64Array[] {
  const patterns: Float64Array[] = []
  for (let from = 0; from < samples.length; from += HOP) patterns.push(excitationOf(partHz, partsOf(samples, from)))
  return patterns
}

/** Power of a bin against that of a sine of full scale, all of whose bins add up to it under a Hann window. */
const SCALE = 1 / (0.375 * FRAME * FRAME * 0.25)
const RATE = 48000
const edges = Array.from({ length: PARTS + 1 }, (_, i) => Math.round((hzOfErb(FIRST_ERB + (i - 0.5) * PART_STEP) * FRAME) / RATE))

function partsOf(samples: Float32Array, start: number): Float64Array {
  const bins = magnitudes(samples, start, FRAME)
  return Float64Array.from({ length: PARTS }, (_, part) => {
    const [from, to] = [edges[part], edges[part + 1]]
    let power = 0
    // A part narrower than a bin has its share of the nearest.
    if (to <= from) power = (bins[from] ** 2 * partWidth(part)) / (RATE / FRAME)
    else for (let bin = from; bin < to; bin++) power += bins[bin] ** 2
    return FULL_SCALE_DB_SPL + 10 * Math.log10(power * SCALE + 1e-12)
  })
}

function partWidth(part: number): number {
  return hzOfErb(FIRST_ERB + (part + 0.5) * PART_STEP) - hzOfErb(FIRST_ERB + (part - 0.5) * PART_STEP)
}
