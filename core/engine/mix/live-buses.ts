import { dbToGainIn } from '../math'
import { KitHead, MAX_BUSES, MOST_MOVED, ParamCode, PARAMS, ResponseField } from '../program/layout'
import { addLanes } from '../groove/lanes'
import { GRID_FRAMES } from '../time'
import type { EngineState } from '../state'
import { latestNumbers } from '../program/codes'
import { addChance } from '../strike/latest'
import { addControl, addOscillator } from '../strike/responses'
import { followPlaces } from '../voice/follow'
import { leadEffects, leadPlaces } from './moved'
import { settlePlaces } from './take-kit'

/** More than this no level is raised, however much moves it. */
const MOST_DB = 120
const LANDED = 1e-6

/** Sums of one row, as responses lay them out. */
const sums = new Float64Array(PARAMS)
/** Levels by the slots of buses, then what else is moved, in its order. */
const targets = new Float64Array(MAX_BUSES + MOST_MOVED)

function liveRow({ kit, memory }: EngineState, place: number): number {
  return kit + memory.arena[kit + KitHead.live] + place * ResponseField.length
}

/** A kit begins: which buses are moved, and all of them where they are to be. A bus that is moved no more lets go of it. */
export function beginLiveBuses(engine: EngineState): void {
  const { mix, memory, kit } = engine
  const isMoved = memory.arena[kit + KitHead.liveCount] > 0 || memory.arena[kit + KitHead.movedCount] > 0
  if (!isMoved && !anyLive(engine)) return
  const before = engine.deck.scratch
  for (let slot = 0; slot < MAX_BUSES; slot++) before[slot] = mix.isLive[slot]
  for (let i = 0; i < memory.arena[kit + KitHead.liveCount]; i++) {
    const only = memory.arena[liveRow(engine, i) + ResponseField.only]
    if (only < MAX_BUSES) mix.isLive[only] = 1
  }
  gatherTargets(engine, engine.frame)
  leadEffects(engine, targets)
  for (let slot = 0; slot < MAX_BUSES; slot++) if (before[slot] === 0) mix.liveFrom[slot] = mix.liveTo[slot] = targets[slot]
}

/** A kit begins: its buses stand where they are moved to. */
export function beginMoved(engine: EngineState): void {
  if (engine.memory.arena[engine.kit + KitHead.movedCount] === 0) return
  gatherTargets(engine, engine.frame)
  leadPlaces(engine, targets)
}

/** What controls, the latest strike, tillers and lanes lead the mix by, once that has settled; what is no level, by oscillators too. */
function gatherTargets(engine: EngineState, frame: number): void {
  const { memory, kit } = engine
  targets.fill(0)
  for (let i = 0; i < memory.arena[kit + KitHead.liveCount]; i++) {
    const row = liveRow(engine, i)
    sums[ParamCode.gainDb] = 0
    addControl(engine, row, engine.controls[latestNumbers.padSlot], sums)
    addChance(engine, row, sums)
    if (memory.arena[row + ResponseField.only] >= MAX_BUSES) addOscillator(engine, row, frame, 0, sums)
    targets[memory.arena[row + ResponseField.only]] += sums[ParamCode.gainDb]
  }
  addLanes(engine, frame, targets)
}

/** How many frames may be rendered at once: numbers of effects are led on the grid. */
export function framesToMove({ kit, memory, frame }: EngineState): number {
  return kit === 0 || memory.arena[kit + KitHead.movedCount] === 0 ? Infinity : GRID_FRAMES - (frame % GRID_FRAMES)
}

/** Works out the levels that move, for every frame of a run, and leads what else of the mix is moved. */
export function moveMix(engine: EngineState, count: number): void {
  const { mix, memory, kit } = engine
  if (kit === 0 || (!anyLive(engine) && memory.arena[kit + KitHead.movedCount] === 0)) return
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
  if (engine.memory.arena[row + ResponseField.only] >= MAX_BUSES) return
  sums[ParamCode.gainDb] = 0
  addOscillator(engine, row, frame, 0, sums)
  engine.mix.liveGain[engine.memory.arena[row + ResponseField.only]][i] += sums[ParamCode.gainDb]
}

/** On a point of the grid what controls move sets out anew for where it is to be. */
function beginCell(engine: EngineState, frame: number): void {
  const { mix, nearing } = engine
  gatherTargets(engine, frame)
  if (leadPlaces(engine, targets)) {
    settlePlaces(engine)
    followPlaces(engine)
  }
  leadEffects(engine, targets)
  for (let slot = 0; slot < MAX_BUSES; slot++) {
    if (mix.isLive[slot] === 0) continue
    mix.liveFrom[slot] = mix.liveTo[slot]
    const next = mix.liveFrom[slot] + (targets[slot] - mix.liveFrom[slot]) * nearing[0]
    mix.liveTo[slot] = Math.abs(targets[slot] - next) < LANDED ? targets[slot] : next
  }
}
