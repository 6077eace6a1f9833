import { effects, effectStarts } from '@heliaster/core/kit'
import type { Effect, EffectStart, Insert } from '@heliaster/core/kit'

import { makeId } from '../../documents/make-id'

/** As many as a bus has places for. */
export const MOST_INSERTS = 6

/** A new effect of a kind, as its first start has it. */
export function madeInsert(kind: Effect, isReturn: boolean): Insert {
  const [first] = effectStarts[kind]
  return { id: makeId<Insert['id']>('insert'), kind, bypass: false, ...startedBy(first!, kind, isReturn) }
}

/** What a start makes of an effect. A return hears what is sent there on its own: nothing of that goes past the effect. */
export function startedBy(start: EffectStart, kind: Effect, isReturn: boolean): Pick<Insert, 'values' | 'choices'> {
  const whole: Insert['values'] = isReturn && 'mix' in effects[kind] ? { mix: 1 } : {}
  return { values: { ...start.values, ...whole }, choices: { ...start.choices } }
}

/** Whether an effect stands as a start has it, in a bus or in a return. */
export function isAsStart({ kind, values, choices }: Insert, start: EffectStart): boolean {
  const same = (one: Readonly<Record<string, unknown>>, other: Readonly<Record<string, unknown>> = {}) =>
    Object.keys(one).length === Object.keys(other).length && Object.entries(one).every(([name, value]) => other[name] === value)
  return same(choices, start.choices) && [false, true].some((isReturn) => same(values, startedBy(start, kind, isReturn).values))
}
