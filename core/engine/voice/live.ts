import { centsToRatioIn, dbToGainIn } from '../math'
import { ParamCode, PARAMS, RayField, ResponseField } from '../program/layout'
import { filterCodes, sourceCodes } from '../program/codes'
import { GRID_FRAMES } from '../state'
import type { EngineState } from '../state'
import { addControl, addOscillator } from '../strike/responses'
import { envelopeIn } from './envelope'
import { heldCents, pitchCellFrames, PLACES_PER_CENT } from './pitch-cells'
import { LIVE_CODES } from './follow'
import { oscillatorStride } from './oscillator'
import { flushFilter } from './stages/filter'

/**
 * What moves while a strike sounds. Each live parameter is a set value, settled with the strike, and what controls,
 * oscillators, edits and the place of its bus add to it, in what the table says it is moved by (dB, cents, a share).
 *
 * On each point of the grid what controls, edits and buses add nears where it is to be by one share (5 ms); between the
 * points it goes straight, and so it is a plain function of time:
 *
 *   target  ____________|‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾‾
 *   added   ____________________/‾‾‾--‾‾‾‾‾‾‾‾‾‾     one cell of the grid after another
 *
 * Oscillators are added as they stand, looked at every 4 frames (every frame for fast ones) and straight between. From
 * there level and rate are exact powers for every sample and the cutoff is set for every sample, so that nothing steps.
 */

const { gainDb, pan, tuneCents, filter1CutoffHz, filter1Damping, filter1EnvelopeCents } = ParamCode
/** Where a parameter has come so near to its target that it is there: dB, cents and shares alike. */
const LANDED = 1e-6
/** More than this no level is raised, however much moves it. */
const MOST_DB = 120

/** Begins the live part of a voice, with everything where it is to be. */
export function beginLive(engine: EngineState, voice: number): void {
  const { voices: v, memory } = engine
  const ray = v.ray[voice]
  v.busPan[voice] = engine.mix.wayPan[v.bus[voice]]
  v.isLive[voice] = memory.arena[ray + RayField.liveCount] > 0 ? 1 : 0
  v.runEnd[voice] = v.gridEnd[voice] = -1
  for (let i = 0; i < LIVE_CODES.length; i++) v.edited[voice * PARAMS + LIVE_CODES[i]] = 0
  gatherTargets(engine, voice)
  for (let i = 0; i < LIVE_CODES.length; i++) {
    const at = voice * PARAMS + LIVE_CODES[i]
    v.smooth[at] = v.smoothTo[at] = targets[LIVE_CODES[i]]
  }
}

/** Sums by parameter: what all but oscillators add once it has settled; what oscillators add where a run begins and ends. */
const targets = new Float64Array(PARAMS)
const swayFrom = new Float64Array(PARAMS)
const swayTo = new Float64Array(PARAMS)
/** Where an envelope stands at both ends of a run. */
const ends = new Float64Array(2)

/** What controls, edits and the place of its bus add to each parameter, once they have settled. */
function gatherTargets(engine: EngineState, voice: number): void {
  const { voices: v, memory, strikes, mix } = engine
  for (let i = 0; i < LIVE_CODES.length; i++) targets[LIVE_CODES[i]] = v.edited[voice * PARAMS + LIVE_CODES[i]]
  targets[pan] += mix.wayPan[v.bus[voice]] - v.busPan[voice]
  for (let i = 0; i < memory.arena[v.ray[voice] + RayField.liveCount]; i++)
    addControl(engine, liveRow(engine, voice, i), strikes.padSlot[v.strike[voice]], targets)
}

function liveRow({ voices: v, memory }: EngineState, voice: number, i: number): number {
  return memory.directory[v.program[voice]] + memory.arena[v.ray[voice] + RayField.live] + i * ResponseField.length
}

/** What oscillators add to each parameter at a frame. */
function gatherSway(engine: EngineState, voice: number, frame: number, sums: Float64Array): void {
  const { voices: v, memory } = engine
  for (let i = 0; i < LIVE_CODES.length; i++) sums[LIVE_CODES[i]] = 0
  for (let i = 0; i < memory.arena[v.ray[voice] + RayField.liveCount]; i++)
    addOscillator(engine, liveRow(engine, voice, i), frame, v.startFrame[voice], sums)
}

/** A run goes to the next point of the grid, to where oscillators are looked at again, or to a point of the pitch envelope. */
export function beginRun(engine: EngineState, voice: number, frame: number): void {
  const { voices: v } = engine
  if (frame >= v.gridEnd[voice]) beginGridCell(engine, voice, frame)
  v.runStart[voice] = frame
  settleRunEnd(engine, voice, frame)
  const end = v.runEnd[voice]
  gatherSway(engine, voice, frame, swayFrom)
  gatherSway(engine, voice, end, swayTo)
  const perCell = 1 / (v.gridEnd[voice] - v.gridStart[voice])
  for (let i = 0; i < LIVE_CODES.length; i++) {
    const code = LIVE_CODES[i]
    const at = voice * PARAMS + code
    const way = v.smoothTo[at] - v.smooth[at]
    const from = v.smooth[at] + way * ((frame - v.gridStart[voice]) * perCell) + swayFrom[code]
    const to = v.smooth[at] + way * ((end - v.gridStart[voice]) * perCell) + swayTo[code]
    v.offset[at] = from
    v.offsetStep[at] = (to - from) / (end - frame)
  }
  beginLevelRun(engine, voice)
  beginRateRun(engine, voice)
  beginFilterRun(engine, voice)
}

/** On a point of the grid everything sets out anew for where it is to be. */
function beginGridCell(engine: EngineState, voice: number, frame: number): void {
  const { voices: v, nearing } = engine
  const isFirst = v.gridEnd[voice] < 0
  const time = frame - v.startFrame[voice]
  v.gridEnd[voice] = v.startFrame[voice] + (Math.floor(time / GRID_FRAMES) + 1) * GRID_FRAMES
  v.gridStart[voice] = frame
  if (isFirst) return
  gatherTargets(engine, voice)
  for (let i = 0; i < LIVE_CODES.length; i++) {
    const at = voice * PARAMS + LIVE_CODES[i]
    const target = targets[LIVE_CODES[i]]
    v.smooth[at] = v.smoothTo[at]
    const next = v.smooth[at] + (target - v.smooth[at]) * nearing[0]
    v.smoothTo[at] = Math.abs(target - next) < LANDED ? target : next
  }
}

function settleRunEnd(engine: EngineState, voice: number, frame: number): void {
  const { voices: v, memory } = engine
  const { arena } = memory
  let end = v.gridEnd[voice]
  for (let i = 0; i < arena[v.ray[voice] + RayField.liveCount]; i++) {
    const at = liveRow(engine, voice, i)
    if (arena[at + ResponseField.from] !== sourceCodes.oscillator) continue
    const stride = oscillatorStride(engine, arena[at + ResponseField.number])
    end = Math.min(end, (Math.floor(frame / stride) + 1) * stride)
  }
  if (v.pitchEnv[voice] !== 0) end = Math.min(end, frame + pitchCellFrames(engine, voice, frame))
  v.runEnd[voice] = end
}

function beginLevelRun({ voices: v }: EngineState, voice: number): void {
  const at = voice * PARAMS + gainDb
  const frames = v.runEnd[voice] - v.runStart[voice]
  const from = Math.min(MOST_DB, v.offset[at])
  const to = Math.min(MOST_DB, v.offset[at] + v.offsetStep[at] * frames)
  v.runGain[voice] = from
  dbToGainIn(v.runGain, voice)
  v.runGain[voice] *= v.gain[voice]
  v.runRatio[voice] = (to - from) / frames
  dbToGainIn(v.runRatio, voice)
}

function beginRateRun({ voices: v, memory }: EngineState, voice: number): void {
  const at = voice * PARAMS + tuneCents
  const frames = v.runEnd[voice] - v.runStart[voice]
  const envelope = v.pitchEnv[voice]
  let from = v.offset[at]
  let to = from + v.offsetStep[at] * frames
  if (envelope !== 0) {
    ends[0] = v.runStart[voice] - v.startFrame[voice]
    ends[1] = v.runEnd[voice] - v.startFrame[voice]
    envelopeIn(ends, 0, memory.arena, envelope)
    envelopeIn(ends, 1, memory.arena, envelope)
    from += ends[0]
    to += ends[1]
  }
  from = heldCents(v.basePlace[voice], from)
  to = heldCents(v.basePlace[voice], to)
  v.runPlace[voice] = v.basePlace[voice] + from * PLACES_PER_CENT
  v.runPlaceStep[voice] = ((to - from) * PLACES_PER_CENT) / frames
  v.runRate[voice] = from
  centsToRatioIn(v.runRate, voice)
  v.runRate[voice] *= v.baseRate[voice]
  v.runRateRatio[voice] = (to - from) / frames
  centsToRatioIn(v.runRateRatio, voice)
}

function beginFilterRun(engine: EngineState, voice: number): void {
  const { voices: v, memory } = engine
  if (v.filterType[voice] === filterCodes.off) return
  flushFilter(engine, voice)
  const row = voice * PARAMS
  const frames = v.runEnd[voice] - v.runStart[voice]
  const envelope = v.filterEnv[voice]
  let from = v.offset[row + filter1CutoffHz]
  let to = from + v.offsetStep[row + filter1CutoffHz] * frames
  if (envelope !== 0) {
    const reach = v.filterEnvCents[voice] + v.offset[row + filter1EnvelopeCents]
    const reachTo = reach + v.offsetStep[row + filter1EnvelopeCents] * frames
    ends[0] = Math.max(0, v.runStart[voice] - v.startFrame[voice])
    ends[1] = Math.max(0, v.runEnd[voice] - v.startFrame[voice])
    envelopeIn(ends, 0, memory.arena, envelope)
    envelopeIn(ends, 1, memory.arena, envelope)
    from += ends[0] * reach
    to += ends[1] * reachTo
  }
  v.runCutoff[voice] = from
  centsToRatioIn(v.runCutoff, voice)
  v.runCutoff[voice] *= v.cutoffHz[voice]
  v.runCutoffRatio[voice] = (to - from) / frames
  centsToRatioIn(v.runCutoffRatio, voice)
  v.runDamping[voice] = v.damping[voice] + v.offset[row + filter1Damping]
  v.runDampingStep[voice] = v.offsetStep[row + filter1Damping]
}

/** Where the voice stands, `i` frames into its run, before it is held within -1..1. */
export function placeAtFrame({ voices: v }: EngineState, voice: number, frame: number): number {
  return v.pan[voice] + v.offset[voice * PARAMS + pan] + v.offsetStep[voice * PARAMS + pan] * (frame - v.runStart[voice])
}
