import { magnitudes } from './spectrum'

/** From the deepest that is heard to the highest, Hz. */
export const SPECTRUM_HZ = [20, 20000] as const
const HALF = 8192

/** The frequency of a band's middle, Hz, of `count` bands that are equally wide to the ear. */
export function bandHz(band: number, count: number): number {
  return SPECTRUM_HZ[0] * (SPECTRUM_HZ[1] / SPECTRUM_HZ[0]) ** ((band + 0.5) / count)
}

/**
 * What a strike is made of: the strongest part in each of `count` bands from 20 Hz to 20 kHz, dB, a sine of full scale at 0.
 * Its first 170 ms at 48 kHz count, the beginning most: it lies at the top of a Hann window. -Infinity for silence.
 */
export function hitSpectrumDb(samples: Float32Array, sampleRateHz: number, count: number): Float32Array {
  const placed = new Float32Array(2 * HALF)
  placed.set(samples.subarray(0, HALF), HALF)
  const bins = magnitudes(placed, 0, 2 * HALF)
  const perHz = (2 * HALF) / sampleRateHz
  const edge = (band: number) => SPECTRUM_HZ[0] * (SPECTRUM_HZ[1] / SPECTRUM_HZ[0]) ** (band / count) * perHz
  return Float32Array.from({ length: count }, (_, band) => {
    const [from, to] = [edge(band), edge(band + 1)]
    let most = 0
    for (let bin = Math.ceil(from); bin < to && bin < bins.length; bin++) most = Math.max(most, bins[bin]!)
    // Where bands are narrower than bins, what lies between two of them is read off their line.
    const middle = Math.min(bins.length - 2, (from + to) / 2)
    const below = Math.floor(middle)
    const between = bins[below]! + (bins[below + 1]! - bins[below]!) * (middle - below)
    return 20 * Math.log10(Math.max(most, between) / (HALF / 4))
  })
}
