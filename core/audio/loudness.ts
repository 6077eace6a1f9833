import type { Biquad } from './biquad'

/**
 * K-weighted loudness after ITU-R BS.1770: a high shelf, a high pass, mean square, -0.691 dB. The coefficients of the
 * recommendation hold for 48 kHz; for other rates both filters are designed again from their analogue parameters.
 */

function shelf(sampleRateHz: number): Biquad {
  const k = Math.tan((Math.PI * 1681.974450955533) / sampleRateHz)
  const q = 0.7071752369554196
  const vh = 10 ** (3.999843853973347 / 20)
  const vb = vh ** 0.4996667741545416
  const a0 = 1 + k / q + k * k
  return {
    b0: (vh + (vb * k) / q + k * k) / a0,
    b1: (2 * (k * k - vh)) / a0,
    b2: (vh - (vb * k) / q + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / q + k * k) / a0,
  }
}

function highPass(sampleRateHz: number): Biquad {
  const k = Math.tan((Math.PI * 38.13547087602444) / sampleRateHz)
  const q = 0.5003270373238773
  const a0 = 1 + k / q + k * k
  return { b0: 1, b1: -2, b2: 1, a1: (2 * (k * k - 1)) / a0, a2: (1 - k / q + k * k) / a0 }
}

/** Both filters of the weighting, in their order. */
export function kWeighting(sampleRateHz: number): readonly [Biquad, Biquad] {
  return [shelf(sampleRateHz), highPass(sampleRateHz)]
}

/** Adds the squares of a channel after both filters, sample by sample. */
function addWeightedSquares(squares: Float64Array, samples: Float32Array, first: Biquad, second: Biquad): void {
  const { b0, b1, b2, a1, a2 } = first
  const { b0: c0, b1: c1, b2: c2, a1: d1, a2: d2 } = second
  let y1 = 0
  let y2 = 0
  let z1 = 0
  let z2 = 0
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i]
    const y = b0 * x + y1
    y1 = b1 * x - a1 * y + y2
    y2 = b2 * x - a2 * y
    const z = c0 * y + z1
    z1 = c1 * y - d1 * z + z2
    z2 = c2 * y - d2 * z
    squares[i] += z * z
  }
}

let scratch = new Float64Array(0)

/** Zeros to add to, in memory that is used again: clips are many and short. */
function scratchOf(frames: number): Float64Array {
  if (frames > MOST_KEPT) return new Float64Array(frames)
  if (scratch.length < frames) scratch = new Float64Array(frames)
  return scratch.fill(0, 0, frames)
}

const MOST_KEPT = 2 ** 19

/** Momentary loudness in LUFS: the loudest 400 ms of the clip, or all of a shorter one followed by silence. */
export function momentaryLoudness(channels: readonly Float32Array[], sampleRateHz: number): number {
  return loudestWindow(channels, sampleRateHz, 0.4)
}

export const STRIKE_WINDOW_SECONDS = 0.1

/**
 * How loud a hit is, in LUFS: its loudest 100 ms, K-weighted, about as long as the ear gathers a strike; a shorter one
 * counts with the silence behind it. How long a hit rings on changes nothing.
 */
export function strikeLoudness(channels: readonly Float32Array[], sampleRateHz: number): number {
  return loudestWindow(channels, sampleRateHz, STRIKE_WINDOW_SECONDS)
}

function loudestWindow(channels: readonly Float32Array[], sampleRateHz: number, seconds: number): number {
  const window = Math.round(seconds * sampleRateHz)
  const frames = channels[0]?.length ?? 0
  const squares = scratchOf(frames)
  for (const channel of channels) addWeightedSquares(squares, channel, shelf(sampleRateHz), highPass(sampleRateHz))
  let sum = 0
  let most = 0
  for (let i = 0; i < frames; i++) {
    sum += squares[i]
    if (i >= window) sum -= squares[i - window]
    if (sum > most) most = sum
  }
  return most > 0 ? -0.691 + 10 * Math.log10(most / window) : -Infinity
}
