import type { BusId } from '../../../kit/ids'
import type { Insert, Kit } from '../../../kit/kit'
import { hashId } from '../../strike/chance'
import { effectCodes } from '../codes'
import { table } from '../context'
import type { CompileContext, EffectMemory, PlacedEffect } from '../context'
import { InsertField } from '../layout'
import { effectNumbers, settingsOf } from './numbers'
import type { EffectContext, EffectNumbers } from './numbers'
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
  context: CompileContext,
): { readonly at: number; readonly count: number } {
  const { sampleRateHz } = context
  const of: EffectContext = { sampleRateHz, tempoBpm: kit.tempoBpm, isMaster: busId === undefined }
  const list = inserts.flatMap((insert) => (insert.bypass ? [] : (placed(insert, busId, of, context) ?? [])))
  const at = table(out, list.length, InsertField.length)
  list.forEach(({ insert, numbers, place }, i) => {
    const row = at + i * InsertField.length
    const isKeyed = insert.key !== undefined && insert.key !== busId && kit.buses.some(({ id }) => id === insert.key)
    out[row + InsertField.hash] = hashId(keyOf(insert, busId, numbers.shape))
    out[row + InsertField.kind] = effectCodes[insert.kind]
    out[row + InsertField.unit] = place.unit
    out[row + InsertField.chunk] = place.chunk
    out[row + InsertField.lines] = place.lines
    out[row + InsertField.floats] = numbers.floats
    out[row + InsertField.key] = isKeyed ? context.busSlotOf(insert.key) : -1
    out[row + InsertField.tailFrames] = numbers.tailFrames
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
