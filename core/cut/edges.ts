import type { BandEnergy } from './bands'
import { noiseFloor, quantile } from './strength'

const LEAD_SECONDS = 0.0009

/** A clip begins 0.9 ms before its strike, so that its fade-in touches nothing of it. */
export function startFrameOf(onsetFrame: number, sampleRateHz: number): number {
  return Math.max(0, onsetFrame - Math.round(LEAD_SECONDS * sampleRateHz))
}

/** Tails of a recording, band by band in blocks: from which blocks on something still stands out of the room. */
export interface TailCurve {
  readonly blockFrames: number
  /** Energy of all bands in each block. */
  readonly energy: Float64Array
  /** 1 where the next 40 ms of some band stand out of its own noise. */
  readonly sounds: Uint8Array
  /** Energy of each band in each block. */
  readonly bands: readonly Float64Array[]
}

const BLOCK_HOPS = 8
const LOOK_BLOCKS = 4
/** For each band, how far above its noise floor it must stand at most to be heard as sound: low bands are restless by themselves. */
const STANDS_OUT = [3.4, 2.3, 1.8, 1.6, 1.5, 1.5]
/** What hardly moves, as hum, is stood out of by little. */
const STEADY = 1.3
const SHORTEST_SECONDS = 0.04
/** Some of the room is left after what can be told from it, more after a long tail: the last of it lies under the noise. */
const TRAIL_SHARE = 0.2
const TRAIL_SECONDS = [0.045, 0.12] as const
const DOWN = 1e-6

function standsOut(means: Float64Array, most: number): number {
  const unrest = quantile(means, 0.3) / Math.max(1e-15, quantile(means, 0.1))
  return Math.min(most, Math.max(STEADY, 1.1 * unrest ** 3))
}

export function tailCurve(bands: readonly BandEnergy[], hopFrames: number): TailCurve {
  const blocks = Math.floor((bands[0]?.length ?? 0) / BLOCK_HOPS)
  const energy = new Float64Array(blocks)
  const sounds = new Uint8Array(blocks)
  const means = bands.map(() => new Float64Array(blocks))
  for (const [band, hops] of bands.entries()) {
    const own = means[band]
    for (let block = 0; block < blocks; block++) {
      for (let hop = block * BLOCK_HOPS; hop < (block + 1) * BLOCK_HOPS; hop++) own[block] += hops[hop]
      own[block] /= BLOCK_HOPS
      energy[block] += own[block]
    }
    const looks = lookedAhead(own)
    const line = noiseFloor(looks) * standsOut(looks, STANDS_OUT[band]) + 1e-12
    for (let block = 0; block < blocks; block++) if (looks[block] > line) sounds[block] = 1
  }
  return { blockFrames: hopFrames * BLOCK_HOPS, energy, sounds, bands: means }
}

/** For each block the mean of it and the next few. */
function lookedAhead(values: Float64Array): Float64Array {
  const out = new Float64Array(values.length)
  for (let i = 0; i < values.length; i++) {
    const count = Math.min(LOOK_BLOCKS, values.length - i)
    out[i] = sumOf(values, i, count) / count
  }
  return out
}

/**
 * Where a hit that begins at `onsetFrame` has died away: no band stands out of the room for 40 ms, or all are 60 dB
 * under its loudest block; never beyond `limitFrame`, where the next hit begins.
 */
export function endFrameOf(curve: TailCurve, onsetFrame: number, limitFrame: number, sampleRateHz: number): number {
  const { blockFrames, energy, sounds } = curve
  const first = Math.floor(onsetFrame / blockFrames)
  const last = Math.min(energy.length, Math.ceil(limitFrame / blockFrames))
  const shortest = Math.ceil((SHORTEST_SECONDS * sampleRateHz) / blockFrames)
  let loudest = 0
  let falls = false
  for (let block = first; block < last; block++) {
    if (energy[block] > loudest) loudest = energy[block]
    const isQuiet = sounds[block] === 0 || sumOf(energy, block, Math.min(LOOK_BLOCKS, last - block)) < LOOK_BLOCKS * loudest * DOWN
    if (!isQuiet || block - first < shortest) continue
    falls = fallsOn(curve, block, last, falls)
    if (falls) continue
    const trailSeconds = Math.max(
      TRAIL_SECONDS[0],
      Math.min(TRAIL_SECONDS[1], (TRAIL_SHARE * (block - first) * blockFrames) / sampleRateHz),
    )
    return Math.min(limitFrame, block * blockFrames + Math.round(trailSeconds * sampleRateHz))
  }
  return limitFrame
}

const FALL_BLOCKS = 8
const FEWEST_FALL_BLOCKS = 2
const FALL_OVER_BLOCKS = 24
/** What falls this near to the next hit falls until it. */
const NEAR_BLOCKS = 12
/** So much less energy, a quarter of a second later, is no noise of a room: for each band, as its noise goes up and down. */
const FALL = [3.5, 2.5, 1.7, 1.6, 1.6, 1.6]
/** Less is enough where it fell before. */
const STILL_FALLING = [2, 1.6, 1.35, 1.3, 1.3, 1.3]

/**
 * Whether some band goes on falling after a block, as where everything rings into everything and the room is never heard
 * alone; looked at up to the end of what belongs to the hit.
 */
function fallsOn({ bands }: TailCurve, block: number, last: number, fell: boolean): boolean {
  const left = last - 1 - block
  if (fell && left < NEAR_BLOCKS) return true
  const count = Math.min(FALL_BLOCKS, left >> 1)
  if (count < FEWEST_FALL_BLOCKS) return false
  const later = Math.min(block + FALL_OVER_BLOCKS, last - 1) - count
  const fall = fell ? STILL_FALLING : FALL
  return bands.some((band, i) => sumOf(band, block, count) > fall[i] * sumOf(band, later, count) + 1e-11)
}

function sumOf(values: Float64Array, from: number, count: number): number {
  let sum = 0
  for (let i = from; i < from + count; i++) sum += values[i]
  return sum
}
