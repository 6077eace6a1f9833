import { noiseFloor } from './strength'

/** Fades that every cut gets, so that no clip clicks. */
export const EDGE_FADE_IN_SECONDS = 0.0005
export const EDGE_FADE_OUT_SECONDS = 0.005
const LEAD_SECONDS = 0.0005
const BLOCK_SECONDS = 0.005

/** Level of a recording in blocks of 5 ms, for finding where tails end. */
export interface LevelCurve {
  readonly blockFrames: number
  readonly energy: Float64Array
  readonly floor: number
}

export function levelCurve(mono: Float32Array, sampleRateHz: number): LevelCurve {
  const blockFrames = Math.max(1, Math.round(BLOCK_SECONDS * sampleRateHz))
  const energy = new Float64Array(Math.ceil(mono.length / blockFrames))
  for (let block = 0; block < energy.length; block++) {
    const end = Math.min(mono.length, (block + 1) * blockFrames)
    for (let i = block * blockFrames; i < end; i++) energy[block] += mono[i] * mono[i]
    energy[block] /= Math.max(1, end - block * blockFrames)
  }
  return { blockFrames, energy, floor: noiseFloor(energy) }
}

/** A clip begins half a millisecond before its strike, where its fade-in ends. */
export function startFrameOf(onsetFrame: number, sampleRateHz: number): number {
  return Math.max(0, onsetFrame - Math.round(LEAD_SECONDS * sampleRateHz))
}

/**
 * Where a hit that begins at `onsetFrame` has died away: 60 dB under its loudest block, or within 2 dB of the room for
 * 40 ms; never beyond `limitFrame`, where the next hit begins.
 */
export function endFrameOf(curve: LevelCurve, onsetFrame: number, limitFrame: number): number {
  const { blockFrames, energy, floor } = curve
  const first = Math.floor(onsetFrame / blockFrames)
  const last = Math.min(energy.length, Math.ceil(limitFrame / blockFrames))
  let loudest = 0
  let quiet = 0
  for (let block = first; block < last; block++) {
    if (energy[block] > loudest) loudest = energy[block]
    quiet = energy[block] < Math.max(floor * 1.6, loudest * 1e-6) ? quiet + 1 : 0
    if (quiet >= 8 && block - first > 8) return Math.min(limitFrame, (block - 2) * blockFrames)
  }
  return limitFrame
}
