import { surprises } from './predict'

/** Near a peak of the curve, the frame where a strike stands out first, by what its samples and those before them reach. */
export function edgeNear(mono: Float32Array, sampleRateHz: number, near: number): number {
  return softBegin(mono, sampleRateHz, firstFrame(mono, sampleRateHz, near))
}

const SOFT_MS = 25
const QUIET_FROM_MS = [60, 35] as const
const STRIKE_MS = 10
const SOFT_SHARE = 0.01
const OVER_QUIET = 1.6
/** A slow wave stands still for so long. */
const LOOK_MS = 3
const RISING = 1.25

/**
 * Where a strike that begins softly begins: back from its edge, millisecond by millisecond, while the sound stands over
 * the quiet of some time before, reaches a hundredth of the strike and does not rise again, as what rang before would.
 */
function softBegin(mono: Float32Array, sampleRateHz: number, edge: number): number {
  const ms = Math.max(1, Math.round(sampleRateHz / 1000))
  const quiet = sizeOf(mono, edge - QUIET_FROM_MS[0] * ms, edge - QUIET_FROM_MS[1] * ms)
  const least = Math.max(OVER_QUIET * quiet, SOFT_SHARE * sizeOf(mono, edge, edge + STRIKE_MS * ms))
  let frame = edge
  const after: number[] = []
  for (let from = edge - ms; from >= Math.max(0, edge - SOFT_MS * ms) && frame - from <= LOOK_MS * ms; from -= ms) {
    const size = sizeOf(mono, from, from + ms)
    if (after.length > 0 && size > RISING * Math.max(...after.slice(-LOOK_MS))) break
    after.push(size)
    if (size >= least) frame = from
  }
  return frame
}

/** Half of the range that samples move in. */
function sizeOf(mono: Float32Array, from: number, to: number): number {
  const { low, high } = rangeOf(mono, Math.max(0, from), Math.min(mono.length, Math.max(0, to)))
  return (high - low) / 2
}

/** The frames around a peak of the curve within which its strike begins, and those before that show what it rises out of. */
interface Stretch {
  readonly beforeFrom: number
  readonly from: number
  readonly to: number
}

/**
 * Near a peak of the curve, the first frame of the strike. It is looked for in the sound itself, or, where that still
 * rings of the strike before, in what of it could not be foretold from the 21 ms before.
 */
function firstFrame(mono: Float32Array, sampleRateHz: number, near: number): number {
  const ms = sampleRateHz / 1000
  const from = Math.max(0, Math.round(near - 3 * ms))
  const stretch = { beforeFrom: Math.max(0, Math.round(from - 21 * ms)), from, to: Math.min(mono.length, Math.round(near + 10 * ms)) }
  const sound = standingOut(mono, stretch)
  if (sound.contrast > CLEAR_CONTRAST) return beginOf(mono, stretch, sound, ms)
  const surprise = surprises(mono, stretch.beforeFrom, from, stretch.to, FORETOLD_FROM)
  const shifted = { beforeFrom: FORETOLD_FROM, from: from - stretch.beforeFrom, to: stretch.to - stretch.beforeFrom }
  const edge = standingOut(surprise, shifted)
  if (edge.contrast < EDGE_ADVANTAGE * sound.contrast) return beginOf(mono, stretch, sound, ms)
  return stretch.beforeFrom + beginOf(surprise, shifted, edge, ms)
}

/** A strike this many times higher than what was before it is seen in the sound itself. */
const CLEAR_CONTRAST = 6
const EDGE_ADVANTAGE = 1.5
/** Samples that the next one is foretold from. */
const FORETOLD_FROM = 24

/** What was before a strike, as a middle and a reach about it, and how far the strike goes beyond. */
interface StandingOut {
  readonly middle: number
  readonly reach: number
  readonly size: number
  readonly contrast: number
}

function standingOut(samples: Float32Array, { beforeFrom, from, to }: Stretch): StandingOut {
  const before = rangeOf(samples, beforeFrom, from)
  const peak = rangeOf(samples, from, to)
  const middle = (before.high + before.low) / 2
  const reach = (before.high - before.low) / 2
  const size = Math.max(peak.high - middle, middle - peak.low)
  return { middle, reach, size, contrast: size / (reach + 1e-9) }
}

/** What is before a stretch that a strike begins in, ms. */
const BEFORE_STRETCH_MS = 6

/** The first frame in [from, to) that leaves the range of what is just before. */
export function beginIn(mono: Float32Array, from: number, to: number, ms: number): number {
  const first = Math.max(0, from)
  const stretch = { beforeFrom: Math.max(0, Math.round(first - BEFORE_STRETCH_MS * ms)), from: first, to: Math.min(mono.length, to) }
  return beginOf(mono, stretch, standingOut(mono, stretch), ms)
}

const OVER_BEFORE = 1.5
export const LEAST_SHARE = 0.02
const MOST_SHARE = 0.7
const BACK_MS = 0.7

/**
 * Where the samples first leave the range of what was before by half again and reach a share of the strike's own peak,
 * then back to where that swing began.
 */
function beginOf(samples: Float32Array, { from, to }: Stretch, { middle, reach, size }: StandingOut, ms: number): number {
  const threshold = Math.min(Math.max(reach * OVER_BEFORE, size * LEAST_SHARE), size * MOST_SHARE)
  let frame = from
  while (frame < to - 1 && Math.abs(samples[frame] - middle) < threshold) frame++
  const earliest = Math.max(0, frame - Math.round(BACK_MS * ms))
  const quiet = Math.max(reach * 0.5, size * 0.01)
  while (
    frame > earliest &&
    Math.abs(samples[frame - 1] - middle) > quiet &&
    Math.abs(samples[frame - 1] - middle) < Math.abs(samples[frame] - middle)
  )
    frame--
  return frame
}

export function rangeOf(mono: Float32Array, from: number, to: number): { low: number; high: number } {
  let low = Infinity
  let high = -Infinity
  for (let i = from; i < to; i++) {
    if (mono[i] < low) low = mono[i]
    if (mono[i] > high) high = mono[i]
  }
  return low <= high ? { low, high } : { low: 0, high: 0 }
}
