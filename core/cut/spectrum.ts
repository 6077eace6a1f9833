import FFT from 'fft.js'

const ffts = new Map<number, FFT>()

/** Magnitudes of `length` samples from `from` on, under a Hann window, padded with zeros to `size`, a power of two. */
export function magnitudes(samples: Float32Array, from: number, size: number, length = size): Float64Array {
  const fft = ffts.get(size) ?? new FFT(size)
  ffts.set(size, fft)
  const input = new Float64Array(size)
  const end = Math.min(length, samples.length - from)
  for (let i = 0; i < end; i++) input[i] = samples[from + i] * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length))
  const out = new Float64Array(2 * size)
  fft.realTransform(out as unknown as number[], input as unknown as number[])
  const result = new Float64Array(size / 2)
  for (let bin = 0; bin < result.length; bin++) result[bin] = Math.sqrt(out[2 * bin] * out[2 * bin] + out[2 * bin + 1] * out[2 * bin + 1])
  return result
}

/** Spectral centre in Hz of the first 85 ms: where the energy balances. */
export function spectralCentreHz(samples: Float32Array, sampleRateHz: number): number {
  const size = 4096
  const bins = magnitudes(samples, 0, size)
  let weighted = 0
  let total = 0
  for (let bin = 1; bin < bins.length; bin++) {
    const power = bins[bin] * bins[bin]
    weighted += power * bin
    total += power
  }
  return total > 0 ? ((weighted / total) * sampleRateHz) / size : 0
}
