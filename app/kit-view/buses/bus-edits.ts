import { MOST, createBus } from '@heliaster/core/kit'
import type { Bus, BusId, Kit, KitEdit, Pad, RayId } from '@heliaster/core/kit'

import { makeId } from '../../documents/make-id'

/** Where a ray or a pad goes: a bus, a new one, or the way it would go without a choice. */
export type BusChoice = BusId | 'none' | 'new'

/** Choices of buses, with `none` called as it is meant where they are shown. */
export function busOptions(kit: Kit, none: string): { value: BusChoice; text: string }[] {
  return [
    { value: 'none', text: none },
    ...kit.buses.map((bus) => ({ value: bus.id, text: bus.name })),
    ...(kit.buses.length < MOST.buses ? [{ value: 'new' as const, text: 'A new bus' }] : []),
  ]
}

/** Sends a pad, or one ray of it, to a bus; a new bus is called `name`. */
export function sendEdits(pad: Pad, rayId: RayId | undefined, choice: BusChoice, name: string): KitEdit[] {
  const made: Bus | undefined = choice === 'new' ? createBus(makeId<BusId>('bus'), name) : undefined
  const set = made ? { bus: made.id } : choice === 'none' ? {} : { bus: choice as BusId }
  const clear = choice === 'none' ? (['bus'] as const) : []
  const send: KitEdit = rayId
    ? { type: 'setRay', padId: pad.id, rayId, fields: set, clear: [...clear] }
    : { type: 'setPad', padId: pad.id, own: set, clear: [...clear] }
  return [...(made ? [{ type: 'putBus' as const, bus: made }] : []), send]
}

/** One more bus or return, called by its number. */
export function addBusEdits(kit: Kit, isReturn: boolean): KitEdit[] {
  const word = isReturn ? 'Return' : 'Bus'
  const count = kit.buses.filter((bus) => bus.isReturn === isReturn).length + 1
  return [{ type: 'putBus', bus: { ...createBus(makeId<BusId>('bus'), `${word} ${count}`), isReturn } }]
}

/** The buses that a bus can go into or send to: all but itself and those whose way leads here. */
export function busesAfter(kit: Kit, bus: Bus): Bus[] {
  const leadsHere = (one: Bus, seen: ReadonlySet<BusId>): boolean =>
    one.id === bus.id ||
    [one.out, ...one.sends.map(({ busId }) => busId)].some((next) => {
      const found = next !== undefined && !seen.has(next) && kit.buses.find(({ id }) => id === next)
      return found ? leadsHere(found, new Set([...seen, found.id])) : false
    })
  return kit.buses.filter((one) => !leadsHere(one, new Set([one.id])))
}

/** A bus before or behind its neighbour in the order in which they are shown. */
export function movedBus(kit: Kit, bus: Bus, by: number): KitEdit[] {
  const others = kit.buses.filter((one) => one !== bus)
  const place = Math.min(others.length, Math.max(0, kit.buses.indexOf(bus) + by))
  return [{ type: 'move', at: ['buses'], key: bus.id, after: others[place - 1]?.id ?? null }]
}
