import { choices, envelopeNames, parametersOf } from '@heliaster/core/kit'
import type { Clearable, KitEdit, OwnSettings, Pad } from '@heliaster/core/kit'

export const SETTING_GROUPS = [
  { value: 'all', text: 'All' },
  { value: 'level', text: 'Level and pan' },
  { value: 'pitch', text: 'Tune' },
  { value: 'playing', text: 'How it plays' },
  { value: 'shape', text: 'Shape' },
  { value: 'look', text: 'Tint and group' },
] as const
export type SettingGroup = (typeof SETTING_GROUPS)[number]['value']

const LEVEL = ['gainDb', 'pan'] as const
const PITCH = ['tuneCents'] as const
const shaping = parametersOf('pad').filter((name) => !([...LEVEL, ...PITCH] as string[]).includes(name))

const KEYS: Record<Exclude<SettingGroup, 'all'>, readonly Clearable[]> = {
  look: ['tint', 'group'],
  level: [...LEVEL, 'mute', 'bus'],
  pitch: [...PITCH, 'rootNote'],
  playing: ['mode', 'maxStrikes', 'pick', 'counter', 'startAgain', 'responses'],
  shape: [...shaping, ...(Object.keys(choices) as (keyof typeof choices)[]), ...envelopeNames, 'order'],
}

/** Gives pads the settings of another: what it leaves as it comes is left so in them too. Names and clips stay. */
export function copySettingsEdits(from: Pad, to: readonly Pad[], group: SettingGroup): KitEdit[] {
  const keys = group === 'all' ? Object.values(KEYS).flat() : KEYS[group]
  const { values, choices: chosen, envelopes, ...rest } = from.own
  const own: OwnSettings = {
    ...among(rest, keys),
    ...nonEmpty({ values: among(values, keys), choices: among(chosen, keys), envelopes: among(envelopes, keys) }),
  }
  const set = new Set(Object.keys({ ...own, ...own.values, ...own.choices, ...own.envelopes }))
  const clear = keys.filter((key) => !set.has(key))
  return to.filter((pad) => pad !== from).map((pad) => ({ type: 'setPad', padId: pad.id, own, clear }))
}

function among(of: object | undefined, keys: readonly string[]): object {
  return Object.fromEntries(Object.entries(of ?? {}).filter(([key, value]) => keys.includes(key) && value !== undefined))
}

function nonEmpty(parts: Record<string, object>): OwnSettings {
  return Object.fromEntries(Object.entries(parts).filter(([, part]) => Object.keys(part).length > 0))
}
