import type { BandEnergy } from './bands'
import { noiseFloor, quantile } from './strength'

/** Fades that every cut gets, so that no clip clicks. */
export const EDGE_FADE_IN_SECONDS = 0.0005
export const EDGE_FADE_OUT_SECONDS = 0.005
const LEAD_SECONDS = 0.0005

/** A clip begins half a millisecond before its strike, where its fade-in ends. */
export function startFrameOf(onsetFrame: number, sampleRateHz: number): number {
  return Math.max(0, onsetFrame - Math.round(LEAD_SECONDS * sampleRateHz))
}

/** Tails of a recording, band by band in blocks: which blocks still stand out of the room. */
export interface TailCurve {
  readonly blockFrames: number
  /** Energy of all bands in each block. */
  readonly energy: Float64Array
  /** 1 where some band stands out of its own noise. */
  readonly sounds: Uint8Array
}

const BLOCK_HOPS = 8
/** For each band, how far above its noise floor it must stand at most to be heard as sound: low bands are restless by themselves. */
const STANDS_OUT = [5, 3.5, 2.4, 1.9, 1.7, 1.7]
const QUIET_SECONDS = 0.04
const SHORTEST_SECONDS = 0.04
const DOWN = 1e-6

/** What hardly moves, as hum, is stood out of by little. */
const STEADY = 1.5

function standsOut(means: Float64Array, most: number): number {
  const unrest = quantile(means, 0.3) / Math.max(1e-15, quantile(means, 0.1))
  return Math.min(most, Math.max(STEADY, unrest ** 1.5))
}

export function tailCurve(bands: readonly BandEnergy[], hopFrames: number): TailCurve {
  const blocks = Math.floor((bands[0]?.length ?? 0) / BLOCK_HOPS)
  const energy = new Float64Array(blocks)
  const sounds = new Uint8Array(blocks)
  for (const [band, hops] of bands.entries()) {
    const means = new Float64Array(blocks)
    for (let block = 0; block < blocks; block++) {
      for (let hop = block * BLOCK_HOPS; hop < (block + 1) * BLOCK_HOPS; hop++) means[block] += hops[hop]
      means[block] /= BLOCK_HOPS
      energy[block] += means[block]
    }
    const line = noiseFloor(means) * standsOut(means, STANDS_OUT[band]) + 1e-12
    for (let block = 0; block < blocks; block++) if (means[block] > line) sounds[block] = 1
  }
  return { blockFrames: hopFrames * BLOCK_HOPS, energy, sounds }
}

/**
 * Where a hit that begins at `onsetFrame` has died away: no band has stood out of the room for 40 ms, or all are 60 dB
 * under its loudest block; never beyond `limitFrame`, where the next hit begins.
 */
export function endFrameOf(curve: TailCurve, onsetFrame: number, limitFrame: number, sampleRateHz: number): number {
  const { blockFrames, energy, sounds } = curve
  const first = Math.floor(onsetFrame / blockFrames)
  const last = Math.min(energy.length, Math.ceil(limitFrame / blockFrames))
  const enough = Math.ceil((QUIET_SECONDS * sampleRateHz) / blockFrames)
  const shortest = Math.ceil((SHORTEST_SECONDS * sampleRateHz) / blockFrames)
  let loudest = 0
  let quiet = 0
  for (let block = first; block < last; block++) {
    if (energy[block] > loudest) loudest = energy[block]
    quiet = sounds[block] === 0 || energy[block] < loudest * DOWN ? quiet + 1 : 0
    if (quiet >= enough && block - first >= shortest) return Math.min(limitFrame, (block + 1 - enough + 1) * blockFrames)
  }
  return limitFrame
}
