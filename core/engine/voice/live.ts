import { centsToRatio, dbToGain } from '../math'
import { ParamCode, PARAMS, RayField, ResponseField } from '../program/layout'
import { filterCodes, sourceCodes } from '../program/codes'
import { GRID_FRAMES } from '../state'
import type { EngineState } from '../state'
import { controlPart, oscillatorPart } from '../strike/responses'
import { envelopeAt, nextPointAfter } from './envelope'
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
const MOST_CENTS = 7200

/** Begins the live part of a voice, with everything where it is to be. */
export function beginLive(engine: EngineState, voice: number): void {
  const { voices: v, memory } = engine
  const ray = v.ray[voice]
  v.busPan[voice] = engine.mix.wayPan[v.bus[voice]]
  v.isLive[voice] = memory.arena[ray + RayField.liveCount] > 0 ? 1 : 0
  v.runEnd[voice] = v.gridEnd[voice] = -1
  for (let i = 0; i < LIVE_CODES.length; i++) {
    const at = voice * PARAMS + LIVE_CODES[i]
    v.edited[at] = 0
    v.smooth[at] = v.smoothTo[at] = v.isLive[voice] === 0 ? 0 : targetOf(engine, voice, LIVE_CODES[i])
  }
}

/** What controls, edits and the place of its bus add to a parameter, once it has settled. */
function targetOf(engine: EngineState, voice: number, code: number): number {
  const { voices: v, memory, strikes, mix } = engine
  const { arena } = memory
  let sum = v.edited[voice * PARAMS + code]
  if (code === pan) sum += mix.wayPan[v.bus[voice]] - v.busPan[voice]
  for (let i = 0; i < arena[v.ray[voice] + RayField.liveCount]; i++) {
    const at = liveRow(engine, voice, i)
    if (arena[at + ResponseField.to] === code) sum += controlPart(engine, at, strikes.padSlot[v.strike[voice]])
  }
  return sum
}

function liveRow({ voices: v, memory }: EngineState, voice: number, i: number): number {
  return memory.directory[v.program[voice]] + memory.arena[v.ray[voice] + RayField.live] + i * ResponseField.length
}

/** What oscillators add to a parameter at a frame. */
function swayOf(engine: EngineState, voice: number, code: number, frame: number): number {
  const { voices: v, memory } = engine
  const { arena } = memory
  let sum = 0
  for (let i = 0; i < arena[v.ray[voice] + RayField.liveCount]; i++) {
    const at = liveRow(engine, voice, i)
    if (arena[at + ResponseField.to] === code) sum += oscillatorPart(engine, at, frame, v.startFrame[voice])
  }
  return sum
}

/** A run goes to the next point of the grid, to where oscillators are looked at again, or to a point of the pitch envelope. */
export function beginRun(engine: EngineState, voice: number, frame: number): void {
  const { voices: v } = engine
  if (frame >= v.gridEnd[voice]) beginGridCell(engine, voice, frame)
  const end = runEndAfter(engine, voice, frame)
  v.runStart[voice] = frame
  v.runEnd[voice] = end
  for (let i = 0; i < LIVE_CODES.length; i++) {
    const code = LIVE_CODES[i]
    const from = smoothAt(engine, voice, code, frame) + swayOf(engine, voice, code, frame)
    const to = smoothAt(engine, voice, code, end) + swayOf(engine, voice, code, end)
    v.offset[voice * PARAMS + code] = from
    v.offsetStep[voice * PARAMS + code] = (to - from) / (end - frame)
  }
  beginLevelRun(engine, voice)
  beginRateRun(engine, voice)
  beginFilterRun(engine, voice)
}

/** On a point of the grid everything sets out anew for where it is to be. */
function beginGridCell(engine: EngineState, voice: number, frame: number): void {
  const { voices: v, nearing } = engine
  const isFirst = v.gridEnd[voice] < 0
  v.gridEnd[voice] = (Math.floor(frame / GRID_FRAMES) + 1) * GRID_FRAMES
  v.gridStart[voice] = frame
  if (isFirst) return
  for (let i = 0; i < LIVE_CODES.length; i++) {
    const at = voice * PARAMS + LIVE_CODES[i]
    const target = targetOf(engine, voice, LIVE_CODES[i])
    v.smooth[at] = v.smoothTo[at]
    const next = v.smooth[at] + (target - v.smooth[at]) * nearing
    v.smoothTo[at] = Math.abs(target - next) < LANDED ? target : next
  }
}

function smoothAt({ voices: v }: EngineState, voice: number, code: number, frame: number): number {
  const from = v.smooth[voice * PARAMS + code]
  const share = (frame - v.gridStart[voice]) / (v.gridEnd[voice] - v.gridStart[voice])
  return from + (v.smoothTo[voice * PARAMS + code] - from) * share
}

function runEndAfter(engine: EngineState, voice: number, frame: number): number {
  const { voices: v, memory } = engine
  const { arena } = memory
  let end = v.gridEnd[voice]
  for (let i = 0; i < arena[v.ray[voice] + RayField.liveCount]; i++) {
    const at = liveRow(engine, voice, i)
    if (arena[at + ResponseField.from] !== sourceCodes.oscillator) continue
    const stride = oscillatorStride(engine, arena[at + ResponseField.number])
    end = Math.min(end, (Math.floor(frame / stride) + 1) * stride)
  }
  if (v.pitchEnv[voice] === 0) return end
  const point = Math.floor(nextPointAfter(arena, v.pitchEnv[voice], frame - v.startFrame[voice])) + v.startFrame[voice]
  return point > frame && point < end ? point : end
}

/** Where a parameter stands at the beginning of the run, and at its end. */
const runFrom = ({ voices: v }: EngineState, voice: number, code: number): number => v.offset[voice * PARAMS + code]
const runTo = ({ voices: v }: EngineState, voice: number, code: number): number =>
  v.offset[voice * PARAMS + code] + v.offsetStep[voice * PARAMS + code] * (v.runEnd[voice] - v.runStart[voice])

function beginLevelRun(engine: EngineState, voice: number): void {
  const { voices: v } = engine
  const from = Math.min(MOST_DB, runFrom(engine, voice, gainDb))
  const to = Math.min(MOST_DB, runTo(engine, voice, gainDb))
  v.runGain[voice] = v.gain[voice] * dbToGain(from)
  v.runRatio[voice] = dbToGain((to - from) / (v.runEnd[voice] - v.runStart[voice]))
}

function beginRateRun(engine: EngineState, voice: number): void {
  const { voices: v, memory } = engine
  const envelope = v.pitchEnv[voice]
  const at = (frame: number) => (envelope === 0 ? 0 : envelopeAt(memory.arena, envelope, frame - v.startFrame[voice]))
  const from = heldCents(runFrom(engine, voice, tuneCents) + at(v.runStart[voice]))
  const to = heldCents(runTo(engine, voice, tuneCents) + at(v.runEnd[voice]))
  v.runRate[voice] = v.baseRate[voice] * centsToRatio(from)
  v.runRateRatio[voice] = centsToRatio((to - from) / (v.runEnd[voice] - v.runStart[voice]))
}

function heldCents(cents: number): number {
  return cents < -MOST_CENTS ? -MOST_CENTS : cents > MOST_CENTS ? MOST_CENTS : cents
}

function beginFilterRun(engine: EngineState, voice: number): void {
  const { voices: v } = engine
  if (v.filterType[voice] === filterCodes.off) return
  flushFilter(engine, voice)
  const from = cutoffCents(engine, voice, v.runStart[voice], runFrom(engine, voice, filter1CutoffHz), runFrom(engine, voice, filter1EnvelopeCents)) // prettier-ignore
  const to = cutoffCents(engine, voice, v.runEnd[voice], runTo(engine, voice, filter1CutoffHz), runTo(engine, voice, filter1EnvelopeCents))
  const frames = v.runEnd[voice] - v.runStart[voice]
  v.runCutoff[voice] = v.cutoffHz[voice] * centsToRatio(from)
  v.runCutoffRatio[voice] = centsToRatio((to - from) / frames)
  v.runDamping[voice] = v.damping[voice] + runFrom(engine, voice, filter1Damping)
  v.runDampingStep[voice] = v.offsetStep[voice * PARAMS + filter1Damping]
}

function cutoffCents({ voices: v, memory }: EngineState, voice: number, frame: number, moved: number, envelopeMoved: number): number {
  const envelope = v.filterEnv[voice]
  if (envelope === 0) return moved
  return moved + envelopeAt(memory.arena, envelope, Math.max(0, frame - v.startFrame[voice])) * (v.filterEnvCents[voice] + envelopeMoved)
}

/** Where the voice stands, `i` frames into its run, before it is held within -1..1. */
export function placeAtFrame({ voices: v }: EngineState, voice: number, frame: number): number {
  return v.pan[voice] + v.offset[voice * PARAMS + pan] + v.offsetStep[voice * PARAMS + pan] * (frame - v.runStart[voice])
}
