import { levelFrames } from '../memory/levels'
import { READING_PLACES, tableAt } from '../memory/reading-tables'
import { GUARD_FRAMES, READING_TABLES } from '../program/layout'
import type { EngineState } from '../state'

/**
 * Reads frames `from` to `to` of the scratch blocks at their positions through one table, counted on through the octaves: from 32 on a
 * level of half the rate is read through the tables of the first octave, and so on. All in 32-bit numbers, in four lanes side by
 * side, which are summed as (0 + 2) + (1 + 3): so does the kernel, and the bits are the same.
 */
export function readThrough(
  engine: EngineState,
  voice: number,
  chunk: Float32Array,
  table: number,
  from: number,
  to: number,
  left: Float64Array,
  right: Float64Array | undefined,
): void {
  const { voices: v, memory, positions } = engine
  const level = Math.min(Math.floor(table / READING_TABLES), v.levels[voice])
  let within = Math.min(table - level * READING_TABLES, READING_TABLES - 1)
  while (within > 0 && memory.readingTaps[within] === 0) within-- // a table that nobody foresaw
  const taps = memory.readingTaps[within]
  const numbers = tableAt(within)
  const scale = 1 / (1 << level)
  const before = levelStart(v.laidFrames[voice], level) - taps / 2 + 1
  for (let i = from; i < to; i++) {
    const position = positions[i] * scale
    const whole = Math.floor(position)
    const place = (position - whole) * READING_PLACES
    const row = Math.floor(place)
    const share = Math.fround(place - row)
    const first = numbers + row * taps
    left[i] = summed(memory.reading, first, taps, chunk, v.left[voice] + before + whole, share)
    if (right) right[i] = summed(memory.reading, first, taps, chunk, v.right[voice] + before + whole, share)
  }
}

/** How far behind the first sample of a channel that of a level lies. */
function levelStart(frames: number, level: number): number {
  let start = 0
  for (let i = 0; i < level; i++) start += levelFrames(frames, i) + 2 * GUARD_FRAMES
  return start
}

const f = Math.fround

/** The sums of samples through a row and through the next one, and a share of the way between the two, in each of four lanes. */
function summed(reading: Float32Array, row: number, taps: number, chunk: Float32Array, first: number, share: number): number {
  const a = lane(reading, row, taps, chunk, first, share)
  const b = lane(reading, row + 1, taps, chunk, first + 1, share)
  const c = lane(reading, row + 2, taps, chunk, first + 2, share)
  const d = lane(reading, row + 3, taps, chunk, first + 3, share)
  return f(f(a + c) + f(b + d))
}

function lane(reading: Float32Array, row: number, taps: number, chunk: Float32Array, first: number, share: number): number {
  let here = 0
  let next = 0
  for (let j = 0; j < taps; j += 4) {
    here = f(here + f(reading[row + j] * chunk[first + j]))
    next = f(next + f(reading[row + taps + j] * chunk[first + j]))
  }
  return f(here + f(share * f(next - here)))
}
