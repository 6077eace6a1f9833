import { sizeAt } from './passage'
import type { Passage } from './passage'
import { normalDraw } from './random'
import { createStft, overlapGain } from './stft'

/** Samples of a frame at 48 kHz. */
const SIZE = 1024
const OVERLAP = 4
/** Power is the mean of so many frames and of as many bins to each side as a share of the frequency, two at least. */
const FRAMES_AROUND = 1
const BINS_SHARE = 0.06
const LEAST_BINS = 2

/**
 * A passage made anew of fresh noise that has its spectrum, moment by moment: as long as wanted, and never twice alike (by
 * `random`). Source: noise morphing as in E. Moliner, L. Fierro, A. Wright, M. Hamalainen and V. Valimaki, Noise morphing for
 * audio time stretching, 2024: levels of the source, phases of white noise.
 */
export function noiseAnew(passage: Passage, random: () => number): Float32Array[] {
  const { channels, sampleRateHz, from, to, frames, sourceAt } = passage
  const stft = createStft(sizeAt(SIZE, sampleRateHz))
  const { size, bins } = stft
  const hop = size / OVERLAP
  const gain = overlapGain(size, hop)
  const white = Float32Array.from({ length: frames + 2 * size }, () => normalDraw(random))
  const share = channels.length > 1 ? alike(channels[0]!, channels[1]!, from, to) : 1
  const spectrum = new Float64Array(2 * bins)
  return channels.map((channel, i) => {
    const levels = levelsOf(channel, passage, stft)
    const own = i === 0 ? white : white.map((sample) => share * sample + Math.sqrt(1 - share * share) * normalDraw(random))
    const out = new Float32Array(frames)
    for (let centre = 0; centre < frames + size / 2; centre += hop) {
      stft.forward(own, size + centre, spectrum)
      const place = Math.max(0, sourceAt(centre) / hop)
      const below = Math.min(levels.length - 1, Math.floor(place))
      const [a, b] = [levels[below]!, levels[Math.min(levels.length - 1, below + 1)]!]
      const way = Math.min(1, place - below)
      for (let bin = 0; bin < bins; bin++) {
        const level = Math.sqrt((a[bin]! + (b[bin]! - a[bin]!) * way) / (0.375 * size))
        spectrum[2 * bin]! *= level
        spectrum[2 * bin + 1]! *= level
      }
      stft.inverse(spectrum, centre, out, gain)
    }
    return out
  })
}

/** Smoothed powers of a channel, one row each quarter of a frame. */
function levelsOf(channel: Float32Array, { from, to }: Passage, stft: ReturnType<typeof createStft>): Float64Array[] {
  const { size, bins } = stft
  const hop = size / OVERLAP
  const spectrum = new Float64Array(2 * bins)
  const rows = Array.from({ length: Math.ceil((to - from) / hop) + 1 }, (_, row) => {
    stft.forward(channel, from + row * hop, spectrum, from, to)
    const sums = new Float64Array(bins + 1)
    for (let bin = 0; bin < bins; bin++) sums[bin + 1] = sums[bin]! + spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2
    return Float64Array.from({ length: bins }, (_bin, bin) => {
      const around = Math.max(LEAST_BINS, Math.round(bin * BINS_SHARE))
      const [low, high] = [Math.max(0, bin - around), Math.min(bins, bin + around + 1)]
      // A frame at the edge sees less than a whole one.
      return (sums[high]! - sums[low]!) / (high - low)
    })
  })
  return rows.map((_, row) => {
    const near = rows.slice(Math.max(0, row - FRAMES_AROUND), row + FRAMES_AROUND + 1)
    return Float64Array.from({ length: bins }, (_bin, bin) => near.reduce((sum, one) => sum + one[bin]!, 0) / near.length)
  })
}

/** How alike two channels are, 0..1. */
function alike(left: Float32Array, right: Float32Array, from: number, to: number): number {
  let [both, lefts, rights] = [0, 1e-20, 1e-20]
  for (let i = from; i < to; i++) {
    both += left[i]! * right[i]!
    lefts += left[i]! ** 2
    rights += right[i]! ** 2
  }
  return Math.min(1, Math.max(0, both / Math.sqrt(lefts * rights)))
}
