import { parameterRow } from '@heliaster/core/kit'
import type { Parameter, Unit } from '@heliaster/core/kit'

/** What parameters of pads and rays are called on screen. */
export const PARAMETER_NAMES: Partial<Record<Parameter, string>> = {
  gainDb: 'Level',
  pan: 'Place',
  tuneCents: 'Tuning',
  startSeconds: 'Start',
  rollSeconds: 'Time between strikes while held',
  endSeconds: 'End',
  fadeInSeconds: 'Fade in',
  fadeOutSeconds: 'Fade out',
  decayScale: 'Decay',
  filter1CutoffHz: 'Cutoff',
  filter1Damping: 'Damping',
  filter1EnvelopeCents: 'Filter envelope',
  filter1GainDb: 'Filter gain',
  filter2CutoffHz: 'Second cutoff',
  filter2Damping: 'Second damping',
  filter2EnvelopeCents: 'Second filter envelope',
  filter2GainDb: 'Second filter gain',
  levelEnvelope: 'Share of the level envelope',
  pitchEnvelope: 'Share of the pitch envelope',
  attackDb: 'Attack',
  tailDb: 'Tail',
  driveDb: 'Drive',
  driveAfterDb: 'Drive after the filters',
  driveLevelDb: 'Level of the drive',
  lowCutHz: 'Low cut',
  crush: 'Dirt',
  crushBits: 'Bits of the dirt',
  crushRateHz: 'Rate of the dirt',
  width: 'Width',
  delaySeconds: 'Delay',
  glideSeconds: 'Glide',
  keyTrack: 'Share of the note',
  bendTrack: 'Share of the bend',
}

/** What belongs together where many stand on one sheet. */
const GROUPS: readonly (readonly [name: string, of: readonly Parameter[]])[] = [
  ['Level and place', ['gainDb', 'pan', 'width', 'attackDb', 'tailDb', 'levelEnvelope']],
  ['Time', ['startSeconds', 'endSeconds', 'rollSeconds', 'fadeInSeconds', 'fadeOutSeconds', 'decayScale', 'delaySeconds']],
  ['Pitch', ['tuneCents', 'pitchEnvelope', 'glideSeconds', 'keyTrack', 'bendTrack']],
  ['Filter', ['filter1CutoffHz', 'filter1Damping', 'filter1EnvelopeCents', 'filter1GainDb', 'lowCutHz']],
  ['Second filter', ['filter2CutoffHz', 'filter2Damping', 'filter2EnvelopeCents', 'filter2GainDb']],
  ['Drive and dirt', ['driveDb', 'driveAfterDb', 'driveLevelDb', 'crush', 'crushBits', 'crushRateHz']],
]

/** Parameters as choices, those that belong together under one name. */
export function parameterChoices(params: readonly Parameter[]): { value: Parameter; text: string; group: string }[] {
  const placed = GROUPS.flatMap(([group, of]) => of.filter((param) => params.includes(param)).map((value) => ({ value, text: parameterWords(value).text, group }))) // prettier-ignore
  const others = params.filter((param) => !placed.some(({ value }) => value === param))
  return [...placed, ...others.map((value) => ({ value, text: parameterWords(value).text, group: 'Others' }))]
}

/** Units as they are read and typed; `factor` turns what a document holds into them. */
const UNITS: Readonly<Record<Unit, { readonly unit: string; readonly factor: number }>> = {
  dB: { unit: 'dB', factor: 1 },
  share: { unit: '%', factor: 100 },
  cents: { unit: 'cents', factor: 1 },
  seconds: { unit: 'ms', factor: 1000 },
  Hz: { unit: 'Hz', factor: 1 },
  ratio: { unit: '%', factor: 100 },
  octaves: { unit: 'octaves', factor: 1 },
  bits: { unit: 'bits', factor: 1 },
}

export function parameterWords(param: Parameter): { readonly text: string; readonly unit: string; readonly factor: number } {
  return { text: PARAMETER_NAMES[param] ?? param, ...UNITS[parameterRow(param).unit] }
}
