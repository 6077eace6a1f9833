import FFT from 'fft.js'

/** Magnitudes of `size` samples from `from` on, under a Hann window; `size` is a power of two. */
export function magnitudes(samples: Float32Array, from: number, size: number): Float64Array {
  const fft = new FFT(size)
  const input = new Array<number>(size).fill(0)
  for (let i = 0; i < size && from + i < samples.length; i++)
    input[i] = samples[from + i] * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
  const out = fft.createComplexArray()
  fft.realTransform(out, input)
  const result = new Float64Array(size / 2)
  for (let bin = 0; bin < size / 2; bin++) result[bin] = Math.hypot(out[2 * bin], out[2 * bin + 1])
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
