import { passSection } from '../audio/biquad'
import type { Biquad } from '../audio/biquad'

/** Mean energy per hop of one frequency band. */
export type BandEnergy = Float32Array

/** Bands an octave and a half wide or more; rings of low modes hardly reach into the high ones. */
export const BAND_EDGES_HZ = [40, 160, 500, 1500, 4500, 9000] as const
/** A band is looked at on a signal whose rate is at least this many times its upper edge. */
const OVERSAMPLING = 2.5
/** A band that begins above this share of the rate cannot be told apart. */
const HIGHEST_SHARE = 0.42

/** The energies of each band of `BAND_EDGES_HZ` that the sample rate can hold, in hops of `hopFrames`. */
export function bandEnergies(mono: Float32Array, sampleRateHz: number, hopFrames: number): BandEnergy[] {
  const hops = Math.floor(mono.length / hopFrames)
  const energies: BandEnergy[] = []
  let samples = mono
  let rate = sampleRateHz
  for (let band = BAND_EDGES_HZ.length - 1; band >= 0; band--) {
    const lowHz = BAND_EDGES_HZ[band]
    if (lowHz > sampleRateHz * HIGHEST_SHARE) continue
    const highHz: number | undefined = BAND_EDGES_HZ[band + 1]
    while (highHz !== undefined && rate >= 2 * OVERSAMPLING * highHz) {
      samples = halved(samples)
      rate /= 2
    }
    energies.unshift(highEnergy(samples, passSection('high', lowHz, rate), (hopFrames * rate) / sampleRateHz, hops))
  }
  return energies
}

/** Every second sample of the means of neighbours' means, which has a zero where the fold lies. */
function halved(samples: Float32Array): Float32Array {
  const out = new Float32Array(samples.length >> 1)
  let before = 0
  for (let i = 0, at = 0; i < out.length; i++, at += 2) {
    const here = samples[at]
    const next = samples[at + 1]
    out[i] = 0.25 * (before + 2 * here + next)
    before = next
  }
  return out
}

/** Keeps what rings out in a filter from becoming numbers so small that processors grow slow. */
const HUSH = 1e-18

/** Mean square, hop by hop, of what a high pass leaves; what is above the band has gone with the rate. */
function highEnergy(samples: Float32Array, { b0, b1, b2, a1, a2 }: Biquad, hopSamples: number, hops: number): BandEnergy {
  const energy = new Float32Array(hops)
  let y1 = 0
  let y2 = 0
  for (let hop = 0, i = 0; hop < hops; hop++) {
    const from = i
    const end = Math.min(samples.length, Math.round((hop + 1) * hopSamples))
    let sum = 0
    for (; i < end; i++) {
      const x = samples[i] + HUSH
      const y = b0 * x + y1
      y1 = b1 * x - a1 * y + y2
      y2 = b2 * x - a2 * y
      sum += y * y
    }
    energy[hop] = end > from ? sum / (end - from) : (energy[hop - 1] ?? 0)
  }
  return energy
}
