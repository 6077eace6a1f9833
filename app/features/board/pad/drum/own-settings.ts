import type { Clearable, Pad, Parameter } from '@heliaster/core/kit'

import { parameterWords } from '../../../../kit-view/parameter-words'
import { MODES, PICKS } from '../../../../kit-view/play-choices'

type Own = Pad['own']

/** One thing that is a pad's own: in words, its value, and what is cleared to take it back. */
export interface OwnSetting {
  readonly words: string
  readonly value: string
  readonly names: readonly Clearable[]
}

const WORDS: Partial<Record<keyof Own, string>> = {
  family: 'Kind',
  tint: 'Colour',
  group: 'Group',
  mode: 'When struck',
  maxStrikes: 'Strikes at once',
  pick: 'Next turn',
  counter: 'How turns are counted',
  startAgain: 'When turns start again',
  mute: 'Mute',
  bus: 'Bus',
  rootNote: 'Root note',
  order: 'Order of what shapes it',
  responses: 'Responses',
}

/** All that is set on a pad itself, but its name, in the order in which it is seen. */
export function ownSettings({ own }: Pick<Pad, 'own'>): OwnSetting[] {
  const { name: _name, values = {}, choices = {}, envelopes = {}, ...rest } = own
  const plain = Object.entries(rest).map(([name, value]) => ({ words: WORDS[name as keyof Own] ?? name, value: valueWords(name, value), names: [name] })) // prettier-ignore
  const numbers = Object.entries(values).map(([name, value]) => {
    const { text, unit, factor } = parameterWords(name as Parameter)
    return { words: text, value: `${Number((value * factor).toFixed(2))} ${unit}`, names: [name] }
  })
  const chosen = Object.entries(choices).map(([name, value]) => ({ words: spaced(name), value: String(value), names: [name] }))
  const drawn = Object.keys(envelopes).map((name) => ({ words: `Envelope of ${spaced(name).toLowerCase()}`, value: '', names: [name] }))
  return [...plain, ...numbers, ...chosen, ...drawn] as OwnSetting[]
}

function valueWords(name: string, value: unknown): string {
  if (name === 'mode') return MODES.find((one) => one.value === value)?.text ?? String(value)
  if (name === 'pick') return PICKS.find((one) => one.value === value)?.text ?? String(value)
  if (Array.isArray(value)) return String(value.length)
  return typeof value === 'boolean' ? (value ? 'on' : 'off') : String(value)
}

/** `filter1Kind` is "Filter 1 kind". */
function spaced(name: string): string {
  const words = name.replace(/([A-Z]|\d+)/g, ' $1').toLowerCase().trim() // prettier-ignore
  return words[0]!.toUpperCase() + words.slice(1)
}
