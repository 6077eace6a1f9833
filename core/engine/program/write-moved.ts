import { addressKey, mixPlace, movedAddresses } from '../../kit/mix-places'
import type { MixPlace } from '../../kit/mix-places'
import type { BusId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import type { Address } from '../../kit/shape'
import { exp2, gainToDb } from '../math'
import { hashId } from '../strike/chance'
import { NOTE_OCTAVES } from './codes'
import { movedValue, table } from './context'
import type { CompileContext } from './context'
import type { EffectNumbers } from './effects/numbers'
import { KitHead, MASTER, MAX_BUSES, MOST_MOVED, MOVE_POINTS, MOVE_STEPS, MovedField, MoveField } from './layout'

/** What of the mix is moved beside levels: at most MOST_MOVED, what is beyond stands still. */
export function movedBesideLevels(kit: Kit): Address[] {
  return movedAddresses(kit).filter(({ param }) => param !== 'gainDb').slice(0, MOST_MOVED) // prettier-ignore
}

/** The slot of the bus, or the master, whose level an address means; undefined for anything else. */
export function levelSlot(kit: Kit, { scope, id, param }: Address, context: Pick<CompileContext, 'busSlotOf'>): number | undefined {
  if (param !== 'gainDb') return undefined
  if (scope === 'kit') return MASTER
  const isThere = scope === 'bus' && kit.buses.some((bus) => bus.id === id)
  return isThere ? context.busSlotOf(id as BusId) : undefined
}

/** By what a row of a response means an address of the mix: the slot of a level, else MAX_BUSES and its place among what is moved. */
export function targetOf(kit: Kit, address: Address, moved: readonly Address[], context: CompileContext): number | undefined {
  const slot = levelSlot(kit, address, context)
  if (slot !== undefined) return slot
  const place = moved.findIndex((one) => addressKey(one) === addressKey(address))
  return place < 0 ? undefined : MAX_BUSES + place
}

export const addressHash = (address: Address): number => hashId(addressKey(address))

/** A value of the mix in what it is moved by. */
export function movedPlaceValue({ min, max, movedBy }: MixPlace, value: number): number {
  return movedValue(Math.min(max, Math.max(min, value)), movedBy)
}

/** Writes what is moved beside levels, and how it leads the numbers of effects. */
export function writeMoved(out: number[], moved: readonly Address[], moves: readonly Move[], context: CompileContext): void {
  const at = table(out, moved.length, MovedField.length)
  out[KitHead.movedCount] = moved.length
  out[KitHead.moved] = at
  moved.forEach((address, i) => {
    out[at + i * MovedField.length + MovedField.hash] = addressHash(address)
    out[at + i * MovedField.length + MovedField.slot] = address.param === 'pan' ? context.busSlotOf(address.id as BusId) : 0
  })
  const rows = [...moves].sort((a, b) => a.unit - b.unit || a.value - b.value)
  const first = table(out, rows.length, MoveField.length)
  out[KitHead.moveCount] = rows.length
  out[KitHead.moves] = first
  rows.forEach((move, i) => {
    const row = first + i * MoveField.length
    out[row + MoveField.unit] = move.unit
    out[row + MoveField.hash] = move.hash
    out[row + MoveField.value] = move.value
    out[row + MoveField.base] = move.base
    const isRatio = isRatioIn(rows, move)
    out[row + MoveField.isRatio] = isRatio ? 1 : 0
    out[row + MoveField.moved] = move.moved
    out[row + MoveField.down] = move.down
    out[row + MoveField.up] = move.up
    out[row + MoveField.table] = out.length
    for (const value of move.points) out.push(isRatio ? gainToDb(value / move.base) : value - move.base)
  })
}

/** Whether a number is multiplied: where it is above 0 on all ways that lead it. */
function isRatioIn(rows: readonly Move[], { unit, value }: Move): boolean {
  return rows.every((one) => one.unit !== unit || one.value !== value || one.points.every((point) => point > 0))
}

/** A row of MoveField, and where it leads its number. */
export interface Move {
  readonly unit: number
  readonly hash: number
  readonly value: number
  readonly base: number
  readonly moved: number
  readonly down: number
  readonly up: number
  readonly points: readonly number[]
}

/** A setting of an effect that is moved: its place among all that is, what it is, and how far it is led at most, in what it is moved by. */
export interface Moving {
  readonly name: string
  readonly moved: number
  readonly place: MixPlace
  readonly down: number
  readonly up: number
}

/** What of an effect is moved; `of` says by which address a setting of it is meant. */
export function movingOf(kit: Kit, moved: readonly Address[], of: readonly (readonly [name: string, address: Address])[]): Moving[] {
  return of.flatMap(([name, address]) => {
    const at = moved.findIndex((one) => addressKey(one) === addressKey(address))
    const place = at < 0 ? undefined : mixPlace(kit, address)
    return place ? [{ name, moved: at, place, ...reachOf(kit, address, place) }] : []
  })
}

/** How far all that moves an address leads it down and up at most, within its bounds. */
function reachOf(kit: Kit, address: Address, place: MixPlace): { readonly down: number; readonly up: number } {
  const key = addressKey(address)
  const means = (other: Address) => addressKey(other) === key
  const now = movedPlaceValue(place, place.now)
  const by = (value: number) => movedPlaceValue(place, value) - now
  const ways = [
    ...kit.responses.flatMap(({ from, to, bypass, amount, min = -Infinity, max = Infinity }) => (!bypass && to.some(means) ? [[-1, 1].map((way) => Math.min(max, Math.max(min, way * amount * (from.kind === 'note' ? NOTE_OCTAVES : 1))))] : [])),
    ...kit.tillers.flatMap(({ to }) => to.flatMap((one) => (means(one.address) ? [[by(one.from), by(one.to)]] : []))),
    ...kit.grooves.flatMap(({ lanes = [] }) => lanes.flatMap((lane) => (means(lane.address) ? [lane.points.map(({ value }) => by(value))] : []))),
  ] // prettier-ignore
  const down = ways.reduce((sum, way) => sum - Math.min(0, ...way), 0)
  const up = ways.reduce((sum, way) => sum + Math.max(0, ...way), 0)
  return { down: Math.min(down, now - movedPlaceValue(place, place.min)), up: Math.min(up, movedPlaceValue(place, place.max) - now) }
}

/**
 * How a setting that is moved leads the numbers that an effect goes by: worked out at MOVE_POINTS of its way as if it were
 * set there. Two that lead one number add up, or multiply where it is above 0 all the way. `tailFrames` is the longest on that way.
 */
export function movesOf(
  { name, moved, place, down, up }: Moving,
  base: EffectNumbers,
  numbersAt: (name: string, value: number) => EffectNumbers,
  at: { readonly unit: number; readonly hash: number },
): { readonly moves: Move[]; readonly tailFrames: number } {
  const now = movedPlaceValue(place, place.now)
  const way = Array.from({ length: MOVE_POINTS }, (_, i) => {
    const share = (i - MOVE_STEPS) / MOVE_STEPS
    const by = (share < 0 ? down : up) * share
    return by === 0 ? base : numbersAt(name, unmoved(place, now + by))
  })
  const moves = base.values.flatMap((from, value): Move[] => {
    const points = way.map(({ values }) => values[value]!)
    if (value < base.jumps || points.every((one) => one === from)) return []
    return [{ ...at, value, base: from, moved, down, up, points }]
  })
  return { moves, tailFrames: Math.max(...way.map(({ tailFrames }) => tailFrames)) }
}

function unmoved({ min, max, movedBy }: MixPlace, value: number): number {
  const plain = movedBy === 'cents' ? exp2(value / 1200) : movedBy === 'octaves' ? exp2(value) : value
  return Math.min(max, Math.max(min, plain))
}
