import { keptDriveLevelDb } from '@heliaster/core/engine'
import { parameters } from '@heliaster/core/kit'
import type { AllChoices, PadSettings } from '@heliaster/core/kit'

export interface Drive {
  readonly kind: AllChoices['driveKind']
  readonly driveDb: number
  readonly driveAfterDb: number
}

const { min: LEAST_DB, max: MOST_DB } = parameters.driveLevelDb

export function driveOf({ values, choices }: PadSettings): Drive {
  return { kind: choices.driveKind, driveDb: values.driveDb, driveAfterDb: values.driveAfterDb }
}

/** The level behind a drive that is changed, so that it stays as loud; what was set by hand on top of that stays. */
export function keptLevel(settings: PadSettings, samples: Float32Array | undefined, next: Drive): number {
  const { driveLevelDb } = settings.values
  if (!samples) return driveLevelDb
  const change = levelOf(samples, next) - levelOf(samples, driveOf(settings))
  return Math.round(10 * Math.min(MOST_DB, Math.max(LEAST_DB, driveLevelDb + change))) / 10
}

function levelOf(samples: Float32Array, { kind, driveDb, driveAfterDb }: Drive): number {
  return keptDriveLevelDb(samples, kind, driveDb, driveAfterDb)
}
