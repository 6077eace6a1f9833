import type { Effect } from '@heliaster/core/kit'

/** What each effect is called, and what it is for, in a line. */
export const effectWords: { readonly [Kind in Effect]: { readonly name: string; readonly does: string } } = {
  equaliser: { name: 'Equaliser', does: 'Raises or lowers six bands of the spectrum.' },
  compressor: { name: 'Compressor', does: 'Lowers what is loud, so that it sits together.' },
  gate: { name: 'Gate', does: 'Closes between strikes.' },
  limiter: { name: 'Limiter', does: 'Lets nothing above a ceiling.' },
  drive: { name: 'Drive', does: 'Adds harmonics, from warm to torn.' },
  crush: { name: 'Dirt', does: 'Fewer bits and a lower rate.' },
  transient: { name: 'Attack and tail', does: 'Raises or lowers beginnings and ends.' },
  width: { name: 'Width', does: 'How far apart left and right stand.' },
  echo: { name: 'Echo', does: 'Repeats in seconds or in beats.' },
  reverb: { name: 'Reverb', does: 'A room, a hall or a plate.' },
  room: { name: 'Recorded room', does: 'A room from an impulse of your own.' },
  resonator: { name: 'Resonator', does: 'Tuned strings or combs that ring along.' },
}

/** How a number of an effect is set: by which slider, in which unit. */
export interface EffectField {
  readonly value: string
  readonly label: string
  readonly unit: string
  readonly step: number
  /** What the shown number is of the kept one. */
  readonly times?: number
  readonly min?: number
  readonly max?: number
  readonly power?: number
  readonly neutral?: number
  /** Shown only where a choice says so. */
  readonly where?: readonly [choice: string, is: readonly string[]]
}

const percent = (value: string, label: string, more: Partial<EffectField> = {}): EffectField => ({ value, label, unit: '%', step: 1, times: 100, ...more }) // prettier-ignore
const db = (value: string, label: string, more: Partial<EffectField> = {}): EffectField => ({
  value,
  label,
  unit: 'dB',
  step: 0.1,
  ...more,
})
const ms = (value: string, label: string, more: Partial<EffectField> = {}): EffectField => ({ value, label, unit: 'ms', step: 0.1, times: 1000, power: 3, ...more }) // prettier-ignore
const hz = (value: string, label: string, more: Partial<EffectField> = {}): EffectField => ({ value, label, unit: 'Hz', step: 1, power: 4, ...more }) // prettier-ignore
const mix = percent('mix', 'Mixed in')

const RANGES = ['low', 'middle', 'high']
/** One range has no name; of two the second is the high one. */
export const rangeName = (range: number, ranges: number): string =>
  ranges === 1 ? '' : `, ${RANGES[ranges === 2 && range === 2 ? 2 : range - 1]}`
const upTo = (range: number): readonly [string, readonly string[]] => ['ranges', ['1', '2', '3'].slice(range - 1)]

const compressorRange = (range: number): EffectField[] => [
  db(`threshold${range}Db`, 'Above', { where: upTo(range) }),
  { value: `ratio${range}`, label: 'Held back', unit: 'to 1', step: 0.1, max: 20, power: 2, where: upTo(range) },
  ms(`attack${range}Seconds`, 'Attack', { where: upTo(range) }),
  ms(`release${range}Seconds`, 'Release', { where: upTo(range) }),
  db(`makeUp${range}Db`, 'Raised after', { neutral: 0, where: upTo(range) }),
]
const splits = [
  hz('split1Hz', 'First border', { where: ['ranges', ['2', '3']] }),
  hz('split2Hz', 'Second border', { where: ['ranges', ['3']] }),
]

/** What is set first, and what is set more seldom. */
export const effectFields: { readonly [Kind in Effect]: { readonly first: readonly EffectField[]; readonly rest: readonly EffectField[] } } = {
  equaliser: { first: [], rest: [] },
  compressor: {
    first: [...compressorRange(1), mix],
    rest: [db('kneeDb', 'Bend of its curve'), ...splits, ...compressorRange(2), ...compressorRange(3)],
  },
  gate: {
    first: [db('thresholdDb', 'Opens at'), db('rangeDb', 'Closed'), ms('releaseSeconds', 'Release')],
    rest: [ms('attackSeconds', 'Attack'), ms('holdSeconds', 'Hold')],
  },
  limiter: {
    first: [db('ceiling1Db', 'Ceiling'), ms('releaseSeconds', 'Release')],
    rest: [...splits, db('ceiling2Db', 'Second ceiling', { where: upTo(2) }), db('ceiling3Db', 'Third ceiling', { where: upTo(3) })],
  },
  drive: { first: [db('driveDb', 'Drive'), db('levelDb', 'Level after', { min: -36, max: 12, neutral: 0 }), mix], rest: [] },
  crush: { first: [{ value: 'bits', label: 'Bits', unit: '', step: 0.1 }, hz('rateHz', 'Rate', { max: 48000 }), mix], rest: [] },
  transient: { first: [db('attackDb', 'Attack', { neutral: 0 }), db('tailDb', 'Tail', { neutral: 0 })], rest: [] },
  width: { first: [percent('width', 'Width', { neutral: 100 }), hz('monoBelowHz', 'One channel below', { power: 2 })], rest: [] },
  echo: {
    first: [
      { value: 'beats', label: 'Beats', unit: '', step: 0.125, max: 4, where: ['time', ['beats']] },
      ms('seconds', 'Time', { where: ['time', ['seconds']], max: 2000 }),
      percent('feedback', 'Again'),
      mix,
    ],
    rest: [hz('lowPassHz', 'Highs to'), hz('highPassHz', 'Lows from'), percent('toAndFro', 'To and fro')],
  },
  reverb: {
    first: [
      { value: 'decaySeconds', label: 'Decay', unit: 's', step: 0.01, max: 20, power: 3 },
      { value: 'size', label: 'Size', unit: 'times', step: 0.01, power: 2 },
      mix,
    ],
    rest: [
      { value: 'decayLow', label: 'Lows decay', unit: 'times', step: 0.01, power: 2, neutral: 1 },
      { value: 'decayHigh', label: 'Highs decay', unit: 'times', step: 0.01, power: 2, neutral: 1 },
      ms('beforeSeconds', 'Silent before', { max: 250, power: 2 }),
      percent('early', 'First reflections'),
      percent('density', 'Density'),
    ],
  },
  room: {
    first: [percent('near', 'Near', { neutral: 50 }), mix],
    rest: [{ value: 'decayScale', label: 'Decay', unit: 'times', step: 0.01, max: 2, neutral: 1 }, ms('beforeSeconds', 'Silent before', { max: 250, power: 2 })],
  },
  resonator: {
    first: [hz('hz', 'Tone', { max: 4000, step: 0.1 }), { value: 'decaySeconds', label: 'Decay', unit: 's', step: 0.01, max: 10, power: 3 }, mix],
    rest: [percent('position', 'Struck at'), percent('damping', 'Softened')],
  },
} // prettier-ignore

/** Choices of effects in words. */
export const choiceWords: Readonly<Record<string, { readonly label: string; readonly words: Readonly<Record<string, string>> }>> = {
  'compressor.ranges': { label: 'In ranges of frequency', words: { 1: 'One', 2: 'Two', 3: 'Three' } },
  'limiter.ranges': { label: 'In ranges of frequency', words: { 1: 'One', 2: 'Two', 3: 'Three' } },
  'drive.kind': { label: 'Character', words: { soft: 'Soft', hard: 'Hard', folded: 'Folded', uneven: 'Uneven' } },
  'echo.time': { label: 'Counted in', words: { seconds: 'Milliseconds', beats: 'Beats' } },
  'reverb.kind': { label: 'Kind', words: { room: 'Room', hall: 'Hall', plate: 'Plate' } },
  'resonator.kind': { label: 'Kind', words: { strings: 'Strings', combs: 'Combs' } },
  'resonator.chord': { label: 'Chord', words: { one: 'One tone', octaves: 'Octaves', fifths: 'Fifths', major: 'Major', minor: 'Minor' } },
}

export const bandKindWords: Readonly<Record<string, string>> = {
  peak: 'Peak',
  lowShelf: 'Low shelf',
  highShelf: 'High shelf',
  notch: 'Notch',
  lowPass: 'Low pass',
  highPass: 'High pass',
}
