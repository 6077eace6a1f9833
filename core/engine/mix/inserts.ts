import { BusField, InsertField, KitHead, MASTER, MAX_BUSES, MAX_UNITS, MOST_INSERTS, UnitField } from '../program/layout'
import type { Room } from '../memory/room'
import { UNIT_METERS } from '../memory/memory'
import type { EngineState } from '../state'
import { useLines, useMemory } from '../voice/both/cells'
import { runEffect } from './effects/both/effect'
import { PEAK_TABLE, peakTable } from './effects/peak-table'
import { busRow } from './take-kit'
import { goesByLevel, takeHeard, tellHeard } from './whole-levels'
import type { WholeLevels } from './whole-levels'

/** How long an effect takes to come and to go. */
const FADE_SECONDS = 0.01
const NONE = -1

/** The effects of all buses: what each keeps, and which stand in which bus, in order. */
export interface Inserts {
  /** Rows of UnitField. */
  readonly units: Float64Array
  readonly peakTable: Float64Array
  /** In which chunk the delay lines of each lie, and to which bus it listens; -1 for none. */
  readonly chunk: Int32Array
  readonly key: Int32Array
  /** How many frames each is from being wholly there; `leaves` those that go. */
  readonly absent: Int32Array
  readonly leaves: Int32Array
  /** The chain of each bus, and the one that follows once what goes is gone. */
  readonly chain: Int32Array
  readonly count: Int32Array
  readonly next: Int32Array
  readonly nextCount: Int32Array
  readonly isPending: Int32Array
  /** The program that a chain is of which is going, so that its memory stays; 0 for none. */
  readonly held: Int32Array
  readonly fadeFrames: number
  /** What an effect of the whole mix heard, for one that follows it. */
  readonly heardLeft: Float64Array
  readonly heardRight: Float64Array
  readonly dryLeft: Float64Array
  readonly dryRight: Float64Array
}

export function createInserts(sampleRateHz: number, frames: number, { doubles }: Room): Inserts {
  const ints = (count: number) => new Int32Array(count)
  const table = doubles(PEAK_TABLE)
  table.set(peakTable())
  return {
    units: doubles(MAX_UNITS * UnitField.length),
    peakTable: table,
    chunk: ints(MAX_UNITS).fill(NONE),
    key: ints(MAX_UNITS).fill(NONE),
    absent: ints(MAX_UNITS),
    leaves: ints(MAX_UNITS),
    chain: ints(MAX_BUSES * MOST_INSERTS),
    count: ints(MAX_BUSES),
    next: ints(MAX_BUSES * MOST_INSERTS),
    nextCount: ints(MAX_BUSES),
    isPending: ints(MAX_BUSES),
    held: ints(MAX_BUSES),
    fadeFrames: Math.round(FADE_SECONDS * sampleRateHz),
    heardLeft: doubles(frames),
    heardRight: doubles(frames),
    dryLeft: new Float64Array(frames),
    dryRight: new Float64Array(frames),
  }
}

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
function changeChain({ inserts, memory }: EngineState, slot: number, isAtOnce: boolean): void {
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

/** Whether anything in a bus still sounds, or a chain goes over into another. */
export function isChainAwake(engine: EngineState, slot: number): boolean {
  const { inserts } = engine
  if (inserts.isPending[slot] !== 0) return true
  if (engine.follows) return inserts.count[slot] > 0
  for (let i = 0; i < inserts.count[slot]; i++) {
    const unit = inserts.chain[slot * MOST_INSERTS + i]
    if (inserts.absent[unit] !== 0 || inserts.units[unit * UnitField.length + UnitField.isAwake] !== 0) return true
  }
  return false
}

/** What is put into a bus, over its block, in order. */
export function runInserts(engine: EngineState, slot: number, count: number): void {
  const { inserts } = engine
  for (let done = 0; done < count;) {
    const run = Math.min(count - done, framesToChange(inserts, slot))
    const first = slot * MOST_INSERTS
    for (let i = 0; i < inserts.count[slot]; i++) runUnit(engine, slot, inserts.chain[first + i], done, run)
    done += run
    if (inserts.isPending[slot] !== 0 && framesToChange(inserts, slot) === 0) changeChain(engine, slot, false)
  }
}

/** How many frames until the next chain is there. */
function framesToChange({ isPending, chain, count, leaves, absent, fadeFrames }: Inserts, slot: number): number {
  if (isPending[slot] === 0) return Infinity
  let most = 0
  for (let i = 0; i < count[slot]; i++) {
    const unit = chain[slot * MOST_INSERTS + i]
    if (leaves[unit] !== 0) most = Math.max(most, fadeFrames - absent[unit])
  }
  return most
}

/** One effect over part of a block, as far as it is there. */
function runUnit(engine: EngineState, slot: number, unit: number, from: number, count: number): void {
  const { inserts, mix } = engine
  const { absent, leaves, fadeFrames, dryLeft, dryRight } = inserts
  const left = mix.left[slot]
  const right = mix.right[slot]
  const isPart = absent[unit] !== 0 || leaves[unit] !== 0
  if (isPart) {
    for (let i = 0; i < count; i++) {
      dryLeft[i] = left[from + i]
      dryRight[i] = right[from + i]
    }
  }
  runAwake(engine, slot, unit, from, count)
  if (!isPart) return
  const way = leaves[unit] !== 0 ? 1 : -1
  for (let i = 0; i < count; i++) {
    const dry = Math.min(fadeFrames, Math.max(0, absent[unit] + way * i)) / fadeFrames
    left[from + i] += (dryLeft[i] - left[from + i]) * dry
    right[from + i] += (dryRight[i] - right[from + i]) * dry
  }
  absent[unit] = Math.min(fadeFrames, Math.max(0, absent[unit] + way * count))
}

/** While something comes in, and for its tail after that; then it is as if it had never sounded. */
function runAwake(engine: EngineState, slot: number, unit: number, from: number, count: number): void {
  const { units } = engine.inserts
  const { left, right } = engine.mix
  const row = unit * UnitField.length
  const end = from + count
  if (engine.follows) return runFollowing(engine, engine.follows, slot, unit, from, count)
  for (let at = from; at < end;) {
    const loud = firstLoud(left[slot], right[slot], at, end)
    if (units[row + UnitField.isAwake] === 0) {
      at = loud
      if (at === end) return
      units[row + UnitField.isAwake] = 1
      if (engine.tells) engine.tells.woke[unit] = engine.frame + at - engine.tells.frame
      units[row + UnitField.silentFrames] = 0
      continue
    }
    const silent = Math.min(loud - at, units[row + UnitField.tailFrames] - units[row + UnitField.silentFrames])
    if (silent < loud - at) {
      process(engine, slot, unit, at, silent)
      fallAsleep(units, row)
      at += silent
      if (engine.tells) engine.tells.slept[unit] = engine.frame + at - engine.tells.frame
      continue
    }
    const stop = loud === end ? end : nextSilent(left[slot], right[slot], loud, end)
    units[row + UnitField.silentFrames] = stop === loud ? units[row + UnitField.silentFrames] + silent : 0
    process(engine, slot, unit, at, stop - at)
    at = stop
  }
}

/** What follows a whole mix wakes and sleeps as it does there. */
function runFollowing(engine: EngineState, follows: WholeLevels, slot: number, unit: number, from: number, count: number): void {
  const { units } = engine.inserts
  const row = unit * UnitField.length
  const first = engine.frame + from - follows.frame
  for (let at = 0; at < count;) {
    if (units[row + UnitField.isAwake] === 0) {
      const woke = follows.woke[unit] - first
      if (woke < at || woke >= count) return
      at = woke
      units[row + UnitField.isAwake] = 1
    }
    const slept = follows.slept[unit] - first
    const stop = slept >= at && slept < count ? slept : count
    process(engine, slot, unit, from + at, stop - at)
    if (stop === slept) fallAsleep(units, row)
    at = stop
  }
}

function firstLoud(left: Float64Array, right: Float64Array, from: number, end: number): number {
  let at = from
  while (at < end && left[at] === 0 && right[at] === 0) at++
  return at
}

function nextSilent(left: Float64Array, right: Float64Array, from: number, end: number): number {
  let at = from
  while (at < end && (left[at] !== 0 || right[at] !== 0)) at++
  return at
}

function fallAsleep(units: Float64Array, row: number): void {
  units[row + UnitField.isAwake] = 0
  units[row + UnitField.isBegun] = 0
  for (let i = UnitField.state0; i < UnitField.length; i++) units[row + i] = 0
}

/** Where an array lies in memory, counted in doubles. */
function placeOf(array: Float64Array): number {
  return array.byteOffset / 8
}

function process(engine: EngineState, slot: number, unit: number, from: number, count: number): void {
  if (count === 0) return
  const { inserts, mix, memory, kernel, voices, driveTable, sampleRateHz } = engine
  const row = placeOf(inserts.units) + unit * UnitField.length
  const key = inserts.key[unit]
  const left = placeOf(mix.left[slot]) + from
  const right = placeOf(mix.right[slot]) + from
  const hears = goesByLevel(inserts.units[unit * UnitField.length + UnitField.kind])
  if (hears && engine.tells)
    tellHeard(
      engine.tells,
      unit,
      engine.frame + from,
      mix.left[key === NONE ? slot : key],
      mix.right[key === NONE ? slot : key],
      from,
      count,
    )
  if (hears && engine.follows) takeHeard(engine.follows, unit, engine.frame + from, inserts.heardLeft, inserts.heardRight, count)
  const follows = hears && engine.follows !== undefined
  const keyLeft = follows ? placeOf(inserts.heardLeft) : key === NONE ? 0 : placeOf(mix.left[key]) + from
  const keyRight = follows ? placeOf(inserts.heardRight) : key === NONE ? 0 : placeOf(mix.right[key]) + from
  const drive = placeOf(driveTable)
  const peaks = placeOf(inserts.peakTable)
  const still = placeOf(voices.still)
  const frame = engine.frame + from
  if (kernel) kernel.runEffect(row, left, right, keyLeft, keyRight, frame, count, sampleRateHz, drive, peaks, still)
  else {
    useMemory(memory.everything)
    const chunk = inserts.chunk[unit]
    if (chunk !== NONE) useLines(memory.chunks[chunk]!, memory.chunkAt[chunk] / 4)
    runEffect(row, left, right, keyLeft, keyRight, frame, count, sampleRateHz, drive, peaks, still)
  }
  const reduction = unit * UnitField.length + UnitField.reductionDb
  if (inserts.units[reduction] > memory.meters[UNIT_METERS + unit]) memory.meters[UNIT_METERS + unit] = inserts.units[reduction]
  inserts.units[reduction] = 0
}
