import { BusField, InsertField, KitHead, MASTER, MAX_BUSES, MOST_INSERTS, UnitField } from '../program/layout'
import type { EngineState } from '../state'
import { NONE } from './inserts'
import type { Inserts } from './inserts'
import { busRow } from './take-kit'

/**
 * A kit begins: effects that stay near their new numbers; those that are no more, or stand elsewhere, go in 10 ms, and then
 * the new chain is there, what is new in it coming in 10 ms. `before` is the slot of the program until now, `known` says which buses there are.
 */
export function takeInserts(engine: EngineState, before: number, known: Int32Array): void {
  const { memory, kit } = engine
  const { arena } = memory
  takeChain(engine, MASTER, kit + arena[kit + KitHead.inserts], arena[kit + KitHead.insertCount], before)
  for (let i = 0; i < arena[kit + KitHead.busCount]; i++) {
    const row = busRow(engine, i)
    takeChain(engine, arena[row + BusField.slot], kit + arena[row + BusField.inserts], arena[row + BusField.insertCount], before)
  }
  for (let slot = MASTER + 1; slot < MAX_BUSES; slot++) if (known[slot] === 0 && engine.inserts.count[slot] > 0) dropChain(engine, slot)
}

function takeChain(engine: EngineState, slot: number, from: number, count: number, before: number): void {
  const { inserts, memory, mix } = engine
  const first = slot * MOST_INSERTS
  inserts.nextCount[slot] = count
  for (let i = 0; i < count; i++) {
    inserts.next[first + i] = memory.arena[from + i * InsertField.length + InsertField.unit]
    takeUnit(engine, from + i * InsertField.length)
  }
  markLeaving(inserts, first, inserts.count[slot], count)
  let isLeaving = false
  for (let i = 0; i < inserts.count[slot]; i++) if (inserts.leaves[inserts.chain[first + i]] !== 0) isLeaving = true
  if (mix.isKnown[slot] === 0 || !isLeaving) changeChain(engine, slot, mix.isKnown[slot] === 0)
  else if (inserts.isPending[slot] === 0) {
    inserts.isPending[slot] = 1
    inserts.held[slot] = before
    memory.uses[before]++
  }
}

/** What is not in the next chain, or would stand there in another order, goes. */
function markLeaving({ chain, next, leaves }: Inserts, first: number, count: number, nextCount: number): void {
  for (let i = 0; i < count; i++) leaves[chain[first + i]] = 1
  let last = -1
  for (let i = 0; i < nextCount; i++) {
    let place = -1
    for (let j = 0; j < count; j++) if (chain[first + j] === next[first + i]) place = j
    if (place <= last) continue
    last = place
    leaves[next[first + i]] = 0
  }
}

/** The numbers of an effect; one that is new begins with nothing in it. */
function takeUnit({ inserts, memory }: EngineState, row: number): void {
  const { arena, chunkAt } = memory
  const { units } = inserts
  const number = arena[row + InsertField.unit]
  const unit = number * UnitField.length
  if (units[unit + UnitField.hash] !== arena[row + InsertField.hash]) {
    for (let i = 0; i < UnitField.length; i++) units[unit + i] = 0
    units[unit + UnitField.hash] = arena[row + InsertField.hash]
    units[unit + UnitField.kind] = arena[row + InsertField.kind]
    units[unit + UnitField.floats] = arena[row + InsertField.floats]
    const chunk = (inserts.chunk[number] = arena[row + InsertField.chunk])
    units[unit + UnitField.lines] = chunk === NONE ? 0 : chunkAt[chunk] / 4 + arena[row + InsertField.lines]
    inserts.absent[number] = inserts.fadeFrames
    inserts.leaves[number] = 0
  }
  inserts.key[number] = arena[row + InsertField.key]
  units[unit + UnitField.tailFrames] = arena[row + InsertField.tailFrames]
  units[unit + UnitField.jumps] = arena[row + InsertField.jumps]
  units[unit + UnitField.count] = arena[row + InsertField.count]
  units[unit + UnitField.isDirty] = 1
  for (let i = 0; i < arena[row + InsertField.count]; i++) units[unit + UnitField.target0 + i] = arena[row + InsertField.value0 + i]
}

/** The next chain is there; `isAtOnce` is for a bus that was not. */
export function changeChain({ inserts, memory }: EngineState, slot: number, isAtOnce: boolean): void {
  const { chain, next, leaves, absent, count, nextCount, held, isPending } = inserts
  const first = slot * MOST_INSERTS
  for (let i = 0; i < count[slot]; i++) forgetIfGone(inserts, first, chain[first + i], nextCount[slot])
  for (let i = 0; i < nextCount[slot]; i++) {
    const unit = (chain[first + i] = next[first + i])
    leaves[unit] = 0
    if (isAtOnce) absent[unit] = 0
  }
  count[slot] = nextCount[slot]
  if (isPending[slot] !== 0) memory.uses[held[slot]]--
  isPending[slot] = 0
}

/** Its place may be another's from now on. */
function forgetIfGone({ next, units }: Inserts, first: number, unit: number, nextCount: number): void {
  for (let i = 0; i < nextCount; i++) if (next[first + i] === unit) return
  units[unit * UnitField.length + UnitField.hash] = 0
}

/** A bus is no more. */
function dropChain(engine: EngineState, slot: number): void {
  engine.inserts.nextCount[slot] = 0
  changeChain(engine, slot, true)
}
