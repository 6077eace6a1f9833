import { usualRepairs } from '@heliaster/core/engine'
import type { Repairs } from '@heliaster/core/kit'

/** What is done to the tone of a hit, each a point over its spectrum. */
export const TONES = [
  { key: 'lowCut', text: 'Low cut' },
  { key: 'lowShelf', text: 'Low shelf' },
  { key: 'bell', text: 'Bell' },
  { key: 'notch', text: 'Notch' },
  { key: 'highShelf', text: 'High shelf' },
] as const
export type Tone = (typeof TONES)[number]['key']

interface Fields {
  readonly hz: keyof Repairs
  /** Of its frequency, Hz. */
  readonly range: readonly [least: number, most: number]
  readonly db?: keyof Repairs
  readonly octaves?: keyof Repairs
}
const GAIN_DB = [-24, 24] as const
const FIELDS: Record<Tone, Fields> = {
  lowCut: { hz: 'lowCutHz', range: [10, 2000] },
  lowShelf: { hz: 'lowShelfHz', range: [20, 2000], db: 'lowShelfDb' },
  bell: { hz: 'bellHz', range: [20, 20000], db: 'bellDb', octaves: 'bellOctaves' },
  notch: { hz: 'notchHz', range: [20, 20000], octaves: 'notchOctaves' },
  highShelf: { hz: 'shelfHz', range: [500, 20000], db: 'shelfDb' },
}
const OCTAVES = { bell: [0.1, 4], notch: [0.02, 2] } as const
const FIRST_DB = -6
const FIRST_LOW_CUT_HZ = 60
/** So many dB upwards make a notch half as wide. */
const NARROWER_DB = 6

const clamp = (value: number, [least, most]: readonly [number, number]) => Math.min(most, Math.max(least, value))
const rounded = (value: number) => Math.round(value * 10) / 10

/** Whether repairs do anything of a tone. */
export function hasTone(repairs: Repairs, tone: Tone): boolean {
  const { hz, db } = FIELDS[tone]
  return repairs[db ?? hz] !== undefined
}

/** What a tone is set to. */
export interface ToneSetting {
  readonly hz: number
  readonly db: number
  readonly octaves: number
}

export function toneOf(repairs: Repairs, tone: Tone): ToneSetting {
  const { hz, db, octaves } = FIELDS[tone]
  const all = { ...usualRepairs, ...repairs } as unknown as Record<string, number>
  return { hz: all[hz]!, db: db ? (all[db] ?? 0) : 0, octaves: octaves ? all[octaves]! : 0 }
}

/** Where its point stands: a shelf's in the middle of its slope, a cut's where it has taken 3 dB. */
export function tonePoint(tone: Tone, { hz, db }: ToneSetting): { readonly hz: number; readonly db: number } {
  return { hz: Math.max(20, hz), db: tone === 'lowCut' ? -3 : tone === 'bell' ? db : db / 2 }
}

/** Repairs that begin or end a tone; a bell and a notch begin where the hit is loudest. */
export function toggledTone(repairs: Repairs, tone: Tone, loudestHz: number | undefined): Partial<Repairs> {
  const { hz, db, octaves, range } = FIELDS[tone]
  if (hasTone(repairs, tone)) return Object.fromEntries([hz, db, octaves].flatMap((key) => (key ? [[key, undefined]] : [])))
  if (tone === 'lowCut') return { lowCutHz: FIRST_LOW_CUT_HZ }
  const at = tone === 'bell' || tone === 'notch' ? { [hz]: rounded(clamp(loudestHz ?? usualRepairs[`${tone}Hz`], range)) } : {}
  return { ...at, ...(db ? { [db]: FIRST_DB } : {}) }
}

/** A tone that is set anew, each value held where it may be. */
export function withTone(tone: Tone, { hz, db, octaves }: ToneSetting): Partial<Repairs> {
  const fields = FIELDS[tone]
  return {
    [fields.hz]: rounded(clamp(hz, fields.range)),
    ...(fields.db ? { [fields.db]: rounded(clamp(db, GAIN_DB)) } : {}),
    ...(tone === 'bell' || tone === 'notch' ? { [fields.octaves!]: Math.round(clamp(octaves, OCTAVES[tone]) * 1000) / 1000 } : {}),
  }
}

/** A tone whose point was moved: sideways its frequency, upwards its gain, or how narrow a notch is. */
export function movedTone(tone: Tone, from: ToneSetting, byCents: number, byDb: number): Partial<Repairs> {
  const hz = from.hz * 2 ** (byCents / 1200)
  if (tone === 'notch') return withTone(tone, { ...from, hz, octaves: from.octaves * 2 ** (-byDb / NARROWER_DB) })
  return withTone(tone, { ...from, hz, db: from.db + (tone === 'bell' ? byDb : 2 * byDb) })
}

/** A tone in words. */
export function toneWords(tone: Tone, { hz, db, octaves }: ToneSetting): string {
  const at = hz < 1000 ? `${Math.round(hz)} Hz` : `${(hz / 1000).toFixed(2)} kHz`
  if (tone === 'lowCut') return `below ${at}`
  return tone === 'notch' ? `${at}, ${octaves.toFixed(2)} octaves wide` : `${at}, ${db.toFixed(1)} dB`
}
