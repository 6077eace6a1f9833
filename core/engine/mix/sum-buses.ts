import { BUS_METERS } from '../memory/memory'
import { BusField, KitHead, MASTER, MAX_BUSES, MOST_SENDS, SendField } from '../program/layout'
import type { EngineState } from '../state'
import { isChainAwake, runInserts } from './run-inserts'
import { nearer, placeAt } from './mix-state'
import { busRow } from './take-kit'

/** Where what a bus puts out goes, at the same frames as the output. Slot 0 is what goes to the master by no bus. */
export interface Stem {
  readonly slot: number
  readonly left: Float32Array | Float64Array
  readonly right: Float32Array | Float64Array
}

/**
 * Pairs of outputs that buses leave by instead of going on: by slot the pair of a bus, from 1, 0 for none; and the channels of
 * all pairs one after another, at the same frames as the output. What leaves so has passed its bus's fader, and nothing of the whole kit's.
 */
export interface Pairs {
  readonly ofSlot: Int32Array
  readonly channels: readonly Float32Array[]
}

/**
 * Sums all buses of a run into the master's block, in the order of their rows: what is put into them, sends from before the
 * fader, the fader, sends from after it, then into the bus it goes to. A bus that nothing feeds costs nothing. Audio thread: allocates nothing.
 */
export function sumBuses(engine: EngineState, count: number, stems: readonly Stem[] | undefined, offset: number, pairs?: Pairs): void {
  const { mix, memory, kit } = engine
  if (stems) copyStem(engine, MASTER, count, stems, offset)
  if (kit === 0) return
  for (let i = 0; i < memory.arena[kit + KitHead.busCount]; i++) {
    const row = busRow(engine, i)
    const slot = memory.arena[row + BusField.slot]
    if (mix.fed[slot] === 0 && isChainAwake(engine, slot)) mix.fed[slot] = 1
    if (mix.fed[slot] !== 0) runInserts(engine, slot, count)
    sendFrom(engine, row, slot, count, 1)
    moveGain(engine, slot, count)
    sendFrom(engine, row, slot, count, 0)
    if (mix.fed[slot] === 0) continue
    const out = memory.arena[row + BusField.out]
    if (stems) copyStem(engine, slot, count, stems, offset)
    const pair = pairs ? pairs.ofSlot[slot] : 0
    if (pairs && pair > 0) addToPair(engine, slot, pairs, pair, count, offset)
    else addBlock(engine, slot, out, count)
  }
}

/** All at once, when the master is done: what stands there may listen to a bus after it has gone on. */
export function clearBuses({ mix }: EngineState, count: number): void {
  for (let slot = MASTER + 1; slot < MAX_BUSES; slot++) {
    if (mix.fed[slot] === 0) continue
    mix.left[slot].fill(0, 0, count)
    mix.right[slot].fill(0, 0, count)
    mix.fed[slot] = 0
  }
}

function copyStem({ mix }: EngineState, slot: number, count: number, stems: readonly Stem[], offset: number): void {
  for (const stem of stems) {
    if (stem.slot !== slot) continue
    for (let i = 0; i < count; i++) {
      stem.left[offset + i] = mix.left[slot][i]
      stem.right[offset + i] = mix.right[slot][i]
    }
  }
}

/** The fader over a block; it moves on in silence too. Notes the highest sample for the meter. */
function moveGain({ mix, memory }: EngineState, slot: number, count: number): void {
  const left = mix.left[slot]
  const right = mix.right[slot]
  const target = mix.gainTarget[slot]
  const isLive = mix.isLive[slot] !== 0
  const live = mix.liveGain[slot]
  let gain = mix.gain[slot]
  if (mix.fed[slot] === 0) {
    for (let i = 0; i < count && gain !== target; i++) gain = nearer(gain, target, mix.step)
    mix.gain[slot] = gain
    return
  }
  let peak = 0
  for (let i = 0; i < count; i++) {
    if (gain !== target) gain = nearer(gain, target, mix.step)
    const level = isLive ? gain * live[i] : gain
    left[i] *= level
    right[i] *= level
    peak = Math.max(peak, Math.abs(left[i]), Math.abs(right[i]))
  }
  mix.gain[slot] = gain
  if (peak > memory.meters[BUS_METERS + slot]) memory.meters[BUS_METERS + slot] = peak
}

/** Two buses may leave by one pair; a pair that the host gives no channels for is not heard. */
function addToPair({ mix }: EngineState, from: number, { channels }: Pairs, pair: number, count: number, offset: number): void {
  const left = channels[2 * pair - 2]
  const right = channels[2 * pair - 1]
  if (left === undefined || right === undefined) return
  for (let i = 0; i < count; i++) {
    left[offset + i] += mix.left[from][i]
    right[offset + i] += mix.right[from][i]
  }
}

function addBlock({ mix }: EngineState, from: number, to: number, count: number): void {
  for (let i = 0; i < count; i++) {
    mix.left[to][i] += mix.left[from][i]
    mix.right[to][i] += mix.right[from][i]
  }
  mix.fed[to] = 1
}

function sendFrom(engine: EngineState, row: number, slot: number, count: number, isPre: number): void {
  const { memory, kit, mix } = engine
  const { arena } = memory
  for (let send = 0; send < arena[row + BusField.sendCount]; send++) {
    const at = kit + arena[row + BusField.sends] + send * SendField.length
    if (arena[at + SendField.isPre] !== isPre) continue
    const to = arena[at + SendField.to]
    const target = mix.sendTarget[slot * MOST_SENDS + send]
    let gain = mix.sendGain[slot * MOST_SENDS + send]
    const isFed = mix.fed[slot] !== 0 && (gain !== 0 || target !== 0)
    for (let i = 0; i < count; i++) {
      if (gain !== target) gain = nearer(gain, target, mix.step)
      else if (!isFed) break
      if (!isFed) continue
      mix.left[to][i] += mix.left[slot][i] * gain * Math.sqrt(1 - placeAt(mix, to, i))
      mix.right[to][i] += mix.right[slot][i] * gain * Math.sqrt(1 + placeAt(mix, to, i))
    }
    mix.sendGain[slot * MOST_SENDS + send] = gain
    if (isFed) mix.fed[to] = 1
  }
}
