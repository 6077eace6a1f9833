import { mixPlace } from '@heliaster/core/kit'
import type { Address, Kit, KitEdit, KitResponse } from '@heliaster/core/kit'

import { addressWords } from '../../../kit-view/buses/mix-words'
import { freeId, sourceOf, sourceWords, waveFor } from '../../../kit-view/moved-by/sources'
import type { Reach, SourceChoice } from '../../../kit-view/moved-by/sources'

export const MOST_MOVERS = 256

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

/** What a strike or its pad has: the mix goes by the latest one. */
const OF_STRIKES: readonly string[] = ['velocity', 'chance', 'turn', 'strikeRate', 'note', 'keyPressure']

/** Whether it goes by the latest strike of the kit. */
export function isOfStrikes({ from }: Pick<KitResponse, 'from'>): boolean {
  return OF_STRIKES.includes(from.kind)
}

/** What one does, in a line, without how far. */
export function movedWords(kit: Kit, { from, to }: KitResponse): string {
  const words = sourceWords(from)
  return `${words} ${words.endsWith('strikes') ? 'move' : 'moves'} ${to.map((address) => addressWords(kit, address).text.toLowerCase()).join(', ')}`
}

/** Edits that put another one in: its amount begins at a quarter of what is offered. */
export function addMover(kit: Kit, choice: SourceChoice, number: number, address: Address): KitEdit[] {
  const reach = reachOf(kit, address)
  if (!reach || kit.responses.length >= MOST_MOVERS) return []
  const { wave, edits } = waveFor(kit, choice)
  const from = sourceOf(choice, number, wave)
  const id = freeId([from.kind, from.number, address.scope, address.id, address.param], kit.responses)
  const response: KitResponse = { id, draw: 0, from, to: [address], amount: reach.most / reach.factor / 4, bypass: false }
  return [...edits, { type: 'setKit', fields: { responses: [...kit.responses, response] } }]
}
