import type { KitEdit, Pad, PadSettings } from '@heliaster/core/kit'

export const SETTING_GROUPS = [
  { value: 'all', text: 'All' },
  { value: 'level', text: 'Level and pan' },
  { value: 'pitch', text: 'Tune' },
  { value: 'playing', text: 'How it plays' },
  { value: 'shape', text: 'Shape' },
  { value: 'look', text: 'Tint and group' },
] as const
export type SettingGroup = (typeof SETTING_GROUPS)[number]['value']

const KEYS: Record<Exclude<SettingGroup, 'all'>, readonly (keyof PadSettings)[]> = {
  look: ['tint', 'group'],
  level: ['gainDb', 'pan', 'mute', 'bus'],
  pitch: ['tuneCents', 'rootNote'],
  playing: ['mode', 'maxStrikes', 'pick', 'counter', 'startAgain', 'responses'],
  shape: ['shape'],
}

/** Gives pads the settings of another: what it leaves as it comes is left so in them too. Names and clips stay. */
export function copySettingsEdits(from: Pad, to: readonly Pad[], group: SettingGroup): KitEdit[] {
  const keys = group === 'all' ? Object.values(KEYS).flat() : KEYS[group]
  const own = Object.fromEntries(keys.flatMap((key) => (from.own[key] === undefined ? [] : [[key, from.own[key]]])))
  const clear = keys.filter((key) => from.own[key] === undefined)
  return to.filter((pad) => pad !== from).map((pad) => ({ type: 'setPad', padId: pad.id, own, clear: clear as never }))
}
