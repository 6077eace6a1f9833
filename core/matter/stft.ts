import FFT from 'fft.js'

/** A short-time spectrum of one size, with memory of its own: whoever works with one works alone. */
export interface Stft {
  /** Samples of a frame, a power of two. */
  readonly size: number
  /** Bins from 0 Hz to half the rate: size / 2 + 1. */
  readonly bins: number
  /** Periodic Hann window; applied before and after. */
  readonly window: Float64Array
  /**
   * The spectrum of the windowed frame whose middle is at `centre` (rounded to a sample), as re, im by turns; phases are those
   * at the middle. Outside of [from, to) there is silence.
   */
  forward(samples: Float32Array, centre: number, into: Float64Array, from?: number, to?: number): void
  /** Adds the windowed frame of a spectrum to `out`, its middle at `centre`, times `gain`; what falls outside is left out. */
  inverse(spectrum: Float64Array, centre: number, out: Float32Array | Float64Array, gain: number): void
}

export function createStft(size: number): Stft {
  const half = size / 2
  // By a complex transform of half the size: even samples are its real parts, odd ones its imaginary parts.
  const fft = new FFT(half)
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
  const cos = Float64Array.from({ length: half }, (_, i) => Math.cos((2 * Math.PI * i) / size))
  const sin = Float64Array.from({ length: half }, (_, i) => Math.sin((2 * Math.PI * i) / size))
  const input = new Float64Array(size) as unknown as number[]
  const output = new Float64Array(size) as unknown as number[]

  return {
    size,
    bins: half + 1,
    window,
    forward(samples, centre, into, from = 0, to = samples.length) {
      const start = Math.round(centre) - half
      const first = Math.max(0, Math.max(0, from) - start)
      const last = Math.min(size, Math.min(samples.length, to) - start)
      input.fill(0)
      for (let i = first; i < last; i++) input[i] = samples[start + i]! * window[i]!
      fft.transform(output, input)
      into[0] = output[0]! + output[1]!
      into[1] = 0
      into[2 * half] = output[0]! - output[1]!
      into[2 * half + 1] = 0
      // Phases at the middle: every other bin is turned by half a turn.
      for (let bin = 1, other = half - 1, sign = -1; bin < half; bin++, other--, sign = -sign) {
        const evenRe = 0.5 * (output[2 * bin]! + output[2 * other]!)
        const evenIm = 0.5 * (output[2 * bin + 1]! - output[2 * other + 1]!)
        const oddRe = 0.5 * (output[2 * bin + 1]! + output[2 * other + 1]!)
        const oddIm = 0.5 * (output[2 * other]! - output[2 * bin]!)
        into[2 * bin] = sign * (evenRe + cos[bin]! * oddRe + sin[bin]! * oddIm)
        into[2 * bin + 1] = sign * (evenIm + cos[bin]! * oddIm - sin[bin]! * oddRe)
      }
    },
    inverse(spectrum, centre, out, gain) {
      const ends = spectrum[2 * half]!
      input[0] = 0.5 * (spectrum[0]! + ends)
      input[1] = 0.5 * (spectrum[0]! - ends)
      const otherSign = half & 1 ? -1 : 1
      for (let bin = 1, other = half - 1, sign = -1; bin < half; bin++, other--, sign = -sign) {
        const re = sign * spectrum[2 * bin]!
        const im = sign * spectrum[2 * bin + 1]!
        const otherRe = otherSign * sign * spectrum[2 * other]!
        const otherIm = -otherSign * sign * spectrum[2 * other + 1]!
        const apartRe = re - otherRe
        const apartIm = im - otherIm
        input[2 * bin] = 0.5 * (re + otherRe - sin[bin]! * apartRe - cos[bin]! * apartIm)
        input[2 * bin + 1] = 0.5 * (im + otherIm + cos[bin]! * apartRe - sin[bin]! * apartIm)
      }
      fft.inverseTransform(output, input)
      const start = Math.round(centre) - half
      const first = Math.max(0, -start)
      const last = Math.min(size, out.length - start)
      for (let i = first; i < last; i++) out[start + i]! += output[i]! * window[i]! * gain
    },
  }
}

/** What the squares of windows sum up to, a quarter (or less) of a frame apart: 1.5 at a quarter. */
export const overlapGain = (size: number, hop: number): number => hop / (0.375 * size)
