import { crossSpectrum, spectraOf } from './spectra'

/** How far the spectra are flattened: 1 hears phases alone, 0 is plain correlation, which the lowest tones decide. */
const WHITENING = 0.8
/** Bins that lie so far under the strongest hold nothing of the strike, dB. */
const RANGE_DB = 66

/**
 * How sure it is that two sounds are one strike, heard by two microphones: 0..1, the highest place of their partly
 * whitened cross-correlation over the first quarter of a second, within 40 ms (the phase transform of C. Knapp and
 * G. Carter, "The generalized correlation method for estimation of time delay", 1976, with an exponent). What two strikes of
 * one thing share, its tones, counts little; what only one strike has, the noise of the contact, decides. Undefined where
 * one is silent.
 */
export function strikeLikeness(one: Float32Array, other: Float32Array, sampleRateHz: number): number | undefined {
  const spectra = spectraOf(one, other, sampleRateHz)
  const { fft, size, mostFrames } = spectra
  const crossed = crossSpectrum(spectra)
  const sizes = Float64Array.from({ length: size }, (_, bin) => Math.hypot(crossed[2 * bin], crossed[2 * bin + 1]))
  const strongest = sizes.reduce((most, one) => Math.max(most, one), 0)
  if (strongest < 1e-12) return undefined
  const least = strongest * 10 ** (-RANGE_DB / 10)
  let all = 0
  for (let bin = 0; bin < size; bin++) {
    const weight = sizes[bin] > least ? sizes[bin] ** -WHITENING : 0
    crossed[2 * bin] *= weight
    crossed[2 * bin + 1] *= weight
    all += weight * sizes[bin]
  }
  const back = fft.createComplexArray()
  fft.inverseTransform(back, crossed)
  let highest = 0
  for (let lag = -mostFrames; lag <= mostFrames; lag++) highest = Math.max(highest, Math.abs(back[2 * (lag < 0 ? size + lag : lag)]))
  return Math.min(1, (highest * size) / all)
}
