import { besselI0OfRoot, sin } from '../../math'
import { PEAK_FRAMES, PEAK_PHASES, PEAK_TAPS } from './both/sizes'

/** What lies between samples, eight for one: windowed sincs (J. F. Kaiser, 1974), by phase, the oldest sample first. */
export const PEAK_TABLE = PEAK_PHASES * PEAK_TAPS
const BETA = 6
const PI = 3.141592653589793

export function peakTable(): Float64Array {
  const table = new Float64Array(PEAK_TABLE)
  for (let phase = 0; phase < PEAK_PHASES; phase++) {
    let sum = 0
    for (let k = 0; k < PEAK_TAPS; k++) {
      const away = k - (PEAK_TAPS - 1 - PEAK_FRAMES) - phase / PEAK_PHASES
      const share = away / (PEAK_TAPS / 2)
      const value = (away === 0 ? 1 : sin(PI * away) / (PI * away)) * besselI0OfRoot(BETA * BETA * Math.max(0, 1 - share * share))
      table[phase * PEAK_TAPS + k] = value
      sum += value
    }
    for (let k = 0; k < PEAK_TAPS; k++) table[phase * PEAK_TAPS + k] /= sum
  }
  return table
}
