import { createStft, overlapGain } from '../../core/matter/stft'

/** Powers of a sound's frames, and the sound with a share of each place of its spectrum. */
function framesOf(samples: Float32Array, size: number) {
  const stft = createStft(size)
  const hop = size / 4
  const count = Math.ceil((samples.length + size) / hop) + 1
  const spectra = Array.from({ length: count }, (_, frame) => {
    const spectrum = new Float64Array(2 * stft.bins)
    stft.forward(samples, frame * hop - size / 2, spectrum)
    return spectrum
  })
  const powers = spectra.map((one) => Float64Array.from({ length: stft.bins }, (_, bin) => Math.hypot(one[2 * bin]!, one[2 * bin + 1]!)))
  const masked = (mask: (frame: number, bin: number) => number) => {
    const out = new Float32Array(samples.length)
    spectra.forEach((one, frame) =>
      stft.inverse(
        one.map((value, i) => value * mask(frame, i >> 1)),
        frame * hop - size / 2,
        out,
        overlapGain(size, hop),
      ),
    )
    return out
  }
  return { powers, masked, bins: stft.bins, count, hop }
}

const medianOf = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!

/** Medians along time and along frequency, of so many frames and bins. */
function medians(powers: readonly Float64Array[], along: number, across: number) {
  const [half, halfAcross] = [along >> 1, across >> 1]
  const steady = powers.map((row, frame) => row.map((_, bin) => {
    const values: number[] = []
    for (let other = frame - half; other <= frame + half; other++) values.push(powers[other]?.[bin] ?? 0)
    return medianOf(values)
  })) // prettier-ignore
  const struck = powers.map((row) => row.map((_, bin) => {
    const values: number[] = []
    for (let other = bin - halfAcross; other <= bin + halfAcross; other++) values.push(row[other] ?? 0)
    return medianOf(values)
  })) // prettier-ignore
  return { steady, struck }
}

export type Peer = (samples: Float32Array) => Float32Array

/** Soft masks from medians of magnitudes. Source: D. FitzGerald, Harmonic/percussive separation using median filtering, 2010. */
export const byMedians =
  (size: number, along: number, across: number): Peer =>
  (samples) => {
    const { powers, masked } = framesOf(samples, size)
    const { steady, struck } = medians(powers, along, across)
    return masked((frame, bin) => {
      const [a, b] = [steady[frame]![bin]! ** 2, struck[frame]![bin]! ** 2]
      return a + b > 0 ? a / (a + b) : 0
    })
  }

/**
 * What is tonal by a factor, the rest taken apart once more in short frames, of which the tonal share is given back.
 * Source: J. Driedger, M. Mueller and S. Disch, Extending harmonic-percussive separation of audio signals, 2014.
 */
export const byTurns =
  (size: number, along: number, across: number, factor: number): Peer =>
  (samples) => {
    const { powers, masked } = framesOf(samples, size)
    const { steady, struck } = medians(powers, along, across)
    return masked((frame, bin) => (steady[frame]![bin]! / (struck[frame]![bin]! + 1e-12) > factor ? 1 : 0))
  }

/**
 * Fuzzy belonging from medians, tones between two thresholds. Source: L. Fierro and V. Valimaki, SiTraNo / Towards objective
 * evaluation of audio time-scale modification methods and fuzzy separation, 2022.
 */
export const byFuzzy =
  (size: number, along: number, across: number, low: number, high: number): Peer =>
  (samples) => {
    const { powers, masked } = framesOf(samples, size)
    const { steady, struck } = medians(powers, along, across)
    return masked((frame, bin) => {
      const share = steady[frame]![bin]! / (steady[frame]![bin]! + struck[frame]![bin]! + 1e-12)
      return share >= high ? 1 : share <= low ? 0 : Math.sin(((Math.PI / 2) * (share - low)) / (high - low)) ** 2
    })
  }
