/**
 * The one table of parameters: all that a number can be set for, by name. Documents, compiler, engine, screens, check and
 * file formats read it, and nothing else knows what a parameter's range or unit is.
 */

/** What a parameter can be set on. A kit's own values are those of its master. */
export const scopes = ['kit', 'bus', 'send', 'insert', 'pad', 'ray', 'band', 'turn', 'slice'] as const
export type Scope = (typeof scopes)[number]

export const units = ['dB', 'share', 'cents', 'seconds', 'Hz', 'ratio', 'octaves', 'bits'] as const
export type Unit = (typeof units)[number]

export interface ParameterRow {
  readonly unit: Unit
  readonly min: number
  readonly max: number
  /** What it is where nobody has set it. */
  readonly usual: number
  readonly scopes: readonly Scope[]
  /** Whether it follows while a strike sounds, or is settled when the strike begins. */
  readonly moves: 'live' | 'strike'
  /** How values of several scopes meet: they add up, or the innermost one counts. */
  readonly joins: 'add' | 'replace'
  /** What responses and beads move it by, where that is not its own unit: cents of a frequency, octaves of a ratio. */
  readonly movedBy?: Unit
  /** Chance is named by it: a number once given never changes and is never given again. 0..255. */
  readonly draw: number
  /** In which of its scopes the engine plays it. */
  readonly played: readonly Scope[]
}

const level = ['kit', 'bus', 'send', 'pad', 'ray', 'band', 'turn', 'slice'] as const
const strike = ['pad', 'ray', 'turn'] as const
const shaped = strike
const bipolarDb = { unit: 'dB', min: -24, max: 24, usual: 0 } as const
const live = { moves: 'live', joins: 'replace' } as const
const settled = { moves: 'strike', joins: 'replace' } as const
/** -3 dB at the cutoff. */
const PLAIN_DAMPING = Math.SQRT2

/** Gains are dB, frequencies Hz, times seconds; names carry their units. Damping is 1/Q. */
export const parameters = {
  gainDb: { unit: 'dB', min: -120, max: 60, usual: 0, scopes: level, moves: 'live', joins: 'add', draw: 0, played: level },
  pan: { unit: 'share', min: -1, max: 1, usual: 0, scopes: ['bus', 'pad', 'ray', 'turn', 'slice'], moves: 'live', joins: 'add', draw: 1, played: ['bus', 'pad', 'ray', 'turn', 'slice'] },
  tuneCents: { unit: 'cents', min: -12000, max: 12000, usual: 0, scopes: ['pad', 'ray', 'turn', 'slice'], moves: 'live', joins: 'add', draw: 2, played: [...shaped, 'slice'] },
  startSeconds: { unit: 'seconds', min: 0, max: 600, usual: 0, scopes: strike, ...settled, draw: 3, played: shaped },
  filter1CutoffHz: { unit: 'Hz', min: 10, max: 24000, usual: 2000, scopes: strike, ...live, movedBy: 'cents', draw: 4, played: shaped },
  decayScale: { unit: 'ratio', min: 0.01, max: 100, usual: 1, scopes: strike, ...settled, movedBy: 'octaves', draw: 5, played: shaped },
  filter1Damping: { unit: 'ratio', min: 0.05, max: 2, usual: PLAIN_DAMPING, scopes: strike, ...live, draw: 6, played: shaped },
  filter1EnvelopeCents: { unit: 'cents', min: -12000, max: 12000, usual: 0, scopes: strike, ...live, draw: 7, played: shaped },
  filter1GainDb: { ...bipolarDb, scopes: strike, ...live, draw: 8, played: shaped },
  filter2CutoffHz: { unit: 'Hz', min: 10, max: 24000, usual: 2000, scopes: strike, ...live, movedBy: 'cents', draw: 9, played: shaped },
  filter2Damping: { unit: 'ratio', min: 0.05, max: 2, usual: PLAIN_DAMPING, scopes: strike, ...live, draw: 10, played: shaped },
  filter2EnvelopeCents: { unit: 'cents', min: -12000, max: 12000, usual: 0, scopes: strike, ...live, draw: 11, played: shaped },
  filter2GainDb: { ...bipolarDb, scopes: strike, ...live, draw: 12, played: shaped },
  levelEnvelope: { unit: 'share', min: 0, max: 1, usual: 1, scopes: strike, ...live, draw: 13, played: shaped },
  pitchEnvelope: { unit: 'ratio', min: -4, max: 4, usual: 1, scopes: strike, ...live, draw: 14, played: shaped },
  driveDb: { unit: 'dB', min: 0, max: 60, usual: 0, scopes: strike, ...live, draw: 15, played: shaped },
  driveAfterDb: { unit: 'dB', min: 0, max: 60, usual: 0, scopes: strike, ...live, draw: 16, played: shaped },
  driveLevelDb: { unit: 'dB', min: -60, max: 60, usual: 0, scopes: strike, ...live, draw: 17, played: shaped },
  crush: { unit: 'share', min: 0, max: 1, usual: 0, scopes: strike, ...live, draw: 18, played: shaped },
  crushBits: { unit: 'bits', min: 1, max: 24, usual: 8, scopes: strike, ...live, draw: 19, played: shaped },
  crushRateHz: { unit: 'Hz', min: 100, max: 192000, usual: 12000, scopes: strike, ...live, movedBy: 'cents', draw: 20, played: shaped },
  attackDb: { ...bipolarDb, scopes: strike, ...live, draw: 21, played: shaped },
  tailDb: { ...bipolarDb, scopes: strike, ...live, draw: 22, played: shaped },
  width: { unit: 'ratio', min: 0, max: 2, usual: 1, scopes: ['bus', ...strike], ...live, draw: 23, played: ['bus', ...shaped] },
  lowCutHz: { unit: 'Hz', min: 1, max: 2000, usual: 1, scopes: ['bus', ...strike], ...live, movedBy: 'cents', draw: 24, played: ['bus', ...shaped] },
  endSeconds: { unit: 'seconds', min: 0, max: 600, usual: 0, scopes: strike, ...settled, draw: 25, played: shaped },
  fadeInSeconds: { unit: 'seconds', min: 0, max: 60, usual: 0, scopes: strike, ...settled, draw: 26, played: shaped },
  fadeOutSeconds: { unit: 'seconds', min: 0, max: 60, usual: 0, scopes: strike, ...settled, draw: 27, played: shaped },
  delaySeconds: { unit: 'seconds', min: 0, max: 10, usual: 0, scopes: ['pad', 'ray', 'turn'], moves: 'strike', joins: 'add', draw: 28, played: shaped },
  keyTrack: { unit: 'share', min: 0, max: 1, usual: 0, scopes: ['ray'], ...settled, draw: 29, played: ['ray'] },
  bendTrack: { unit: 'share', min: 0, max: 1, usual: 0, scopes: ['ray'], ...live, draw: 30, played: ['ray'] },
  rollSeconds: { unit: 'seconds', min: 0, max: 10, usual: 0, scopes: ['pad'], ...settled, draw: 32, played: ['pad'] },
  glideSeconds: { unit: 'seconds', min: 0, max: 10, usual: 0, scopes: ['pad'], ...settled, draw: 31, played: ['pad'] },
} as const satisfies Record<string, ParameterRow> // prettier-ignore

export type Parameter = keyof typeof parameters
export const parameterNames = Object.keys(parameters) as Parameter[]
const rows: Record<Parameter, ParameterRow> = parameters

export function parameterRow(name: Parameter): ParameterRow {
  return rows[name]
}

/** The parameters that can be set on something of a kind. */
export function parametersOf(scope: Scope): Parameter[] {
  return parameterNames.filter((name) => rows[name].scopes.includes(scope))
}

/** What the engine plays for pads and rays, and responses move. */
export const movedParameters: readonly Parameter[] = parameterNames.filter((name) =>
  rows[name].played.some((scope) => scope === 'pad' || scope === 'ray'),
)

/** Values by parameter; what is absent is inherited or as usual, each by itself. */
export type Values = Partial<Record<Parameter, number>>
export type AllValues = Readonly<Record<Parameter, number>>

/** What every parameter is where nobody has set it. */
export const usualValues = Object.fromEntries(parameterNames.map((name) => [name, rows[name].usual])) as AllValues

/** What something has set for a parameter whose values add up, or what is usual. */
export function valueOf(of: { readonly values: Values }, name: Parameter): number {
  return of.values[name] ?? rows[name].usual
}

/** What is one of several rather than a number; inherited one by one, as values are. */
export const choices = {
  filter1Kind: ['off', 'lowPass', 'bandPass', 'highPass', 'notch', 'lowShelf', 'highShelf', 'peak'],
  filter1Slope: ['12', '24'],
  filter2Kind: ['off', 'lowPass', 'bandPass', 'highPass', 'notch', 'lowShelf', 'highShelf', 'peak'],
  filter2Slope: ['12', '24'],
  driveKind: ['soft', 'hard', 'folded', 'uneven'],
  crushFilter: ['off', 'on'],
} as const
export type Choice = keyof typeof choices
export type Choices = { [Name in Choice]?: (typeof choices)[Name][number] }
export type AllChoices = Readonly<Required<Choices>>
export type FilterKind = AllChoices['filter1Kind']

/** The first of each list is what is usual. */
export const usualChoices = Object.fromEntries(Object.entries(choices).map(([name, list]) => [name, list[0]])) as AllChoices

/** The stages of a voice, in their usual order. */
export const stages = ['transient', 'drive', 'crush', 'filter1', 'filter2'] as const
export type Stage = (typeof stages)[number]

/** How many dB a filter lifts or lowers what lies at its cutoff: 1/Q in dB. */
export function cutoffDb(damping: number): number {
  return -20 * Math.log10(damping)
}

/** The damping of a filter that lifts its cutoff by so many dB. */
export function dampingOf(atCutoffDb: number): number {
  return 10 ** (-atCutoffDb / 20)
}
