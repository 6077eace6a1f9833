import { sizeAt } from './passage'
import type { Passage } from './passage'
import { createStft, overlapGain } from './stft'

/** Samples of a frame at 48 kHz. */
const SIZE = 1024
const OVERLAP = 4
/** Bands a quarter of an octave wide or three bins, whichever is more. */
const BAND_RATIO = 2 ** (1 / 4)
const LEAST_BINS = 3
const MOST_GAIN = 4

/** First bins of bands, and the end of the last. */
function bandsOf(bins: number): number[] {
  const edges = [0]
  for (let edge = 0; edge < bins;) {
    edge = Math.min(bins, Math.max(edge + LEAST_BINS, Math.round(edge * BAND_RATIO)))
    edges.push(edge)
  }
  return edges
}

/**
 * Gives each band of `out` the level, moment by moment, that it has in the source at that moment: where phases of neighbours
 * do not meet (in noise, far stretched), sums are lower than what was meant.
 */
export function holdLevels(passage: Passage, out: Float32Array[]): Float32Array[] {
  const { channels, sampleRateHz, from, to, frames, sourceAt } = passage
  const stft = createStft(sizeAt(SIZE, sampleRateHz))
  const { size } = stft
  const edges = bandsOf(stft.bins)
  const hop = size / OVERLAP
  const gain = overlapGain(size, hop)
  const held = out.map(() => new Float32Array(frames))
  const spectrum = new Float64Array(2 * stft.bins)
  const energies = (into: Float64Array) => {
    for (let band = 0; band + 1 < edges.length; band++) {
      let sum = 0
      for (let bin = edges[band]!; bin < edges[band + 1]!; bin++) sum += spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2
      into[band]! += sum
    }
  }
  const wanted = new Float64Array(edges.length - 1)
  const there = new Float64Array(edges.length - 1)
  const gains = new Float64Array(edges.length - 1)
  for (let centre = 0; centre < frames + size / 2; centre += hop) {
    wanted.fill(0)
    there.fill(0)
    for (const channel of channels) {
      stft.forward(channel, from + sourceAt(centre), spectrum, from, to)
      energies(wanted)
    }
    for (const channel of out) {
      stft.forward(channel, centre, spectrum)
      energies(there)
    }
    for (let band = 0; band < gains.length; band++)
      gains[band] = Math.min(MOST_GAIN, Math.max(1 / MOST_GAIN, Math.sqrt((wanted[band]! + 1e-12) / (there[band]! + 1e-12))))
    out.forEach((channel, i) => {
      if (out.length > 1) stft.forward(channel, centre, spectrum)
      for (let band = 0; band < gains.length; band++)
        for (let bin = edges[band]!; bin < edges[band + 1]!; bin++) {
          spectrum[2 * bin]! *= gains[band]!
          spectrum[2 * bin + 1]! *= gains[band]!
        }
      stft.inverse(spectrum, centre, held[i]!, gain)
    })
  }
  return held
}
