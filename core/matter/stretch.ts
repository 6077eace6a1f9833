import { holdLevels } from './hold-levels'
import { sizeAt } from './passage'
import type { Passage } from './passage'
import { createStft, overlapGain } from './stft'
import type { Stft } from './stft'

/** Samples of a frame at 48 kHz: short enough for knocks, long enough for tones 50 Hz apart. */
const SIZE = 2048
const OVERLAP = 4
/** Bins this far under the strongest of a frame have no phase worth following (a power). */
const FLOOR = 1e-8
/** Slower than this part of its own pace a sound stands still: its frames are then read from around the place. */
const STILL = 0.05
const STRAY_SECONDS = 0.03
/** How far it is, is told every so many frames. */
const TOLD_EVERY = 64

/** What a passage's frames are, one after another. */
interface Frames {
  readonly now: Float64Array[]
  readonly next: Float64Array[]
  /** Power of each bin, over all channels. */
  readonly power: Float64Array
  /** By how much each bin is turned against the source, radians: in this frame and in the one before. */
  turn: Float64Array
  turnBefore: Float64Array
  readonly slope: Float64Array
}

/**
 * A passage with its time moved and its pitch as it was. The phase of a strong bin goes on from the frame before by what it does
 * over as many samples of the source; its neighbours follow it by their own slopes, times the stretch there, so that neither
 * tones nor edges come apart. Then each band is given the level it had. Source: phases along time and frequency as in
 * Z. Prusa and N. Holighaus, Phase vocoder done right, EUSIPCO 2017, from each peak down to its valleys. All is reckoned as
 * turns against the source, so that at its own pace every sample stays as it was; channels are turned alike.
 */
export function stretch(passage: Passage, random: () => number): Float32Array[] {
  const { channels, sampleRateHz, from, to, frames, sourceAt } = passage
  if (isUnmoved(passage)) return channels.map((channel) => channel.slice(from, to))
  const stft = createStft(sizeAt(SIZE, sampleRateHz))
  const { size, bins } = stft
  const hop = size / OVERLAP
  const gain = overlapGain(size, hop)
  const out = channels.map(() => new Float32Array(frames))
  const held = createFrames(channels.length, bins)
  const stray = STRAY_SECONDS * sampleRateHz
  let before = 0
  let count = 0
  for (let centre = -size / 2, isFirst = true; centre < frames + size / 2; centre += hop, isFirst = false) {
    const pace = (sourceAt(centre) - sourceAt(centre - hop)) / hop
    const isStill = centre > 0 && pace < STILL
    const source = Math.round(sourceAt(centre) + (isStill ? stray * (2 * random() - 1) : 0))
    channels.forEach((channel, i) => {
      stft.forward(channel, from + source, held.now[i]!, from, to)
      if (!isFirst) stft.forward(channel, from + before + hop, held.next[i]!, from, to)
    })
    ;[held.turn, held.turnBefore] = [held.turnBefore, held.turn]
    if (isFirst) held.turn.fill(0)
    else if (source === before + hop) held.turn.set(held.turnBefore)
    else turnBins(held, pace > STILL ? 1 / pace - 1 : 0, random)
    turned(held, stft, (spectrum, i) => stft.inverse(spectrum, centre, out[i]!, gain))
    before = source
    if (++count % TOLD_EVERY === 0) passage.told?.(Math.max(0, centre) / (frames + size / 2))
  }
  return holdLevels(passage, out)
}

function createFrames(channels: number, bins: number): Frames {
  const spectra = () => Array.from({ length: channels }, () => new Float64Array(2 * bins))
  const row = () => new Float64Array(bins)
  return { now: spectra(), next: spectra(), power: row(), turn: row(), turnBefore: row(), slope: row() }
}

/** The turns of a frame's bins: peaks go on along time, what lies between them follows along frequency. */
function turnBins(held: Frames, stretched: number, random: () => number): void {
  const { now, power, turn, turnBefore, slope } = held
  const last = power.length - 1
  const floor = powers(held) * FLOOR
  slopes(held, stretched)
  let valley = 0
  for (let peak = 0; peak <= last; peak++) {
    const level = power[peak]!
    if (level <= floor) {
      turn[peak] = 2 * Math.PI * random()
      valley = peak + 1
      continue
    }
    if ((peak > 0 && power[peak - 1]! >= level) || (peak < last && power[peak + 1]! > level)) continue
    turn[peak] = turnBefore[peak]! + alongTime(held.next, now, peak)
    for (let bin = peak - 1; bin >= valley; bin--) turn[bin] = turn[bin + 1]! - slope[bin]!
    let bin = peak + 1
    for (; bin <= last && power[bin]! <= power[bin - 1]! && power[bin]! > floor; bin++) turn[bin] = turn[bin - 1]! + slope[bin - 1]!
    valley = bin
    peak = bin - 1
  }
}

/** Fills in the power of each bin; returns the most. */
function powers({ now, power }: Frames): number {
  let most = 0
  for (let bin = 0; bin < power.length; bin++) {
    let sum = 0
    for (const one of now) sum += one[2 * bin]! * one[2 * bin]! + one[2 * bin + 1]! * one[2 * bin + 1]!
    power[bin] = sum
    if (sum > most) most = sum
  }
  return most
}

/** How much more each bin's upper neighbour is to be turned than it: what is off the frame's middle goes off it by the stretch. */
function slopes({ now, slope }: Frames, stretched: number): void {
  for (let bin = 0; bin + 1 < slope.length; bin++) {
    let re = 0
    let im = 0
    for (const one of now) {
      re += one[2 * bin + 2]! * one[2 * bin]! + one[2 * bin + 3]! * one[2 * bin + 1]!
      im += one[2 * bin + 3]! * one[2 * bin]! - one[2 * bin + 2]! * one[2 * bin + 1]!
    }
    slope[bin] = stretched * Math.atan2(im, re)
  }
}

/** What a bin does over one hop of the source, against where it stands now. */
function alongTime(next: readonly Float64Array[], now: readonly Float64Array[], bin: number): number {
  let re = 0
  let im = 0
  for (let i = 0; i < now.length; i++) {
    const a = next[i]!
    const b = now[i]!
    re += a[2 * bin]! * b[2 * bin]! + a[2 * bin + 1]! * b[2 * bin + 1]!
    im += a[2 * bin + 1]! * b[2 * bin]! - a[2 * bin]! * b[2 * bin + 1]!
  }
  return Math.atan2(im, re)
}

/** Turns the bins of each channel where they stand, and hands them on. */
function turned({ now, turn }: Frames, { bins }: Stft, then: (spectrum: Float64Array, channel: number) => void): void {
  for (let bin = 0; bin < bins; bin++) {
    const cos = Math.cos(turn[bin]!)
    const sin = Math.sin(turn[bin]!)
    for (const one of now) {
      const re = one[2 * bin]!
      const im = one[2 * bin + 1]!
      one[2 * bin] = re * cos - im * sin
      one[2 * bin + 1] = re * sin + im * cos
    }
  }
  now.forEach(then)
}

const isUnmoved = ({ from, to, frames, sourceAt }: Passage): boolean =>
  frames === to - from && [0.25, 0.5, 0.75, 1].every((share) => Math.abs(sourceAt(share * frames) - share * frames) < 0.5)
