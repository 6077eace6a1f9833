import { sizeAt } from './passage'
import { createStft, overlapGain } from './stft'

export interface PartingSettings {
  /** What lies below counts as ringing, Hz, 0 to 20,000; above, what is steady does. */
  readonly divideHz: number
  /** How long a tone must stay to count as ringing, s, 0.01 to 0.5. */
  readonly steadySeconds: number
}

export interface Parted {
  readonly ringing: Float32Array[]
  readonly noise: Float32Array[]
}

const SIZE = 2048
const OVERLAP = 4
/** What noise is like at a place is told by its neighbours so far up and down, Hz. */
const AROUND_HZ = 2000
/** The middle one of many powers of noise lies this far under their mean. */
const MEDIAN_SHARE = Math.LN2
/** How far it is, is told every so many frames. */
const TOLD_EVERY = 64
/** Below the divide and above it share goes over within this ratio. */
const OVER = 1.25

/** Power counts as a tone's from so many times what noise has around it. */
const OVER_NOISE = 4
/** Noise is told at every so many bins. */
const NOISE_STEP = 8

/** The median of `count` values, of which the order is not kept. */
function medianOf(values: Float64Array, count: number): number {
  let low = 0
  let high = count - 1
  const middle = count >> 1
  while (low < high) {
    const pivot = values[(low + high) >> 1]!
    let i = low
    let j = high
    while (i <= j) {
      while (values[i]! < pivot) i++
      while (values[j]! > pivot) j--
      if (i <= j) {
        const kept = values[i]!
        values[i++] = values[j]!
        values[j--] = kept
      }
    }
    if (middle <= j) high = j
    else if (middle >= i) low = i
    else break
  }
  return values[middle]!
}

/**
 * A sound divided into its ringing and its noise, which sum up to it. In each place of its spectrum the ringing has the share
 * that the best linear filter gives it: power that stays for as long as asked, ahead or behind, over what neighbours in
 * frequency have in the middle, which is noise. Both lengths are the source's.
 */
export function partSound(
  channels: readonly Float32Array[],
  sampleRateHz: number,
  settings: PartingSettings,
  told: (share: number) => void = () => undefined,
): Parted {
  const stft = createStft(sizeAt(SIZE, sampleRateHz))
  const { bins, size } = stft
  const hop = size / OVERLAP
  const length = channels[0]?.length ?? 0
  const count = Math.ceil((length + size) / hop) + 1
  const centreOf = (frame: number) => frame * hop - size / 2
  const powers = Array.from({ length: count }, () => new Float32Array(bins))
  const spectrum = new Float64Array(2 * bins)
  for (let frame = 0; frame < count; frame++)
    for (const channel of channels) {
      stft.forward(channel, centreOf(frame), spectrum)
      const row = powers[frame]!
      for (let bin = 0; bin < bins; bin++) row[bin]! += spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2
    }
  const hz = sampleRateHz / size
  const reach = Math.max(2, Math.round(AROUND_HZ / 2 / hz))
  const steady = Math.max(1, Math.round((settings.steadySeconds * sampleRateHz) / hop))
  const ringing = channels.map(() => new Float32Array(length))
  const noise = new Float32Array(bins)
  const values = new Float64Array(Math.max(2 * reach, steady) + 2)
  const masks = powers.map((row, frame) => {
    if (frame % TOLD_EVERY === 0) told(frame / count)
    const mask = new Float32Array(bins)
    for (let bin = 0; bin < bins; bin += NOISE_STEP) {
      let n = 0
      for (let near = Math.max(0, bin - reach); near <= Math.min(bins - 1, bin + reach); near++) values[n++] = row[near]!
      const level = medianOf(values, n) / MEDIAN_SHARE
      const before = bin === 0 ? level : noise[bin - NOISE_STEP]!
      for (let back = Math.min(bin, NOISE_STEP - 1); back >= 0; back--) noise[bin - back] = level + ((before - level) * back) / NOISE_STEP
    }
    for (let bin = 0; bin < bins; bin++) {
      let n = 0
      for (let other = frame; other <= Math.min(count - 1, frame + steady); other++) values[n++] = powers[other]![bin]!
      const ahead = n > 1 ? medianOf(values, n) : 0
      n = 0
      for (let other = frame; other >= Math.max(0, frame - steady); other--) values[n++] = powers[other]![bin]!
      const behind = n > 1 ? medianOf(values, n) : 0
      const held = Math.max(ahead, behind)
      const tone = Math.max(0, held - OVER_NOISE * noise[bin]!)
      const own = tone > 0 ? tone / (tone + noise[bin]!) : 0
      const below =
        settings.divideHz <= 0 ? 0 : Math.min(1, Math.max(0, 0.5 - Math.log((bin * hz + 1e-3) / settings.divideHz) / (2 * Math.log(OVER))))
      mask[bin] = below + (1 - below) * own
    }
    return mask
  })
  channels.forEach((channel, i) => {
    for (let frame = 0; frame < count; frame++) {
      stft.forward(channel, centreOf(frame), spectrum)
      const mask = masks[frame]!
      for (let bin = 0; bin < bins; bin++) {
        spectrum[2 * bin]! *= mask[bin]!
        spectrum[2 * bin + 1]! *= mask[bin]!
      }
      stft.inverse(spectrum, centreOf(frame), ringing[i]!, overlapGain(size, hop))
    }
  })
  return { ringing, noise: channels.map((channel, i) => channel.map((sample, frame) => sample - ringing[i]![frame]!)) }
}
