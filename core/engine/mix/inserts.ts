import { effectCodes } from '../program/codes'
import { BusField, InsertField, KitHead, MASTER, MAX_BUSES, MOST_INSERTS } from '../program/layout'
import type { EngineState } from '../state'
import { nearer } from './mix-state'
import { busRow } from './take-kit'
import { widen } from './effects/width'

/** How long one chain of effects goes over into another. */
const FADE_SECONDS = 0.01
/** Room for what an effect keeps from frame to frame. */
const EFFECT_STATE = 16
const ROW = InsertField.length

/** The effects of each bus: rows as the kit's program has them, what each keeps, and the chain that is going. */
export interface Inserts {
  readonly rows: Float64Array
  readonly state: Float64Array
  readonly count: Int32Array
  readonly oldRows: Float64Array
  readonly oldState: Float64Array
  readonly oldCount: Int32Array
  /** Frames for which the old chain is still heard. */
  readonly fadeLeft: Int32Array
  readonly fadeFrames: number
  readonly copyLeft: Float64Array
  readonly copyRight: Float64Array
}

export function createInserts(sampleRateHz: number, frames: number): Inserts {
  const rows = () => new Float64Array(MAX_BUSES * MOST_INSERTS * ROW)
  const states = () => new Float64Array(MAX_BUSES * MOST_INSERTS * EFFECT_STATE)
  return {
    rows: rows(),
    state: states(),
    count: new Int32Array(MAX_BUSES),
    oldRows: rows(),
    oldState: states(),
    oldCount: new Int32Array(MAX_BUSES),
    fadeLeft: new Int32Array(MAX_BUSES),
    fadeFrames: Math.round(FADE_SECONDS * sampleRateHz),
    copyLeft: new Float64Array(frames),
    copyRight: new Float64Array(frames),
  }
}

/** A kit begins: chains that changed go over into the new ones; effects that stay keep what they have and near their new numbers. */
export function takeInserts(engine: EngineState): void {
  const { memory, kit } = engine
  const { arena } = memory
  takeChain(engine, MASTER, kit + arena[kit + KitHead.inserts], arena[kit + KitHead.insertCount])
  for (let i = 0; i < arena[kit + KitHead.busCount]; i++) {
    const row = busRow(engine, i)
    takeChain(engine, arena[row + BusField.slot], kit + arena[row + BusField.inserts], arena[row + BusField.insertCount])
  }
}

function takeChain(engine: EngineState, slot: number, from: number, count: number): void {
  const { inserts, memory, mix } = engine
  const first = slot * MOST_INSERTS * ROW
  const isSame = count === inserts.count[slot] && isSameChain(engine, slot, from, count)
  if (!isSame) keepOld(inserts, slot)
  for (let i = 0; i < count * ROW; i++) inserts.rows[first + i] = memory.arena[from + i]
  inserts.count[slot] = count
  if (isSame) return
  for (let i = 0; i < count; i++) beginEffect(inserts, slot, i)
  inserts.fadeLeft[slot] = mix.isKnown[slot] === 0 ? 0 : inserts.fadeFrames
}

function isSameChain({ inserts, memory }: EngineState, slot: number, from: number, count: number): boolean {
  for (let i = 0; i < count; i++)
    if (inserts.rows[(slot * MOST_INSERTS + i) * ROW + InsertField.hash] !== memory.arena[from + i * ROW + InsertField.hash]) return false
  return true
}

function keepOld(inserts: Inserts, slot: number): void {
  const rows = slot * MOST_INSERTS * ROW
  const states = slot * MOST_INSERTS * EFFECT_STATE
  for (let i = 0; i < MOST_INSERTS * ROW; i++) inserts.oldRows[rows + i] = inserts.rows[rows + i]
  for (let i = 0; i < MOST_INSERTS * EFFECT_STATE; i++) inserts.oldState[states + i] = inserts.state[states + i]
  inserts.oldCount[slot] = inserts.count[slot]
}

/** An effect begins with its numbers where they stand, or goes on from what the same one had in the chain before. */
function beginEffect(inserts: Inserts, slot: number, place: number): void {
  const row = (slot * MOST_INSERTS + place) * ROW
  const state = (slot * MOST_INSERTS + place) * EFFECT_STATE
  for (let i = 0; i < EFFECT_STATE; i++)
    inserts.state[state + i] = i < ROW - InsertField.value0 ? inserts.rows[row + InsertField.value0 + i] : 0
  for (let old = 0; old < inserts.oldCount[slot]; old++) {
    if (inserts.oldRows[(slot * MOST_INSERTS + old) * ROW + InsertField.hash] !== inserts.rows[row + InsertField.hash]) continue
    const from = (slot * MOST_INSERTS + old) * EFFECT_STATE
    for (let i = 0; i < EFFECT_STATE; i++) inserts.state[state + i] = inserts.oldState[from + i]
  }
}

/** What is put into a bus, over its block: in order, and over the old chain while that goes. */
export function runInserts(engine: EngineState, slot: number, count: number): void {
  const { inserts, mix } = engine
  if (inserts.fadeLeft[slot] > 0) runBoth(engine, slot, count)
  else
    for (let i = 0; i < inserts.count[slot]; i++)
      runEffect(engine, inserts.rows, inserts.state, slot, i, mix.left[slot], mix.right[slot], count)
}

function runBoth(engine: EngineState, slot: number, count: number): void {
  const { inserts, mix } = engine
  const { copyLeft, copyRight } = inserts
  const left = mix.left[slot]
  const right = mix.right[slot]
  for (let i = 0; i < count; i++) {
    copyLeft[i] = left[i]
    copyRight[i] = right[i]
  }
  for (let i = 0; i < inserts.oldCount[slot]; i++) runEffect(engine, inserts.oldRows, inserts.oldState, slot, i, copyLeft, copyRight, count)
  for (let i = 0; i < inserts.count[slot]; i++) runEffect(engine, inserts.rows, inserts.state, slot, i, left, right, count)
  for (let i = 0; i < count; i++) {
    const old = Math.max(0, inserts.fadeLeft[slot] - i) / inserts.fadeFrames
    left[i] += (copyLeft[i] - left[i]) * old
    right[i] += (copyRight[i] - right[i]) * old
  }
  inserts.fadeLeft[slot] = Math.max(0, inserts.fadeLeft[slot] - count)
}

function runEffect(
  engine: EngineState,
  rows: Float64Array,
  states: Float64Array,
  slot: number,
  place: number,
  left: Float64Array,
  right: Float64Array,
  count: number,
): void {
  const row = (slot * MOST_INSERTS + place) * ROW
  const state = (slot * MOST_INSERTS + place) * EFFECT_STATE
  switch (rows[row + InsertField.kind]) {
    case effectCodes.width:
      widen(states, state, rows, row + InsertField.value0, left, right, count, engine.mix.step)
      break
  }
}

/** In silence numbers go on nearing where they are to be, and chains go over. */
export function restInserts(engine: EngineState, slot: number, count: number): void {
  const { inserts, mix } = engine
  inserts.fadeLeft[slot] = Math.max(0, inserts.fadeLeft[slot] - count)
  for (let place = 0; place < inserts.count[slot]; place++) {
    const row = (slot * MOST_INSERTS + place) * ROW + InsertField.value0
    const state = (slot * MOST_INSERTS + place) * EFFECT_STATE
    for (let value = 0; value < ROW - InsertField.value0; value++)
      for (let i = 0; i < count && inserts.state[state + value] !== inserts.rows[row + value]; i++)
        inserts.state[state + value] = nearer(inserts.state[state + value], inserts.rows[row + value], mix.step)
  }
}
