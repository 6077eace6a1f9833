import type { AllChoices } from '../kit/parameters'
import { log2 } from './math'
import { driveCodes } from './program/codes'
import { driven } from './voice/both/drive'

/** Twice the power in dB. */
const POWER_OCTAVE_DB = 3.010299956639812

/**
 * The level, in dB, that makes a driven sound as loud as it was: what its curve adds to the power of these samples
 * (-1..1 at full scale), and what does not move left out. 0 for silence. Measured when drive is set, and stored.
 */
export function keptDriveLevelDb(samples: Float32Array, kind: AllChoices['driveKind'], driveDb: number, driveAfterDb: number): number {
  let [before, after, steady] = [0, 0, 0]
  for (const sample of samples) {
    const made = driven(driveCodes[kind], driveAfterDb, driven(driveCodes[kind], driveDb, sample))
    before += sample * sample
    after += made * made
    steady += made
  }
  const moving = after - (steady * steady) / samples.length
  return before > 0 && moving > 0 ? POWER_OCTAVE_DB * log2(before / moving) : 0
}
