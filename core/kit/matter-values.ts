import type { Clip } from './clip'

/** A clip at one note, with its resonances elsewhere, or drawn otherwise, worked ahead of its strike. */
export interface ClipForm {
  /** The MIDI note it is worked for; undefined for any. */
  readonly note?: number
  /** Whether the pitch of that note is in it: else it is tuned from the pad's root as any clip is. */
  readonly isTuned: boolean
  /** By how many octaves its resonances are moved. */
  readonly octaves: number
  readonly clip: Clip
}

/** A clip as it is played, with the forms among which a strike chooses: by its note, and by velocity and chance. */
export interface FormedClip extends Clip {
  readonly forms?: readonly ClipForm[]
  /** Octaves at the softest strike, and up to so many to each side by chance. */
  readonly byVelocity?: number
  readonly byChance?: number
}

export type MatterStep = NonNullable<Clip['process']>[number]
export type MatterKind = MatterStep['kind']

export interface MatterValue {
  readonly least: number
  readonly most: number
  /** What it is where nothing is set: a step of which nothing is set changes as little as its kind can. */
  readonly usual: number
  readonly unit: '%' | 'cents' | 'octaves' | 'ms' | 'Hz' | 'beats' | 'at once' | 'share' | 'draw' | 'takes'
}

const length: MatterValue = { least: 10, most: 1000, usual: 100, unit: '%' }
const keepMs: MatterValue = { least: 0, most: 200, usual: 10, unit: 'ms' }
const divideHz: MatterValue = { least: 0, most: 20000, usual: 0, unit: 'Hz' }
const steadyMs: MatterValue = { least: 10, most: 500, usual: 30, unit: 'ms' }
const draw: MatterValue = { least: 0, most: 65535, usual: 0, unit: 'draw' }
const takes: MatterValue = { least: 1, most: 8, usual: 1, unit: 'takes' }
const share: MatterValue = { least: 0, most: 1, usual: 0, unit: 'share' }

/**
 * What each kind of step goes by, the one table that schema, work, command line and screens read.
 * - `time`: length and pitch apart. `beats` above 0 says the length in beats of the kit's tempo; `keepMs` of each attack stay as
 *   they were; `keepResonances` is the share by which resonances stay while the pitch moves; `sameLength` 1 holds the
 *   length whatever note is played. `freshNoise` is the share of its noise that is made anew, by `draw`, so that it goes on as fast as it did.
 * - `grains`: short grains, how long, how many at once, how far they stray.
 * - `resonances`: moved apart from pitch; `followNote` is the share by which they go along with the pitch of the note, 1 as they would; at the
 *   softest strike they are moved by `byVelocity` octaves more, and by chance up to `byChance` up or down, in five steps.
 * - `ringing`, `noise`: one part of a parting; below `divideHz` all is ringing, above it what is steady for `steadyMs`.
 *   `anew` above 0 is the share of the noise that is made of fresh noise, `lengthPercent` as long, by `draw`.
 * `takes` of grains and of whatever has fresh noise are made ahead, each of another draw, and strikes go through them: none is like the last.
 */
export const matterValues = {
  time: {
    lengthPercent: length,
    beats: { least: 0, most: 64, usual: 0, unit: 'beats' },
    pitchCents: { least: -2400, most: 2400, usual: 0, unit: 'cents' },
    keepMs,
    keepResonances: share,
    sameLength: share,
    freshNoise: share,
    draw,
    takes,
  },
  grains: {
    lengthPercent: length,
    grainMs: { least: 2, most: 1000, usual: 60, unit: 'ms' },
    atOnce: { least: 0.1, most: 32, usual: 4, unit: 'at once' },
    strayMs: { least: 0, most: 1000, usual: 0, unit: 'ms' },
    strayCents: { least: 0, most: 2400, usual: 0, unit: 'cents' },
    keepMs,
    draw,
    takes,
  },
  resonances: { movePercent: { least: 25, most: 400, usual: 100, unit: '%' }, followNote: { ...share, usual: 1 }, byVelocity: { least: -2, most: 2, usual: 0, unit: 'octaves' }, byChance: { least: 0, most: 1, usual: 0, unit: 'octaves' } }, // prettier-ignore
  ringing: { divideHz, steadyMs },
  noise: { divideHz, steadyMs, anew: share, lengthPercent: length, keepMs, draw, takes },
} as const satisfies Record<MatterKind, Readonly<Record<string, MatterValue>>>

export type MatterValueName<K extends MatterKind> = keyof (typeof matterValues)[K] & string

/** The table of a kind, by any name. */
export const valuesOfKind = (kind: MatterKind): Readonly<Record<string, MatterValue>> => matterValues[kind]

/** What a step goes by: its own number where it has one, else what is usual. */
export function matterValue<K extends MatterKind>(step: MatterStep & { kind: K }, name: MatterValueName<K>): number {
  return step.values[name] ?? valuesOfKind(step.kind)[name]!.usual
}

/** The first thing of a step that is not in the table or out of its range, in words. */
export function matterFault({ kind, values }: Pick<MatterStep, 'kind' | 'values'>): string | undefined {
  for (const [name, value] of Object.entries(values)) {
    const known = valuesOfKind(kind)[name]
    if (!known) return `${kind} has no ${name}; it has ${Object.keys(matterValues[kind]).join(', ')}`
    if (!(value >= known.least && value <= known.most)) return `${name} of ${kind} goes from ${known.least} to ${known.most}, not ${value}`
  }
  return undefined
}
