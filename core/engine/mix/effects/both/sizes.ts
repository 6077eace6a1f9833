/** Sizes that the page needs too, where it makes room for effects: apart from what they do, which only the engine needs. */

/** Samples that a place between samples is told from, for each of eight phases; the middle is so many frames back. */
export const PEAK_TAPS: i32 = 24
export const PEAK_PHASES: i32 = 8
export const PEAK_FRAMES: i32 = 12

/** Room for one all-pass of a reverb. */
export const DIFFUSER_SIZE: i32 = 2048

/** Parts of a room's impulse: the first is heard directly, then come small ones, and then big ones; see room.ts. */
export const HEAD_FRAMES: i32 = 128
export const BIG_FRAMES: i32 = 1024
export const MOST_SMALL: i32 = 15
/** Samples that one part takes: both parts of N / 2 + 1 bins. */
export const SMALL_BINS: i32 = 258
export const BIG_BINS: i32 = 2050
/** Cosines and sines of a whole turn in 2048 steps: half of it. */
export const TURNS: i32 = 2048
/** The input of both sides of a room, and room to transform. */
export const INPUT: i32 = 4096
export const WORK: i32 = 4096

/** Samples that a room keeps beside its impulse. */
export function roomFloats(smallParts: f64, bigParts: f64): f64 {
  return 2 * INPUT + WORK + 4 * BIG_BINS + 2 * HEAD_FRAMES + 4 * BIG_FRAMES + 2 * smallParts * SMALL_BINS + 2 * bigParts * BIG_BINS
}

/** How many samples its impulse takes. */
export function impulseFloats(sides: f64, smallParts: f64, bigParts: f64): f64 {
  return TURNS + sides * (HEAD_FRAMES + smallParts * SMALL_BINS + bigParts * BIG_BINS)
}
