import { choices, envelopeNames, parametersOf } from '@heliaster/core/kit'
import type { Clearable, KitEdit, OwnSettings, Pad } from '@heliaster/core/kit'

export const SETTING_GROUPS = [
  { value: 'all', text: 'All' },
  { value: 'level', text: 'Level and pan' },
  { value: 'pitch', text: 'Tune' },
  { value: 'playing', text: 'How it plays' },
  { value: 'shape', text: 'Shape' },
  { value: 'rays', text: 'Rays of the same name' },
  { value: 'look', text: 'Tint and group' },
] as const
export type SettingGroup = (typeof SETTING_GROUPS)[number]['value']

const LEVEL = ['gainDb', 'pan'] as const
const PITCH = ['tuneCents'] as const
const shaping = parametersOf('pad').filter((name) => !([...LEVEL, ...PITCH] as string[]).includes(name))

const KEYS: Record<Exclude<SettingGroup, 'all' | 'rays'>, readonly Clearable[]> = {
  look: ['tint', 'group'],
  level: [...LEVEL, 'mute', 'bus'],
  pitch: [...PITCH, 'rootNote'],
  playing: ['mode', 'maxStrikes', 'pick', 'counter', 'startAgain', 'responses'],
  shape: [...shaping, ...(Object.keys(choices) as (keyof typeof choices)[]), ...envelopeNames, 'order'],
}

/** Gives pads the settings of another: what it leaves as it comes is left so in them too. Names and clips stay. */
export function copySettingsEdits(from: Pad, to: readonly Pad[], group: SettingGroup): KitEdit[] {
  if (group === 'rays') return raysAlike(from, to)
  const keys = group === 'all' ? Object.values(KEYS).flat() : KEYS[group]
  const { values, choices: chosen, envelopes, ...rest } = from.own
  const own: OwnSettings = {
    ...among(rest, keys),
    ...nonEmpty({ values: among(values, keys), choices: among(chosen, keys), envelopes: among(envelopes, keys) }),
  }
  const set = new Set(Object.keys({ ...own, ...own.values, ...own.choices, ...own.envelopes }))
  const clear = keys.filter((key) => !set.has(key))
  const ofPads = to.filter((pad) => pad !== from).map((pad): KitEdit => ({ type: 'setPad', padId: pad.id, own, clear }))
  return group === 'all' ? [...ofPads, ...raysAlike(from, to)] : ofPads
}

/** Gives the rays of pads what the rays of the same name have on another: a microphone is set alike everywhere. */
function raysAlike(from: Pad, to: readonly Pad[]): KitEdit[] {
  const named = new Map(from.rays.map((ray) => [ray.name, ray]))
  return to.filter((pad) => pad !== from).flatMap((pad) =>
    pad.rays.flatMap((ray): KitEdit[] => {
      const model = named.get(ray.name)
      if (!model) return []
      const { values = {}, choices: chosen = {}, envelopes = {}, order, mute } = model
      const set = new Set(Object.keys({ ...values, ...chosen, ...envelopes }))
      const own = Object.keys({ ...ray.values, ...ray.choices, ...ray.envelopes, ...(ray.order ? { order: 0 } : {}) }) as Clearable[]
      const clear = own.filter((key) => !set.has(key) && !(key === 'order' && order))
      return [{ type: 'setRay', padId: pad.id, rayId: ray.id, fields: { ...nonEmpty({ values, choices: chosen, envelopes }), ...(order ? { order } : {}), mute }, clear }]
    }),
  )
} // prettier-ignore

function among(of: object | undefined, keys: readonly string[]): object {
  return Object.fromEntries(Object.entries(of ?? {}).filter(([key, value]) => keys.includes(key) && value !== undefined))
}

function nonEmpty(parts: Record<string, object>): OwnSettings {
  return Object.fromEntries(Object.entries(parts).filter(([, part]) => Object.keys(part).length > 0))
}
