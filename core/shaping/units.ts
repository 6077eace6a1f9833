/** What times of a hit are told in. */
export const timeUnits = ['ms', 'samples', 'beats'] as const
export type TimeUnit = (typeof timeUnits)[number]
/** What levels are told in. */
export const levelUnits = ['%', 'dB'] as const
export type LevelUnit = (typeof levelUnits)[number]
/** What pitches are told in; Hz and notes where the pitch of the hit is known. */
export const pitchUnits = ['ct', 'st', 'Hz', 'note'] as const
export type PitchUnit = (typeof pitchUnits)[number]

/** What a time is counted by. */
export interface Clock {
  /** Of the hit as it was recorded. */
  readonly sampleRateHz: number
  readonly tempoBpm: number
}

const perSecond = (unit: TimeUnit, { sampleRateHz, tempoBpm }: Clock) =>
  unit === 'ms' ? 1000 : unit === 'samples' ? sampleRateHz : tempoBpm / 60
const PLACES: Record<TimeUnit, number> = { ms: 1, samples: 0, beats: 3 }

/** Seconds in a unit, as they are shown. */
export function timeText(seconds: number, unit: TimeUnit, clock: Clock): string {
  return (seconds * perSecond(unit, clock)).toFixed(PLACES[unit])
}

export function secondsOf(typed: number, unit: TimeUnit, clock: Clock): number {
  return typed / perSecond(unit, clock)
}

/** Below so many dB a level is told, and taken, as nothing. */
export const SILENT_DB = -80

/** A level (1 is full) in a unit, as it is shown. */
export function levelText(level: number, unit: LevelUnit): string {
  if (unit === '%') return (level * 100).toFixed(1)
  const db = 20 * Math.log10(level)
  return db < SILENT_DB ? '-\u221e' : db.toFixed(1)
}

export function levelOfTyped(typed: number, unit: LevelUnit): number {
  if (unit === '%') return typed / 100
  return typed <= SILENT_DB ? 0 : 10 ** (typed / 20)
}

/** Cents from the pitch of the hit, `baseHz`, to a frequency. */
export function centsTo(hz: number, baseHz: number): number {
  return 1200 * Math.log2(hz / baseHz)
}

export function hzAt(cents: number, baseHz: number): number {
  return baseHz * 2 ** (cents / 1200)
}
