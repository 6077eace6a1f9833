import type { RoomFor } from './clip-region'

/** Room of up to so many samples is kept for the next clip: 1 MB. */
const MOST_KEPT = 1 << 18

export interface Scratch {
  /** Room for samples that are only passed on: what it gave before `clear` is overwritten. */
  readonly roomFor: RoomFor
  /** All that it gave is of no use any more. */
  clear(): Scratch
}

/**
 * Room for the samples of one clip after another, on their way into the engine's memory. A browser collects what lies outside of its
 * own heap late: 2,000 clips that were each copied into room of their own would leave as much lying about as the kit takes.
 */
export function createScratch(mostKept = MOST_KEPT): Scratch {
  let kept = new Float32Array(0)
  let used = 0
  const scratch: Scratch = {
    roomFor(frames) {
      if (used + frames > kept.length) {
        if (used + frames > mostKept) return new Float32Array(frames)
        kept = new Float32Array(Math.min(mostKept, 2 * (used + frames)))
        used = 0
      }
      used += frames
      return kept.subarray(used - frames, used).fill(0)
    },
    clear() {
      used = 0
      return scratch
    },
  }
  return scratch
}
