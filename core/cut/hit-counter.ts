import { heardStrikes } from './cut'
import { findHits } from './onsets'

const WINDOW_SECONDS = 4
const STEP_SECONDS = 0.4
/** The newest sound is looked at again before it counts: a strike needs its first milliseconds to be known. */
const SETTLE_SECONDS = 0.1
const WATER_LINE = 0.3
const GAP_SECONDS = 0.06

/** Finds hits while a recording runs, from its last few seconds. Gives the seconds of all hits so far. */
export function createHitCounter(sampleRateHz: number) {
  const window = new Float32Array(Math.round(WINDOW_SECONDS * sampleRateHz))
  const hits: number[] = []
  let total = 0
  let looked = 0
  let settled = 0
  return {
    take(piece: Float32Array): number[] {
      window.copyWithin(0, piece.length)
      window.set(piece, window.length - piece.length)
      total += piece.length
      if (total - looked < STEP_SECONDS * sampleRateHz) return hits
      looked = total
      const held = Math.min(total, window.length)
      const samples = window.subarray(window.length - held)
      const until = total - SETTLE_SECONDS * sampleRateHz
      for (const onset of findHits(samples, sampleRateHz, heardStrikes(samples, sampleRateHz).strikes, WATER_LINE, GAP_SECONDS)) {
        const frame = total - held + onset.frame
        const last = (hits[hits.length - 1] ?? -1) * sampleRateHz
        if (frame >= settled && frame < until && frame - last > GAP_SECONDS * sampleRateHz) hits.push(frame / sampleRateHz)
      }
      settled = until
      return hits
    },
  }
}
