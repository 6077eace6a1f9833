import { effects } from '../../../kit/effects'
import type { BusId, InsertId } from '../../../kit/ids'
import type { Bus, Insert, Kit } from '../../../kit/kit'
import { movedNumbers } from '../../../kit/mix-places'
import { valueOf } from '../../../kit/parameters'
import type { Address } from '../../../kit/shape'
import { hashId } from '../../strike/chance'
import { effectCodes } from '../codes'
import { table } from '../context'
import type { MixContext } from '../compile-kit'
import type { CompileContext, EffectMemory, PlacedEffect } from '../context'
import { InsertField } from '../layout'
import { effectNumbers, settingsOf } from './numbers'
import type { EffectContext, EffectNumbers } from './numbers'
import { movesOf, movingOf } from '../write-moved'
import { layRoom } from './room-impulse'

interface Placed {
  readonly insert: Insert
  readonly numbers: EffectNumbers
  readonly place: PlacedEffect<EffectMemory>
}

/**
 * Writes what is put into a bus (the master where `busId` is not said) and returns where that begins and how many there
 * are: what is bypassed, or has no memory, is passed by.
 */
export function writeInserts(
  out: number[],
  kit: Kit,
  inserts: readonly Insert[],
  busId: BusId | undefined,
  context: MixContext,
): { readonly at: number; readonly count: number } {
  const { sampleRateHz } = context
  const of: EffectContext = { sampleRateHz, tempoBpm: kit.tempoBpm, isMaster: busId === undefined }
  const list = inserts.flatMap((insert) => (insert.bypass ? [] : (placed(insert, busId, of, context) ?? [])))
  const at = table(out, list.length, InsertField.length)
  list.forEach(({ insert, numbers, place }, i) => {
    const row = at + i * InsertField.length
    const hash = hashId(keyOf(insert, busId, numbers.shape))
    const isKeyed = insert.key !== undefined && insert.key !== busId && kit.buses.some(({ id }) => id === insert.key)
    out[row + InsertField.hash] = hash
    out[row + InsertField.kind] = effectCodes[insert.kind]
    out[row + InsertField.unit] = place.unit
    out[row + InsertField.chunk] = place.chunk
    out[row + InsertField.lines] = place.lines
    out[row + InsertField.floats] = numbers.floats
    out[row + InsertField.key] = isKeyed ? context.busSlotOf(insert.key) : -1
    out[row + InsertField.tailFrames] = Math.max(numbers.tailFrames, leadNumbers(kit, list[i]!, hash, busId, of, context))
    out[row + InsertField.jumps] = numbers.jumps
    out[row + InsertField.count] = numbers.values.length
    numbers.values.forEach((value, place) => (out[row + InsertField.value0 + place] = value))
  })
  return { at, count: list.length }
}

/** What an effect is known by: where it stands too, since one that is moved to another bus still sounds in its own for a while. */
function keyOf({ id, kind, audio }: Insert, busId: BusId | undefined, shape: string): string {
  return ['effect', busId ?? 'master', id, kind, audio ?? '', shape].join('|')
}

function placed(insert: Insert, busId: BusId | undefined, of: EffectContext, context: CompileContext): Placed[] | undefined {
  if (insert.kind === 'room') return placedRoom(insert, busId, of, context)
  const numbers = effectNumbers({ ...insert, kind: insert.kind }, of)
  const place = context.effectOf(keyOf(insert, busId, numbers.shape), () => ({ floats: numbers.floats }))
  return place && [{ insert, numbers, place }]
}

/** A room without an impulse changes nothing. */
function placedRoom(insert: Insert, busId: BusId | undefined, of: EffectContext, context: CompileContext): Placed[] | undefined {
  const { audio } = insert
  if (audio === undefined) return undefined
  const settings = settingsOf(insert)
  const shape = ['near', 'decayScale', 'beforeSeconds'].map((name) => settings.number(name)).join()
  const place = context.effectOf(keyOf(insert, busId, shape), () => {
    const impulse = context.impulseOf(audio)
    return impulse && layRoom(impulse, settings, of)
  })
  if (!place) return undefined
  const { made } = place
  return [{ insert, numbers: { ...made, values: [...made.values.slice(0, -1), settings.number('mix')], shape }, place }]
}

const implied = (bus: Bus, what: string): InsertId => `${bus.id}.${what}` as InsertId
/** As flat as can be, as the low cut of a voice (S. Butterworth, 1930). */
const FLAT = Math.SQRT2

/** The width and low cut of a bus: effects before all others, where they change anything or are moved. */
export function impliedInserts(bus: Bus, moved: readonly Address[]): Insert[] {
  const isMoved = (param: string) => moved.some((one) => one.scope === 'bus' && one.id === bus.id && one.param === param)
  const [width, lowCutHz] = [valueOf(bus, 'width'), valueOf(bus, 'lowCutHz')]
  const plain = { choices: {}, bypass: false }
  return [
    ...(width !== 1 || isMoved('width') ? [{ ...plain, id: implied(bus, 'width'), kind: 'width' as const, values: { width } }] : []),
    ...(lowCutHz > 1 || isMoved('lowCutHz') ? [{ id: implied(bus, 'lowCutHz'), kind: 'equaliser' as const, values: lowCut(lowCutHz), choices: { band1Kind: 'highPass' }, bypass: false }] : []),
  ] // prettier-ignore
}

const LOWEST_BAND_HZ = effects.equaliser.band1Hz.min

/** The low cut as a band of an equaliser. */
const lowCut = (hz: number): Record<string, number> => ({ band1Hz: Math.max(LOWEST_BAND_HZ, hz), band1Damping: FLAT })

/** By which addresses the settings of an effect are meant. */
function addressesOf(insert: Insert, busId: BusId | undefined): (readonly [name: string, address: Address])[] {
  const ofBus = ['width', 'lowCutHz'].find((what) => insert.id === `${busId}.${what}`)
  if (ofBus === undefined) return movedNumbers(insert.kind).map((param) => [param, { scope: 'insert', id: insert.id, param }])
  return [[ofBus === 'width' ? 'width' : 'band1Hz', { scope: 'bus', id: busId, param: ofBus }]]
}

/** How what moves an effect's settings leads its numbers; returns the longest that it sounds on anywhere on these ways, frames. */
function leadNumbers(
  kit: Kit,
  { insert, numbers, place }: Placed,
  hash: number,
  busId: BusId | undefined,
  of: EffectContext,
  context: MixContext,
): number {
  const moving = movingOf(kit, context.moved, addressesOf(insert, busId))
  const ways = moving.map((one) => movesOf(one, numbers, (name, value) => numbersWith(insert, numbers, name, value, of), { unit: place.unit, hash })) // prettier-ignore
  context.moves.push(...ways.flatMap(({ moves }) => moves))
  return Math.max(0, ...ways.map(({ tailFrames }) => tailFrames))
}

/** The numbers of an effect with one of its settings otherwise. Of a room only how much of it there is moves. */
function numbersWith(insert: Insert, numbers: EffectNumbers, name: string, value: number, of: EffectContext): EffectNumbers {
  if (insert.kind === 'room') return { ...numbers, values: [...numbers.values.slice(0, -1), value] }
  // A low cut is off below where a band of an equaliser begins.
  const within = name === 'band1Hz' ? Math.max(LOWEST_BAND_HZ, value) : value
  return effectNumbers({ ...insert, kind: insert.kind, values: { ...insert.values, [name]: within } }, of)
}
