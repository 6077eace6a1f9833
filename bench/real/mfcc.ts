import { magnitudes } from '@heliaster/core/cut'

const SIZE = 1024
const BANDS = 40
const COEFFICIENTS = 13

/**
 * Means of mel-frequency cepstral coefficients 1 to 12 over a sound (S. Davis and P. Mermelstein 1980), level left out:
 * what is usually compared.
 */
export function mfccMeans(samples: Float32Array, sampleRateHz: number): number[] {
  const toMel = (hz: number) => 2595 * Math.log10(1 + hz / 700)
  const edges = Array.from({ length: BANDS + 2 }, (_, i) => {
    const mel = toMel(20) + ((toMel(Math.min(20_000, sampleRateHz / 2)) - toMel(20)) * i) / (BANDS + 1)
    return (700 * (10 ** (mel / 2595) - 1) * SIZE) / sampleRateHz
  })
  const sums = new Float64Array(COEFFICIENTS)
  let count = 0
  for (let at = 0; count === 0 || at < samples.length; at += SIZE / 2, count++) {
    const bins = magnitudes(samples, at, SIZE)
    const logs = Array.from({ length: BANDS }, (_, band) => Math.log(energyIn(bins, edges, band) + 1e-10))
    for (let c = 1; c < COEFFICIENTS; c++)
      logs.forEach((value, band) => (sums[c] += value * Math.cos((Math.PI * c * (band + 0.5)) / BANDS)))
  }
  return Array.from(sums.subarray(1), (sum) => sum / count)
}

function energyIn(bins: Float64Array, edges: readonly number[], band: number): number {
  const [low, middle, high] = [edges[band], edges[band + 1], edges[band + 2]]
  let sum = 0
  for (let bin = Math.ceil(low); bin <= Math.min(bins.length - 1, high); bin++)
    sum += bins[bin] ** 2 * Math.max(0, bin <= middle ? (bin - low) / (middle - low) : (high - bin) / (high - middle))
  return sum
}
