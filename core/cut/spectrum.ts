import FFT from 'fft.js'

interface Bench {
  readonly fft: FFT
  readonly input: Float64Array
  readonly out: Float64Array
}

const benches = new Map<number, Bench>()

/** An FFT with memory of its own, used again: hits are many. */
function benchOf(size: number): Bench {
  const made = benches.get(size) ?? { fft: new FFT(size), input: new Float64Array(size), out: new Float64Array(2 * size) }
  benches.set(size, made)
  return made
}

/** Magnitudes of `length` samples from `from` on, under a Hann window, padded with zeros to `size`, a power of two. */
export function magnitudes(samples: Float32Array, from: number, size: number, length = size): Float64Array {
  const { fft, input, out } = benchOf(size)
  input.fill(0)
  const end = Math.min(length, samples.length - from)
  // The window's cosine goes round by turning on, sample by sample.
  const [turnRe, turnIm] = [Math.cos((2 * Math.PI) / length), Math.sin((2 * Math.PI) / length)]
  let re = 1
  let im = 0
  for (let i = 0; i < end; i++) {
    input[i] = samples[from + i] * (0.5 - 0.5 * re)
    const next = re * turnRe - im * turnIm
    im = re * turnIm + im * turnRe
    re = next
  }
  fft.realTransform(out as unknown as number[], input as unknown as number[])
  const result = new Float64Array(size / 2)
  for (let bin = 0; bin < result.length; bin++) result[bin] = Math.sqrt(out[2 * bin] * out[2 * bin] + out[2 * bin + 1] * out[2 * bin + 1])
  return result
}

/** Spectral centre in Hz of the first 2048 frames: where the energy balances. */
export function spectralCentreHz(samples: Float32Array, sampleRateHz: number): number {
  const size = 2048
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
