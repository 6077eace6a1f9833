import { addressKey, firstWave, mixPlace } from '@heliaster/core/kit'
import type { Address, Kit, KitEdit, KitResponse } from '@heliaster/core/kit'

import { addressWords } from '../../../kit-view/buses/mix-words'

/** What moves the mix, as choices: controls of the hands, and what goes by itself. What only a strike has does not. */
export const MIX_SOURCES = [
  { value: 'wheel', group: 'Hands', text: 'Wheel', words: 'The wheel' },
  { value: 'controller', group: 'Hands', text: 'Controller', words: 'Controller' },
  { value: 'bend', group: 'Hands', text: 'Bend', words: 'The bend' },
  { value: 'pressure', group: 'Hands', text: 'Pressure', words: 'Pressure' },
  { value: 'oscillator', group: 'By itself', text: 'A slow wave', words: 'A slow wave' },
] as const
export type MixSource = (typeof MIX_SOURCES)[number]['value']

export const MOST_MOVERS = 256

/** How far something is moved: in a unit that says something to the ear, `factor` of what the document holds. */
export interface Reach {
  readonly most: number
  readonly unit: string
  readonly factor: number
  readonly step: number
}

/** How far an address of the mix can be moved; nothing for what is gone or stands still. */
export function reachOf(kit: Kit, address: Address): Reach | undefined {
  const place = mixPlace(kit, address)
  if (!place) return undefined
  if (place.movedBy === 'cents') return { most: 7200, unit: 'cents', factor: 1, step: 1 }
  if (place.movedBy === 'octaves') return { most: 4, unit: 'octaves', factor: 1, step: 0.01 }
  const { unit, factor } = addressWords(kit, address)
  const most = Math.min(address.param === 'gainDb' ? 48 : Infinity, place.max - place.min) * factor
  return { most, unit, factor, step: unit === '%' ? 1 : most > 10 ? 0.1 : 0.01 }
}

/** What one does, in a line, without how far. */
export function movedWords(kit: Kit, { from, to }: KitResponse): string {
  const source = from.kind === 'controller' ? `Controller ${from.number ?? 1}` : MIX_SOURCES.find(({ value }) => value === from.kind)?.words
  return `${source ?? 'A tiller'} moves ${to.map((address) => addressWords(kit, address).text.toLowerCase()).join(', ')}`
}

/** Edits that put another one in: its amount begins at a quarter of what is offered. */
export function addMover(kit: Kit, source: MixSource, number: number, address: Address): KitEdit[] {
  const reach = reachOf(kit, address)
  if (!reach || kit.responses.length >= MOST_MOVERS) return []
  const wave = kit.oscillators[0] ?? firstWave
  const plain = [source, source === 'controller' ? number : undefined, ...addressKey(address).split(' ')].filter(Boolean).join('-')
  let id = plain
  for (let count = 2; kit.responses.some((one) => one.id === id); count++) id = `${plain}-${count}`
  const from = { kind: source, ...(source === 'controller' ? { number } : {}), ...(source === 'oscillator' ? { id: wave.id } : {}) }
  const response: KitResponse = { id, draw: 0, from, to: [address], amount: reach.most / reach.factor / 4, bypass: false }
  const needsWave = source === 'oscillator' && kit.oscillators.length === 0
  return [{ type: 'setKit', fields: { responses: [...kit.responses, response], ...(needsWave ? { oscillators: [wave] } : {}) } }]
}
