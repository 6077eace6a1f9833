import { effectCodes } from '../program/codes'
import { MAX_UNITS } from '../program/layout'

/** Frames that engines which follow another one go together at once. */
export const TOGETHER_FRAMES = 64

/**
 * What the effects of a whole mix that go by its level listened to in the last frames. An engine that plays a part of the
 * mix goes by it, so that its parts, each lowered as the whole is, add up to the whole.
 */
export interface WholeLevels {
  /** The first of the frames that are told. */
  frame: number
  /** Both sides of each effect's unit, TOGETHER_FRAMES a side. */
  readonly heard: Float64Array
  /** At which of these frames an effect woke, or fell asleep; -1 for none. All effects of a part wake and sleep as those of the whole. */
  readonly woke: Int32Array
  readonly slept: Int32Array
}

export function createWholeLevels(): WholeLevels {
  return {
    frame: 0,
    heard: new Float64Array(MAX_UNITS * 2 * TOGETHER_FRAMES),
    woke: new Int32Array(MAX_UNITS),
    slept: new Int32Array(MAX_UNITS),
  }
}

/** The next frames begin: nothing is told of them yet. */
export function beginTogether(levels: WholeLevels, frame: number): void {
  levels.frame = frame
  levels.heard.fill(0)
  levels.woke.fill(-1)
  levels.slept.fill(-1)
}

/** Whether an effect goes by the level of what it hears. */
export function goesByLevel(kind: number): boolean {
  return kind === effectCodes.compressor || kind === effectCodes.gate || kind === effectCodes.limiter
}

/** Tells what an effect hears, from a frame of the engine on. */
export function tellHeard(
  levels: WholeLevels,
  unit: number,
  frame: number,
  left: Float64Array,
  right: Float64Array,
  from: number,
  count: number,
): void {
  const at = unit * 2 * TOGETHER_FRAMES + frame - levels.frame
  for (let i = 0; i < count; i++) {
    levels.heard[at + i] = left[from + i]
    levels.heard[at + TOGETHER_FRAMES + i] = right[from + i]
  }
}

/** What the same effect of the whole heard, into both sides of a buffer. */
export function takeHeard(levels: WholeLevels, unit: number, frame: number, left: Float64Array, right: Float64Array, count: number): void {
  const at = unit * 2 * TOGETHER_FRAMES + frame - levels.frame
  for (let i = 0; i < count; i++) {
    left[i] = levels.heard[at + i]
    right[i] = levels.heard[at + TOGETHER_FRAMES + i]
  }
}
