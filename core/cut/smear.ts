import { beginIn } from './edge'

/** So far before a stroke the frames of codecs reach, ms. */
const LONGEST_MS = 24
const BLOCK_MS = 0.25
/** What is shorter is the stroke's own begin. */
const SHORTEST_BLOCKS = 2
/** What was spread lies 24 dB or more under what comes, and the stroke comes within 10 dB of that at once. */
const MOST_SHARE = 0.06
const STROKE_SHARE = 0.3
/** The stroke stands so many times over the last millisecond before it. */
const JUMP = 5
const NEAR_BLOCKS = 4
const STROKE_BLOCKS = 2
const BODY_BLOCKS = 24

/**
 * Where the stroke itself begins of a hit that begins with what a lossy codec spread before it (pre-echo): some milliseconds of thin
 * noise, then a jump. Nobody hears what is followed by so much more (backward masking), and a pad would answer later by it.
 * The start as it is where nothing is spread.
 */
export function afterSmear(mono: Float32Array, sampleRateHz: number, start: number): number {
  const ms = sampleRateHz / 1000
  const frameOf = (block: number) => Math.min(mono.length, Math.round(start + block * BLOCK_MS * ms))
  const heights = Array.from({ length: LONGEST_MS / BLOCK_MS + BODY_BLOCKS }, (_, block) =>
    height(mono, frameOf(block), frameOf(block + 1)),
  )
  const highest = (from: number, to: number) => heights.slice(Math.max(0, from), to).reduce((most, one) => Math.max(most, one), 0)
  for (let block = SHORTEST_BLOCKS; block < LONGEST_MS / BLOCK_MS; block++) {
    const body = highest(block, block + BODY_BLOCKS)
    if (highest(0, block) > MOST_SHARE * body) continue
    const stroke = highest(block, block + STROKE_BLOCKS)
    if (stroke > 0 && stroke >= STROKE_SHARE * body && stroke >= JUMP * highest(block - NEAR_BLOCKS, block))
      return grows(mono, start, frameOf(block)) ? beginIn(mono, frameOf(block), frameOf(block + STROKE_BLOCKS), ms) : start
  }
  return start
}

function height(mono: Float32Array, from: number, to: number): number {
  let most = 0
  for (let i = from; i < to; i++) most = Math.max(most, Math.abs(mono[i]!))
  return most
}

/** What a codec spreads grows or stands until the stroke; what touched before it dies away. */
function grows(mono: Float32Array, from: number, to: number): boolean {
  const middle = (from + to) >> 1
  return energy(mono, middle, to) >= energy(mono, from, middle)
}

function energy(mono: Float32Array, from: number, to: number): number {
  let sum = 0
  for (let i = from; i < to; i++) sum += mono[i]! * mono[i]!
  return sum
}
