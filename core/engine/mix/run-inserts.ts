import { UNIT_METERS } from '../memory/memory'
import { MOST_INSERTS, UnitField, WorkField } from '../program/layout'
import type { EngineState } from '../state'
import { useLines, useMemory } from '../voice/both/cells'
import { changeChain } from './chains'
import { runEffect } from './effects/both/effect'
import { NONE } from './inserts'
import type { Inserts } from './inserts'
import { goesByLevel, takeHeard, tellHeard } from './whole-levels'
import type { WholeLevels } from './whole-levels'

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

/** An effect over part of a block that has frames. */
function process(engine: EngineState, slot: number, unit: number, from: number, count: number): void {
  if (count === 0) return
  const { inserts, memory, kernel } = engine
  const row = placeOf(inserts.units) + unit * UnitField.length
  const work = placeOf(inserts.work)
  const frame = engine.frame + from
  layOut(engine, slot, unit, from, count)
  if (kernel) kernel.runEffect(row, work, frame, count)
  else {
    useMemory(memory.everything)
    const chunk = inserts.chunk[unit]
    if (chunk !== NONE) useLines(memory.chunks[chunk]!, memory.chunkAt[chunk] / 4)
    runEffect(row, work, frame, count)
  }
  const reduction = unit * UnitField.length + UnitField.reductionDb
  if (inserts.units[reduction] > memory.meters[UNIT_METERS + unit]) memory.meters[UNIT_METERS + unit] = inserts.units[reduction]
  inserts.units[reduction] = 0
}

/** Says what an effect is to work on: its bus, and what it listens to, which may be told from a whole mix. */
function layOut(engine: EngineState, slot: number, unit: number, from: number, count: number): void {
  const { inserts, mix, voices, driveTable, sampleRateHz, tells } = engine
  const { work } = inserts
  const key = inserts.key[unit]
  const heard = key === NONE ? slot : key
  const hears = goesByLevel(inserts.units[unit * UnitField.length + UnitField.kind])
  const follows = hears ? engine.follows : undefined
  if (hears && tells) tellHeard(tells, unit, engine.frame + from, mix.left[heard], mix.right[heard], from, count)
  if (follows) takeHeard(follows, unit, engine.frame + from, inserts.heardLeft, inserts.heardRight, count)
  work[WorkField.left] = placeOf(mix.left[slot]) + from
  work[WorkField.right] = placeOf(mix.right[slot]) + from
  work[WorkField.keyLeft] = follows ? placeOf(inserts.heardLeft) : key === NONE ? 0 : placeOf(mix.left[key]) + from
  work[WorkField.keyRight] = follows ? placeOf(inserts.heardRight) : key === NONE ? 0 : placeOf(mix.right[key]) + from
  work[WorkField.rateHz] = sampleRateHz
  work[WorkField.driveTable] = placeOf(driveTable)
  work[WorkField.peakTable] = placeOf(inserts.peakTable)
  work[WorkField.still] = placeOf(voices.still)
}
