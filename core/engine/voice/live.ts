import { centsToRatioIn, dbToGainIn } from '../math'
import { BEND_CODE, EnvelopeField, ParamCode, PARAMS, RayField, ResponseField } from '../program/layout'
import { BEND_CENTS, controlNumbers, sourceCodes } from '../program/codes'
import { GRID_FRAMES, NEVER } from '../time'
import type { EngineState } from '../state'
import { addControl, addOscillator } from '../strike/responses'
import { useMemory } from './both/cells'
import { envelopeValue } from './both/envelope-time'
import { envelopeIn } from './envelope'
import { heldCents, pitchCellFrames, PLACES_PER_CENT } from './pitch-cells'
import { LIVE_CODES } from './follow'
import { oscillatorStride } from './oscillator'
import { addSlices, framesToCorner, sliceCents } from './slices'

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
 * there level and rate are exact powers for every sample, and filters go cell by cell (both/filter-cells.ts), so that nothing steps.
 */

const { gainDb, pan, tuneCents, bendTrack } = ParamCode
/** Where a parameter has come so near to its target that it is there: dB, cents and shares alike. */
const LANDED = 1e-6
/** A pitch that waits to be let go, or goes round until then, is looked at as often. */
const HELD_FRAMES = 4
/** More than this no level is raised, however much moves it. */
const MOST_DB = 120

/** Begins the live part of a voice, with everything where it is to be. */
export function beginLive(engine: EngineState, voice: number): void {
  const { voices: v, memory } = engine
  const ray = v.ray[voice]
  v.busPan[voice] = engine.mix.wayPan[v.bus[voice]]
  const hasSlices = v.sliceCount[voice] > 0
  v.isLive[voice] = hasSlices || v.bendShare[voice] > 0 || memory.arena[ray + RayField.liveCount] > 0 || waitsForRelease(engine, voice) || v.glideEnd[voice] >= 0 ? 1 : 0 // prettier-ignore
  v.runEnd[voice] = v.gridEnd[voice] = -NEVER
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

/** What controls, edits and the place of its bus add to each parameter, once they have settled. */
function gatherTargets(engine: EngineState, voice: number): void {
  const { voices: v, memory, strikes, mix } = engine
  for (let i = 0; i < LIVE_CODES.length; i++) targets[LIVE_CODES[i]] = v.edited[voice * PARAMS + LIVE_CODES[i]]
  targets[pan] += mix.wayPan[v.bus[voice]] - v.busPan[voice]
  for (let i = 0; i < memory.arena[v.ray[voice] + RayField.liveCount]; i++)
    addControl(engine, liveRow(engine, voice, i), strikes.padSlot[v.strike[voice]], targets)
  const bend = engine.controls[controlNumbers.bend]
  targets[BEND_CODE] = BEND_CENTS * bend
  targets[tuneCents] += BEND_CENTS * heldShare(v.bendShare[voice] + targets[bendTrack]) * bend
}

function heldShare(share: number): number {
  return share < 0 ? 0 : share > 1 ? 1 : share
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

/** What oscillators turn of the share by which a voice follows the bend, a share of its cell of the grid from its begin, is heard as pitch. */
function swayBend({ voices: v }: EngineState, voice: number, passed: number, sums: Float64Array): void {
  if (sums[bendTrack] === 0) return
  const at = voice * PARAMS
  const bend = v.smooth[at + BEND_CODE] + (v.smoothTo[at + BEND_CODE] - v.smooth[at + BEND_CODE]) * passed
  const share = v.bendShare[voice] + v.smooth[at + bendTrack] + (v.smoothTo[at + bendTrack] - v.smooth[at + bendTrack]) * passed
  sums[tuneCents] += bend * (heldShare(share + sums[bendTrack]) - heldShare(share))
}

/** A run goes to the next point of the grid, to where oscillators are looked at again, or to a point of the pitch envelope. */
export function beginRun(engine: EngineState, voice: number, frame: number): void {
  const { voices: v } = engine
  if (frame >= v.gridEnd[voice]) beginGridCell(engine, voice, frame)
  v.runStart[voice] = frame
  settleRunEnd(engine, voice, frame)
  const perCell = 1 / (v.gridEnd[voice] - v.gridStart[voice])
  gatherSway(engine, voice, frame, swayFrom)
  swayBend(engine, voice, (frame - v.gridStart[voice]) * perCell, swayFrom)
  const rate = v.sliceCount[voice] > 0 ? rateThere(engine, voice, frame, perCell) : 0
  if (rate > 0) v.runEnd[voice] = Math.min(v.runEnd[voice], frame + framesToCorner(engine, voice, rate))
  const end = v.runEnd[voice]
  gatherSway(engine, voice, end, swayTo)
  swayBend(engine, voice, (end - v.gridStart[voice]) * perCell, swayTo)
  if (rate > 0) addSlices(engine, voice, rate, end - frame, swayFrom, swayTo)
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
}

/** How many frames of its clip a voice with slices reads a frame, where a run begins. */
function rateThere(engine: EngineState, voice: number, frame: number, perCell: number): number {
  const { voices: v } = engine
  const at = voice * PARAMS + tuneCents
  const smooth = v.smooth[at] + (v.smoothTo[at] - v.smooth[at]) * ((frame - v.gridStart[voice]) * perCell)
  const share = v.pitchShare[voice] + v.offset[voice * PARAMS + ParamCode.pitchEnvelope]
  if (v.pitchEnv[voice] !== 0) pitchIn(engine, voice, frame, 0)
  const cents = smooth + swayFrom[tuneCents] + sliceCents(engine, voice) + glideAt(engine, voice, frame) + (v.pitchEnv[voice] !== 0 ? ends[0] * share : 0)
  rates[0] = heldCents(v.basePlace[voice], cents)
  centsToRatioIn(rates, 0)
  return rates[0] * v.baseRate[voice]
} // prettier-ignore

const rates = new Float64Array(1)

/** On a point of the grid everything sets out anew for where it is to be. */
function beginGridCell(engine: EngineState, voice: number, frame: number): void {
  const { voices: v, nearing } = engine
  const isFirst = v.gridEnd[voice] === -NEVER
  const time = frame - v.startFrame[voice]
  v.gridEnd[voice] = v.startFrame[voice] + (Math.floor(time / GRID_FRAMES) + 1) * GRID_FRAMES
  v.gridStart[voice] = frame
  if (isFirst || time <= 0) return // what is read ahead stands as it does at the strike
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
  // A glide ends on a border of a run, to the frame.
  const read = frame + v.ahead[voice]
  if (read < v.glideEnd[voice]) end = Math.max(frame + 1, Math.min(end, Math.floor(v.glideEnd[voice]) - v.ahead[voice]))
  if (waitsForRelease(engine, voice)) end = Math.min(end, frame + HELD_FRAMES)
  else if (v.pitchEnv[voice] !== 0) end = Math.min(end, frame + pitchCellFrames(engine, voice, read))
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

/** Where the pitch envelope of a voice stands for what is read at an absolute frame, cents; while it is held it waits, or goes round. */
export function pitchAt({ voices: v, memory }: EngineState, voice: number, frame: number): number {
  if (v.pitchEnv[voice] === 0) return 0
  const began = v.startFrame[voice] - v.ahead[voice]
  const scale = v.otherScale[voice]
  const letGo = v.releaseFrame[voice] === NEVER ? NEVER : (v.releaseFrame[voice] - began) * scale
  useMemory(memory.everything)
  const envelope = memory.arena.byteOffset / 8 + v.pitchEnv[voice]
  return envelopeValue(envelope, (frame - began) * scale, v.holds[voice], letGo, v.releaseCents[voice])
}

/** Where the pitch envelope stands at both ends of a run; numbers in a row cost no memory (see math.ts). */
const ends = new Float64Array(2)

function pitchIn(engine: EngineState, voice: number, frame: number, end: number): void {
  const { voices: v, memory } = engine
  if (waitsForRelease(engine, voice)) {
    ends[end] = pitchAt(engine, voice, frame)
    return
  }
  ends[end] = (frame + v.ahead[voice] - v.startFrame[voice]) * v.otherScale[voice]
  envelopeIn(ends, end, memory.arena, v.pitchEnv[voice])
}

/** How far a voice that glides still is from its own note at a frame, cents. */
function glideAt({ voices: v }: EngineState, voice: number, heard: number): number {
  const frame = heard + v.ahead[voice]
  if (frame >= v.glideEnd[voice]) return 0
  return (v.glideCents[voice] * (v.glideEnd[voice] - frame)) / (v.glideEnd[voice] - v.startFrame[voice])
}

/** Whether the pitch envelope of a voice waits for it to be let go. */
function waitsForRelease({ voices: v, memory }: EngineState, voice: number): boolean {
  const envelope = v.pitchEnv[voice]
  return v.holds[voice] !== 0 && envelope !== 0 && memory.arena[envelope + EnvelopeField.sustain] >= 0
}

function beginRateRun(engine: EngineState, voice: number): void {
  const { voices: v } = engine
  const at = voice * PARAMS + tuneCents
  const frames = v.runEnd[voice] - v.runStart[voice]
  const envelope = v.pitchEnv[voice]
  let from = v.offset[at]
  let to = from + v.offsetStep[at] * frames
  if (envelope !== 0) {
    const share = voice * PARAMS + ParamCode.pitchEnvelope
    const shareFrom = v.pitchShare[voice] + v.offset[share]
    pitchIn(engine, voice, v.runStart[voice], 0)
    pitchIn(engine, voice, v.runEnd[voice], 1)
    from += ends[0] * shareFrom
    to += ends[1] * (shareFrom + v.offsetStep[share] * frames)
  }
  from += glideAt(engine, voice, v.runStart[voice])
  to += glideAt(engine, voice, v.runEnd[voice])
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

/** Where the voice stands, `i` frames into its run, before it is held within -1..1. */
export function placeAtFrame({ voices: v }: EngineState, voice: number, frame: number): number {
  return v.pan[voice] + v.offset[voice * PARAMS + pan] + v.offsetStep[voice * PARAMS + pan] * (frame - v.runStart[voice])
}
