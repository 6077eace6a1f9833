import { effectChoices, effects, effectStarts } from '@heliaster/core/kit'
import type { Insert, Kit } from '@heliaster/core/kit'

import { choiceWords, effectFields } from '../../../kit-view/buses/effect-words'
import { isAsStart } from '../../../kit-view/buses/inserts'

export function numberOf({ kind, values }: Insert, name: string): number {
  return values[name] ?? (effects[kind] as Record<string, { usual: number }>)[name]!.usual
}

export function choiceOf({ kind, choices }: Insert, name: string): string {
  return choices[name] ?? effectChoices[kind]?.[name]?.[0] ?? ''
}

/** How an effect stands, in a line: by its start, or by what matters most of it. */
export function shortWords(kit: Kit, insert: Insert): string {
  const { kind } = insert
  if (kind === 'room' && !insert.audio) return 'waits for an impulse'
  const start = effectStarts[kind].find((one) => isAsStart(insert, one))
  const key = insert.key && kit.buses.find(({ id }) => id === insert.key)?.name
  const heard = key ? `, listens to ${key}` : ''
  if (start) return `${start.name}${heard}`
  if (kind === 'equaliser') return `${equaliserWords(insert)}${heard}`
  const words = Object.entries(choiceWords).flatMap(([name, { words: of }]) => (name.startsWith(`${kind}.`) ? [of[choiceOf(insert, name.split('.')[1]!)] ?? ''] : [])) // prettier-ignore
  const fields = effectFields[kind].first.filter(({ where }) => !where || where[1].includes(choiceOf(insert, where[0]))).slice(0, 2)
  const numbers = fields.map(({ value, label, unit, times = 1 }) => `${label} ${Number((times * numberOf(insert, value)).toFixed(1))}${unit ? ` ${unit}` : ''}`) // prettier-ignore
  return [...words.slice(0, 1), ...numbers].join(', ') + heard
}

function equaliserWords(insert: Insert): string {
  const bands = [1, 2, 3, 4, 5, 6].filter((band) => {
    const bandKind = choiceOf(insert, `band${band}Kind`)
    return bandKind === 'notch' || bandKind.endsWith('Pass') || numberOf(insert, `band${band}Db`) !== 0
  })
  return bands.length === 0 ? 'flat' : `${bands.length} of 6 bands`
}
