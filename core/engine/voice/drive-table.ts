import { besselI0OfRoot, sin } from '../math'

/**
 * The two filters of drive, at four times the engine's rate: 65 numbers that put three samples between two, in order of
 * what they are for, 17 for each with a zero where there are 16; and 64 that leave one of four. Windowed sincs
 * (J. F. Kaiser, 1974), flat to three quarters of what the engine's rate carries and -80 dB where that would come back:
 *
 *   gain 1 |‾‾‾‾‾‾‾‾‾‾‾‾‾‾\          at 48 kHz: 0.1 dB lost at 18 kHz in one of them,
 *        0 |_______________\____      -80 dB from 32 kHz on, which would fold to 16
 */
const TIMES = 4
const UP_TAPS = 65
const PHASE_TAPS = 17
const DOWN_TAPS = 64
const BETA = 8
/** In parts of the rate at which they work. */
const CUTOFF = 0.125
const PI = 3.141592653589793

export const DRIVE_TABLE = TIMES * PHASE_TAPS + DOWN_TAPS

/** The numbers of both, as both/drive.ts finds them. */
export function driveTable(): Float64Array {
  const table = new Float64Array(DRIVE_TABLE)
  const up = lowPass(UP_TAPS)
  for (let phase = 0; phase < TIMES; phase++)
    for (let k = 0; TIMES * k + phase < UP_TAPS; k++) table[phase * PHASE_TAPS + k] = TIMES * up[TIMES * k + phase]
  table.set(lowPass(DOWN_TAPS), TIMES * PHASE_TAPS)
  return table
}

function lowPass(taps: number): Float64Array {
  const middle = (taps - 1) / 2
  const numbers = Float64Array.from({ length: taps }, (_, i) => {
    const share = (i - middle) / middle
    const angle = 2 * PI * CUTOFF * (i - middle)
    return besselI0OfRoot(BETA * BETA * (1 - share * share)) * (angle === 0 ? 1 : sin(angle) / angle)
  })
  let sum = 0
  for (let i = 0; i < taps; i++) sum += numbers[i]
  return numbers.map((number) => number / sum)
}
