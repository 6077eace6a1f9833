import type { MatterKind, MatterStep } from '@heliaster/core/kit'
import { matterValue } from '@heliaster/core/kit'

export interface StepField {
  readonly value: string
  readonly label: string
  readonly unit: string
  readonly step: number
  /** What is shown is so many times what is kept. */
  readonly times?: number
  readonly power?: number
  readonly neutral?: number
  /** Set first; the rest on request. */
  readonly isFirst?: boolean
}

/** One clear way to each need: what it is called, what it does, and the step that does it. */
export interface Need {
  readonly name: string
  readonly does: string
  readonly step: (seconds: number, tempoBpm: number) => Omit<MatterStep, 'id' | 'bypass'>
}

export const needs: readonly Need[] = [
  { name: 'Longer', does: 'Or shorter: its pitch and its attack stay.', step: () => ({ kind: 'time', values: { lengthPercent: 200 } }) },
  { name: 'Deeper', does: 'Or higher: its length stays.', step: () => ({ kind: 'time', values: { pitchCents: -700 } }) },
  { name: 'In beats', does: 'As long as so many beats of the kit.', step: (seconds, tempoBpm) => ({ kind: 'time', values: { beats: nearBeats(seconds, tempoBpm) } }) },
  {
    name: 'Same length at every note',
    does: 'It follows the note, and lasts as long at each.',
    step: () => ({ kind: 'time', values: { sameLength: 1 } }),
  },
  { name: 'Slow down', does: 'Its speed drawn along it, to a standstill that sounds on.', step: (seconds) => ({ kind: 'time', values: {}, curve: slowing(seconds) }) },
  { name: 'Grains', does: 'Short grains of it, laid anew: a cloud, a texture.', step: () => ({ kind: 'grains', values: { lengthPercent: 300, grainMs: 90, atOnce: 6, strayMs: 40, strayCents: 15 } }) },
  { name: 'Another body', does: 'Its resonances larger or smaller, its pitch as it was.', step: () => ({ kind: 'resonances', values: { movePercent: 70 } }) },
  { name: 'Only what rings', does: 'Its noise is left out.', step: () => ({ kind: 'ringing', values: {} }) },
  { name: 'Only the noise', does: 'What rings is left out.', step: () => ({ kind: 'noise', values: {} }) },
  { name: 'Fresh noise', does: 'Its noise made anew, as long as wanted, another one each time.', step: () => ({ kind: 'noise', values: { anew: 1, lengthPercent: 200, takes: 4 } }) },
] // prettier-ignore

/** The number of beats, in quarters, that changes a hit's length the least. */
export const nearBeats = (seconds: number, tempoBpm: number) => Math.min(64, Math.max(0.25, Math.round((4 * seconds * tempoBpm) / 60) / 4))

/** At its own pace for its stroke, then slower and slower until it stands, while it is still loud. */
const slowing = (seconds: number) => [
  { seconds: 0, value: 100 },
  { seconds: round(0.04 * seconds), value: 100 },
  { seconds: round(0.2 * seconds), value: 0 },
]
const round = (seconds: number) => Math.round(seconds * 1000) / 1000

const length: StepField = { value: 'lengthPercent', label: 'Length', unit: '%', step: 1, power: 2, neutral: 100, isFirst: true }
const keep: StepField = { value: 'keepMs', label: 'Attack kept', unit: 'ms', step: 1, power: 2 }
const divide: StepField = { value: 'divideHz', label: 'Below this all rings', unit: 'Hz', step: 1, power: 3, isFirst: true }
const steady: StepField = { value: 'steadyMs', label: 'Rings if steady for', unit: 'ms', step: 1, power: 2, isFirst: true }

const fields: Readonly<Record<MatterKind, readonly StepField[]>> = {
  time: [
    length,
    { value: 'beats', label: 'Beats', unit: 'beats', step: 0.25, isFirst: true },
    { value: 'pitchCents', label: 'Pitch', unit: 'semitones', step: 0.01, times: 0.01, neutral: 0, isFirst: true },
    { value: 'freshNoise', label: 'Noise made anew', unit: '%', step: 1, times: 100, isFirst: true },
    { value: 'keepResonances', label: 'Resonances stay', unit: '%', step: 1, times: 100 },
    keep,
    { value: 'takes', label: 'Takes in turn', unit: '', step: 1 },
    { value: 'draw', label: 'Another draw', unit: '', step: 1 },
  ],
  grains: [
    length,
    { value: 'grainMs', label: 'Each grain', unit: 'ms', step: 1, power: 2, isFirst: true },
    { value: 'atOnce', label: 'At once', unit: '', step: 0.1, power: 2, isFirst: true },
    { value: 'strayMs', label: 'Stray in time', unit: 'ms', step: 1, power: 2, isFirst: true },
    { value: 'strayCents', label: 'Stray in pitch', unit: 'cents', step: 1, power: 2, isFirst: true },
    { value: 'takes', label: 'Takes in turn', unit: '', step: 1 },
    { value: 'draw', label: 'Another draw', unit: '', step: 1 },
    keep,
  ],
  resonances: [
    { value: 'movePercent', label: 'Resonances', unit: '%', step: 1, power: 2, neutral: 100, isFirst: true },
    { value: 'followNote', label: 'Go with the note', unit: '%', step: 1, times: 100, neutral: 1 },
    { value: 'byVelocity', label: 'At the softest strike', unit: 'octaves', step: 0.05, neutral: 0 },
    { value: 'byChance', label: 'By chance', unit: 'octaves', step: 0.01 },
  ],
  ringing: [divide, steady],
  noise: [
    { ...length, label: 'Length' },
    { value: 'anew', label: 'Made anew', unit: '%', step: 1, times: 100, isFirst: true },
    divide,
    steady,
    { value: 'takes', label: 'Takes in turn', unit: '', step: 1, isFirst: true },
    { value: 'draw', label: 'Another draw', unit: '', step: 1 },
    keep,
  ],
}

/** The numbers of a step: those that say the same thing in another way are left out, as length where it is in beats, and those that nothing depends on. */
export function fieldsOf(step: MatterStep): readonly StepField[] {
  const all = fields[step.kind]
  if (step.kind !== 'time') return all
  const time = step as MatterStep & { kind: 'time' }
  const left = [
    matterValue(time, 'beats') > 0 ? 'lengthPercent' : 'beats',
    ...(matterValue(time, 'freshNoise') > 0 ? [] : ['takes', 'draw']),
  ]
  return all.filter(({ value }) => !left.includes(value))
}

/** What a step is called by what it does, in a few words. */
export function stepTitle(step: MatterStep): string {
  if (step.kind === 'time')
    return (step.values.sameLength ?? 0) > 0 ? 'Same length at every note' : step.curve ? 'Speed' : 'Length and pitch'
  if (step.kind === 'noise') return (step.values.anew ?? 0) > 0 ? 'Fresh noise' : 'Only the noise'
  return { grains: 'Grains', resonances: 'Resonances', ringing: 'Only what rings' }[step.kind]
}

/** What is set on it, in short. */
export function stepWords(step: MatterStep): string {
  if (step.bypass) return 'off'
  const parts = Object.entries(step.values).flatMap(([name, value]) => {
    const field = fieldsOf(step).find((one) => one.value === name)
    return field && value !== field.neutral ? [`${field.label.toLowerCase()} ${shown(field, value)}`] : []
  })
  const each = (step.values.sameLength ?? 0) > 0 ? ['made for each note of its pad'] : []
  const stands = step.curve?.some(({ value }) => value < 1) ? ['comes to a standstill'] : []
  return [...(step.part ? ['a part of it'] : []), ...each, ...stands, ...parts].slice(0, 3).join(', ') || 'as it is'
}

const shown = ({ times = 1, step, unit }: StepField, value: number): string =>
  `${(value * times).toFixed(step < 0.1 ? 2 : step < 1 ? 1 : 0).replace(/\.0+$/, '')}${unit === '%' ? '%' : unit ? ` ${unit}` : ''}`
