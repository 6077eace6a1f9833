import { GUARD_FRAMES } from '../program/layout'
import { besselI0OfRoot, sin } from '../math'

/**
 * A clip as the engine reads it: its samples, and below them levels of half, a quarter ... of their rate, for when it is
 * read so fast that it would fold. Each level has guards on both sides, since the reader looks to both:
 *
 *   | guard | frames | guard | guard | frames / 2 | guard | ...     one channel after the other
 *
 * What goes round is surrounded by itself: what lies at its beginning stands behind its end, and where all of it goes round its
 * end stands before its start.
 */

/** How long each level is, in its own frames. */
export function levelFrames(frames: number, level: number): number {
  return Math.ceil(frames / (1 << level))
}

/** Room for one channel with so many levels beside its samples. */
export function laidLength(frames: number, levels: number): number {
  let length = 0
  for (let level = 0; level <= levels; level++) length += levelFrames(frames, level) + 2 * GUARD_FRAMES
  return length
}

/** Lays a channel out into `to`, `laidLength` samples long; at its end it goes round to `roundFrom`, -1 for nowhere. */
export function layOut(to: Float32Array, samples: Float32Array, levels: number, roundFrom: number): void {
  const { length } = samples
  to.fill(0)
  to.set(samples, GUARD_FRAMES)
  for (let i = 1; i <= GUARD_FRAMES; i++) {
    to[GUARD_FRAMES - i] = beside(samples, -i, roundFrom)
    to[GUARD_FRAMES + length + i - 1] = beside(samples, length + i - 1, roundFrom)
  }
  if (levels === 0) return
  // Far enough to both sides that what halving leaves at the edges stays outside the guards of the last level.
  const outside = (GUARD_FRAMES + HALVING_REACH + 1) * (1 << levels)
  let above = surrounded(samples, outside, roundFrom)
  let start = length + 2 * GUARD_FRAMES
  // What does not go round has nothing beside it, and there is nothing to halve there.
  let from = roundFrom === 0 ? 0 : outside
  let end = roundFrom >= 0 ? above.length : outside + length
  for (let level = 1; level <= levels; level++) {
    from = Math.max(0, (from - HALVING_REACH) >> 1)
    end = Math.min(above.length >> 1, (end + HALVING_REACH + 1) >> 1)
    above = halved(above, from, end)
    const first = outside / (1 << level) - GUARD_FRAMES
    const count = levelFrames(length, level) + 2 * GUARD_FRAMES
    for (let i = 0; i < count; i++) to[start + i] = above[first + i] ?? 0
    start += count
  }
}

/** What sounds so far before the start or behind the end. */
function beside(samples: Float32Array, at: number, roundFrom: number): number {
  const { length } = samples
  if (roundFrom < 0 || roundFrom >= length) return 0
  if (at >= length) return samples[roundFrom + ((at - length) % (length - roundFrom))]
  return roundFrom === 0 ? samples[((at % length) + length) % length] : 0
}

/** A channel with so many frames on both sides: what goes round sounds there, else nothing. */
function surrounded(samples: Float32Array, outside: number, roundFrom: number): Float64Array<ArrayBuffer> {
  const { length } = samples
  const all = new Float64Array(length + 2 * outside)
  all.set(samples, outside)
  if (roundFrom < 0 || roundFrom >= length) return all
  const round = length - roundFrom
  const end = outside + length
  // Each copy doubles what is there, in whole rounds.
  for (let to = end, ready = round; to < all.length; to += ready, ready *= 2) all.copyWithin(to, to - ready, to)
  if (roundFrom > 0) return all
  for (let to = outside, ready = round; to > 0; ready *= 2) {
    const count = Math.min(ready, to)
    to -= count
    all.copyWithin(to, to + ready, to + ready + count)
  }
  return all
}

/** So many frames must what goes round have at least, so that its levels find its own on both sides. */
export function leastRound(levels: number): number {
  return (GUARD_FRAMES + HALVING_REACH + 1) << levels
}

const HALVING_REACH = 63
/** In parts of the higher rate: flat to 0.215, nothing above 0.2715, the middle between them. */
const HALVING_CUTOFF = 0.2436
const HALVING_BETA = 11.16
const PI = 3.141592653589793

let halving: Float64Array | undefined

/** Every second sample of what is below a quarter of the rate: a windowed sinc of 127 (Kaiser, 110 dB); zeros before `from` and from `end` on. */
function halved(above: Float64Array, from: number, end: number): Float64Array<ArrayBuffer> {
  const taps = (halving ??= halvingTaps())
  const below = new Float64Array(above.length >> 1)
  const padded = new Float64Array(above.length + 2 * HALVING_REACH)
  padded.set(above, HALVING_REACH)
  // Four beside each other: a sum waits for each of its parts, and meanwhile the others go on.
  let i = from
  for (; i + 3 < end; i += 4) {
    const middle = 2 * i + HALVING_REACH
    let sum0 = taps[0] * padded[middle]
    let sum1 = taps[0] * padded[middle + 2]
    let sum2 = taps[0] * padded[middle + 4]
    let sum3 = taps[0] * padded[middle + 6]
    for (let j = 1, left = middle - 1, right = middle + 1; j <= HALVING_REACH; j++, left--, right++) {
      const tap = taps[j]
      sum0 += tap * (padded[left] + padded[right])
      sum1 += tap * (padded[left + 2] + padded[right + 2])
      sum2 += tap * (padded[left + 4] + padded[right + 4])
      sum3 += tap * (padded[left + 6] + padded[right + 6])
    }
    below[i] = sum0
    below[i + 1] = sum1
    below[i + 2] = sum2
    below[i + 3] = sum3
  }
  for (; i < end; i++) {
    const middle = 2 * i + HALVING_REACH
    let sum = taps[0] * padded[middle]
    for (let j = 1; j <= HALVING_REACH; j++) sum += taps[j] * (padded[middle - j] + padded[middle + j])
    below[i] = sum
  }
  return below
}

function halvingTaps(): Float64Array {
  const taps = Float64Array.from({ length: HALVING_REACH + 1 }, (_, j) => {
    const share = j / (HALVING_REACH + 1)
    const angle = 2 * PI * HALVING_CUTOFF * j
    return (j === 0 ? 1 : sin(angle) / angle) * besselI0OfRoot(HALVING_BETA * HALVING_BETA * (1 - share * share))
  })
  const sum = taps.reduce((total, tap, j) => total + (j === 0 ? tap : 2 * tap), 0)
  return taps.map((tap) => tap / sum)
}
