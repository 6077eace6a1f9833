import { dbToGainIn } from '../math'
import { KitHead, MAX_BUSES, ParamCode, PARAMS, ResponseField } from '../program/layout'
import { addLanes } from '../groove/lanes'
import { GRID_FRAMES } from '../time'
import type { EngineState } from '../state'
import { addControl, addOscillator } from '../strike/responses'

/** More than this no level is raised, however much moves it. */
const MOST_DB = 120
const LANDED = 1e-6

/** Sums of one row, as responses lay them out. */
const sums = new Float64Array(PARAMS)
const targets = new Float64Array(MAX_BUSES)

function liveRow({ kit, memory }: EngineState, place: number): number {
  return kit + memory.arena[kit + KitHead.live] + place * ResponseField.length
}

/** A kit begins: which buses are moved, and all of them where they are to be. A bus that is moved no more lets go of it. */
export function beginLiveBuses(engine: EngineState): void {
  const { mix, memory, kit } = engine
  const wasLive = mix.isLive.some((one) => one !== 0)
  if (!wasLive && memory.arena[kit + KitHead.liveCount] === 0) return
  const before = engine.deck.scratch
  for (let slot = 0; slot < MAX_BUSES; slot++) before[slot] = mix.isLive[slot]
  for (let i = 0; i < memory.arena[kit + KitHead.liveCount]; i++) mix.isLive[memory.arena[liveRow(engine, i) + ResponseField.only]] = 1
  gatherTargets(engine, engine.frame)
  for (let slot = 0; slot < MAX_BUSES; slot++) if (before[slot] === 0) mix.liveFrom[slot] = mix.liveTo[slot] = targets[slot]
}

/** What controls, tillers and lanes lead levels by, once that has settled. */
function gatherTargets(engine: EngineState, frame: number): void {
  const { memory, kit } = engine
  targets.fill(0)
  for (let i = 0; i < memory.arena[kit + KitHead.liveCount]; i++) {
    const row = liveRow(engine, i)
    sums[ParamCode.gainDb] = 0
    addControl(engine, row, 0, sums)
    targets[memory.arena[row + ResponseField.only]] += sums[ParamCode.gainDb]
  }
  addLanes(engine, frame, targets)
}

/** Works out the levels that move, for every frame of a run. */
export function moveLevels(engine: EngineState, count: number): void {
  const { mix, memory, kit } = engine
  if (kit === 0 || !anyLive(engine)) return
  for (let i = 0; i < count; i++) {
    const frame = engine.frame + i
    if (frame % GRID_FRAMES === 0) beginCell(engine, frame)
    for (let slot = 0; slot < MAX_BUSES; slot++)
      if (mix.isLive[slot] !== 0)
        mix.liveGain[slot][i] = mix.liveFrom[slot] + ((mix.liveTo[slot] - mix.liveFrom[slot]) * (frame % GRID_FRAMES)) / GRID_FRAMES
    for (let row = 0; row < memory.arena[kit + KitHead.liveCount]; row++) addSway(engine, liveRow(engine, row), frame, i)
  }
  for (let slot = 0; slot < MAX_BUSES; slot++)
    if (mix.isLive[slot] !== 0)
      for (let i = 0; i < count; i++) {
        if (mix.liveGain[slot][i] > MOST_DB) mix.liveGain[slot][i] = MOST_DB
        dbToGainIn(mix.liveGain[slot], i)
      }
}

function anyLive({ mix }: EngineState): boolean {
  for (let slot = 0; slot < MAX_BUSES; slot++) if (mix.isLive[slot] !== 0) return true
  return false
}

function addSway(engine: EngineState, row: number, frame: number, i: number): void {
  sums[ParamCode.gainDb] = 0
  addOscillator(engine, row, frame, 0, sums)
  engine.mix.liveGain[engine.memory.arena[row + ResponseField.only]][i] += sums[ParamCode.gainDb]
}

/** On a point of the grid what controls move sets out anew for where it is to be. */
function beginCell(engine: EngineState, frame: number): void {
  const { mix, nearing } = engine
  gatherTargets(engine, frame)
  for (let slot = 0; slot < MAX_BUSES; slot++) {
    if (mix.isLive[slot] === 0) continue
    mix.liveFrom[slot] = mix.liveTo[slot]
    const next = mix.liveFrom[slot] + (targets[slot] - mix.liveFrom[slot]) * nearing[0]
    mix.liveTo[slot] = Math.abs(targets[slot] - next) < LANDED ? targets[slot] : next
  }
}
