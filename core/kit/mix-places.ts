import { effects } from './effects'
import type { Effect } from './effects'
import type { Kit } from './kit'
import { parameterRow, valueOf } from './parameters'
import { insertsOf } from './resolve'
import type { Address } from './shape'

/** What one number of the mix is: its bounds, what it is set to now, and by what it is moved (cents of a frequency, octaves of a time, itself). */
export interface MixPlace {
  readonly min: number
  readonly max: number
  readonly usual: number
  readonly now: number
  readonly movedBy?: 'cents' | 'octaves'
}

const OF_BUSES = ['gainDb', 'pan', 'width', 'lowCutHz'] as const
const OF_ROOMS: readonly string[] = ['near', 'decayScale', 'beforeSeconds']

/** Numbers by which the memory of an effect is laid out: they are set, and nothing moves them. */
const LAID: Partial<Record<Effect, readonly string[]>> = {
  gate: ['holdSeconds'],
  echo: ['seconds', 'beats'],
  reverb: ['size', 'beforeSeconds'],
  room: OF_ROOMS,
}

/** The numbers of an effect that responses, tillers and lanes can move. */
export function movedNumbers(kind: Effect): string[] {
  return Object.keys(effects[kind]).filter((name) => !LAID[kind]?.includes(name))
}

/** By what a number of an effect is moved, told by the unit in its name. */
function movedBy(name: string): Pick<MixPlace, 'movedBy'> {
  if (name.endsWith('Hz')) return { movedBy: 'cents' }
  return name.endsWith('Seconds') ? { movedBy: 'octaves' } : {}
}

/** What an address means in the mix of a kit; nothing for what is gone, what is of pads, and what nothing moves. */
export function mixPlace(kit: Kit, { scope, id, param }: Address): MixPlace | undefined {
  if (scope === 'insert') {
    const insert = insertsOf(kit).find((one) => one.id === id)
    if (!insert || !movedNumbers(insert.kind).includes(param)) return undefined
    const row = (effects[insert.kind] as Record<string, { min: number; max: number; usual: number }>)[param]!
    // A time of nothing has no octaves: it is moved by itself.
    const by = row.min > 0 ? movedBy(param) : {}
    return { ...row, now: insert.values[param] ?? row.usual, ...by }
  }
  const name = OF_BUSES.find((one) => one === param)
  if (name === undefined || (scope === 'kit' && name !== 'gainDb')) return undefined
  const of = scope === 'kit' ? kit : scope === 'bus' ? kit.buses.find((bus) => bus.id === id) : undefined
  if (!of) return undefined
  const { min, max, usual } = parameterRow(name)
  return { min, max, usual, now: valueOf(of, name), ...(name === 'lowCutHz' ? { movedBy: 'cents' } : {}) }
}

/** All addresses of the mix that something of the kit moves, each once: by responses, tillers, then lanes of grooves. */
export function movedAddresses(kit: Kit): Address[] {
  const all = [
    ...kit.responses.flatMap(({ to, bypass }) => (bypass ? [] : to)),
    ...kit.tillers.flatMap(({ to }) => to.map(({ address }) => address)),
    ...kit.grooves.flatMap(({ lanes = [] }) => lanes.flatMap(({ address, points }) => (points.length > 0 ? [address] : []))),
  ]
  const seen = new Map(all.map((address) => [addressKey(address), address]))
  return [...seen.values()].filter((address) => mixPlace(kit, address) !== undefined)
}

/** An address in one word. */
export function addressKey({ scope, id, param }: Address): string {
  return `${scope} ${id ?? ''} ${param}`
}
