import FFT from 'fft.js'

/** So much of two sounds is compared, and so far apart at most they may lie. */
export const COMPARED_SECONDS = 0.25
export const MOST_APART_SECONDS = 0.04

/** The spectra of two sounds, padded so that nothing comes round from the other end within what they may lie apart. */
export interface Spectra {
  readonly fft: FFT
  readonly size: number
  readonly mostFrames: number
  readonly one: readonly number[]
  readonly other: readonly number[]
}

export function spectraOf(one: Float32Array, other: Float32Array, sampleRateHz: number): Spectra {
  const length = Math.round(COMPARED_SECONDS * sampleRateHz)
  const mostFrames = Math.round(MOST_APART_SECONDS * sampleRateHz)
  let size = 1
  while (size < length + mostFrames) size *= 2
  const fft = new FFT(size)
  return {
    fft,
    size,
    mostFrames,
    one: spectrumOf(fft, one.subarray(0, length), size),
    other: spectrumOf(fft, other.subarray(0, length), size),
  }
}

function spectrumOf(fft: FFT, samples: Float32Array, size: number): number[] {
  const padded = new Array<number>(size).fill(0)
  samples.forEach((sample, i) => (padded[i] = sample))
  const out = fft.createComplexArray()
  fft.realTransform(out, padded)
  fft.completeSpectrum(out)
  return out
}

/** One after the other's conjugate, bin by bin: the spectrum of their cross-correlation. */
export function crossSpectrum({ fft, size, one, other }: Spectra): number[] {
  const crossed = fft.createComplexArray()
  for (let at = 0; at < 2 * size; at += 2) {
    crossed[at] = other[at] * one[at] + other[at + 1] * one[at + 1]
    crossed[at + 1] = other[at + 1] * one[at] - other[at] * one[at + 1]
  }
  return crossed
}
