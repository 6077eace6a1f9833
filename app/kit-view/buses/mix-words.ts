import { effectChoices, insertsOf, movedNumbers } from '@heliaster/core/kit'
import type { Address, Insert, Kit, Parameter } from '@heliaster/core/kit'

import { parameterWords } from '../parameter-words'
import { effectFields, effectWords, rangeName } from './effect-words'

/** A number as it is read and typed: `factor` turns what a document holds into it. */
export interface NumberWords {
  readonly text: string
  readonly unit: string
  readonly factor: number
}

const OF_BANDS = { Hz: ['frequency', 'Hz'], Db: ['gain', 'dB'], Damping: ['damping', ''] } as const

/** What a number of an effect is called. */
export function numberWords(insert: Insert, name: string): NumberWords {
  const [, band, what] = /^band(\d)(Hz|Db|Damping)$/.exec(name) ?? []
  if (band && what) {
    const [text, unit] = OF_BANDS[what as keyof typeof OF_BANDS]
    return { text: `Band ${band} ${text}`, unit, factor: 1 }
  }
  const { first, rest } = effectFields[insert.kind]
  const field = [...first, ...rest].find(({ value }) => value === name)
  const range = /(\d)(Db|Seconds)?$/.exec(name)?.[1]
  const of = range && insert.kind === 'compressor' ? rangeName(Number(range), Number(insert.choices.ranges ?? 1)) : ''
  return { text: `${field?.label ?? name}${of}`, unit: field?.unit ?? '', factor: field?.times ?? 1 }
}

/** What an address that a tiller can lead is called, without whose it is. */
export function addressWords(kit: Kit, { scope, id, param }: Address): NumberWords {
  const insert = scope === 'insert' ? insertsOf(kit).find((one) => one.id === id) : undefined
  return insert ? numberWords(insert, param) : parameterWords(param as Parameter)
}

/** Whose an address of the mix is; nothing for what is gone and what is of pads. */
export function mixOwner(kit: Kit, { scope, id }: Address): string | undefined {
  if (scope === 'kit') return 'the mix'
  if (scope === 'bus') return kit.buses.find((bus) => bus.id === id)?.name
  if (scope !== 'insert') return undefined
  const bus = kit.buses.find(({ inserts }) => inserts.some((one) => one.id === id))
  const insert = insertsOf(kit).find((one) => one.id === id)
  return insert && `${effectWords[insert.kind].name} in ${bus ? bus.name : 'the mix'}`
}

/** Whether a band of an equaliser does something. */
export function isBandHeard(insert: Insert, band: string): boolean {
  const kind = insert.choices[`band${band}Kind`] ?? effectChoices.equaliser![`band${band}Kind`]![0]!
  return !['peak', 'lowShelf', 'highShelf'].includes(kind) || (insert.values[`band${band}Db`] ?? 0) !== 0
}

function isShown(insert: Insert, name: string): boolean {
  const band = /^band(\d)/.exec(name)?.[1]
  if (band) return band === '1' || isBandHeard(insert, band)
  const { first, rest } = effectFields[insert.kind]
  const where = [...first, ...rest].find(({ value }) => value === name)?.where
  return !where || where[1].includes(insert.choices[where[0]] ?? effectChoices[insert.kind]?.[where[0]]?.[0] ?? '')
}

/** All of a bus, or of the whole (where `busId` is not said), that a tiller can lead: its own first, then each effect's. */
export function movedOfBus(kit: Kit, busId: string | undefined): { readonly address: Address; readonly text: string; readonly group: string }[] {
  const bus = kit.buses.find(({ id }) => id === busId)
  const own: readonly Parameter[] = bus ? ['gainDb', 'pan', 'width', 'lowCutHz'] : ['gainDb']
  const at: Pick<Address, 'scope' | 'id'> = bus ? { scope: 'bus', id: bus.id } : { scope: 'kit' }
  const inserts = bus ? bus.inserts : kit.inserts
  const seen = new Map<string, number>()
  return [
    ...own.map((param) => ({ address: { ...at, param }, text: parameterWords(param).text, group: 'Level and place' })),
    ...inserts.flatMap((insert) => {
      const { name } = effectWords[insert.kind]
      const count = (seen.get(name) ?? 0) + 1
      seen.set(name, count)
      const group = count > 1 ? `${name} ${count}` : name
      return movedNumbers(insert.kind)
        .filter((param) => isShown(insert, param))
        .map((param) => ({ address: { scope: 'insert' as const, id: insert.id, param }, text: numberWords(insert, param).text, group }))
    }),
  ]
} // prettier-ignore

/** Which tillers lead something of a bus or an effect, a sentence each. */
export function ledWords(kit: Kit, id: string): string[] {
  return kit.tillers.flatMap((tiller) => {
    const led = tiller.to.filter(({ address }) => address.id === id).map(({ address }) => addressWords(kit, address).text)
    return led.length > 0 ? [`Led by ${tiller.name}: ${led.join(', ')}.`] : []
  })
}
