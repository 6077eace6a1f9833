import { OVER } from '../kernel/kernel'
import { stageCodes } from '../program/codes'
import { RayField } from '../program/layout'
import { NEVER } from '../time'
import type { EngineState } from '../state'
import { DRIVE_FRAMES } from './both/drive'
import { beginRun, placeAtFrame } from './live'
import { addToSends } from './sends'
import { readSource } from './sources'
import { applyCrush, applyDrive, applyEdges, applyTransient, applyWait, applyWidth } from './stages/written-once'
import { applyFade } from './stages/fade'
import { applyLevel } from './stages/level'
import { filter } from './stages/filter'

/** How many stop fades long a filter may ring after its clip. */
export const RING_FADES = 5

/**
 * Adds `count` frames of all voices, from the engine's frame on, to their buses, in the order of their numbers. The kernel
 * does what nothing moves all at once; where there is none the plain form below gives the same samples. Audio thread:
 * allocates nothing.
 */
export function renderVoices(engine: EngineState, count: number): void {
  const { kernel, frame, voices: v } = engine
  for (let voice = 0; voice < engine.voiceTop; voice++) {
    if (kernel) voice = kernel.renderVoices(kernel.engine, voice, engine.voiceTop, frame, count)
    if (voice < engine.voiceTop && v.active[voice] !== 0) renderVoice(engine, voice, frame, count)
  }
  let top = 0
  for (let voice = 0; voice < engine.voiceTop; voice++) {
    if (v.active[voice] === OVER) endVoice(engine, voice)
    if (v.active[voice] !== 0) top = voice + 1
  }
  engine.voiceTop = top
}

function renderVoice(engine: EngineState, voice: number, frame: number, count: number): void {
  const v = engine.voices
  const from = Math.max(0, v.startFrame[voice] - frame)
  if (from >= count) {
    settleOver(engine, voice)
    if (frame + count >= v.over[voice]) v.active[voice] = OVER // it faded before it began
    return
  }
  if (v.isLive[voice] === 0) {
    renderPiece(engine, voice, from, frame + from, count - from)
    return
  }
  if (v.ahead[voice] > 0 && v.isPrimed[voice] === 0) primeLive(engine, voice)
  for (let done = from; done < count && v.active[voice] !== OVER;) {
    const start = frame + done
    if (start >= v.runEnd[voice]) beginRun(engine, voice, start)
    const run = Math.min(count - done, v.runEnd[voice] - start)
    if (engine.kernel) engine.kernel.renderPiece(engine.kernel.engine, voice, done, start, run)
    else renderPiece(engine, voice, done, start, run)
    done += run
  }
}

/** A voice that is read ahead begins as many frames before it is heard; what moves it stands as it will when it is. */
function primeLive(engine: EngineState, voice: number): void {
  const { kernel, voices: v } = engine
  v.isPrimed[voice] = 1
  for (let frame = v.startFrame[voice] - v.ahead[voice]; frame < v.startFrame[voice];) {
    if (frame >= v.runEnd[voice]) beginRun(engine, voice, frame)
    const run = Math.min(v.startFrame[voice], v.runEnd[voice]) - frame
    if (kernel) kernel.renderPiece(kernel.engine, voice, 0, frame, run)
    else renderPiece(engine, voice, 0, frame, run)
    frame += run
  }
}

/** The same for one that nothing moves. */
function prime(engine: EngineState, voice: number): void {
  const v = engine.voices
  v.isPrimed[voice] = 1
  for (let ahead = v.ahead[voice]; ahead > 0; ahead -= DRIVE_FRAMES)
    renderPiece(engine, voice, 0, v.startFrame[voice] - ahead, DRIVE_FRAMES)
}

/** A stretch in which nothing changes its way of moving; `at` is where it lies in the block. Before its start nothing of it is heard. */
function renderPiece(engine: EngineState, voice: number, at: number, start: number, count: number): void {
  const v = engine.voices
  const ahead = v.ahead[voice]
  if (ahead > 0 && v.isPrimed[voice] === 0) prime(engine, voice)
  settleOver(engine, voice)
  const heardFrom = v.startFrame[voice]
  const length = start < heardFrom ? count : Math.max(0, Math.min(start + count, v.over[voice]) - start)
  const stereo = v.right[voice] >= 0
  v.startFrame[voice] -= ahead
  const produced = length > 0 ? readSource(engine, voice, start, length, stereo) : 0
  const ended = v.loops[voice] === 0 && v.position[voice] >= v.frames[voice]
  const rings = v.rings[voice] !== 0
  // What drive still holds of a clip that has ended comes out of it.
  if (ended && ahead > 0 && !rings) v.endFrame[voice] = Math.min(v.endFrame[voice], start + produced + 2 * ahead)
  // A filter rings on after its clip; it gets a short fade that begins on the very frame where the clip ends.
  if (ended && rings && v.fadeStart[voice] === NEVER) {
    v.fadeStart[voice] = start + produced + ahead
    v.fadeFrames[voice] = RING_FADES * engine.stopFadeFrames
  }
  settleOver(engine, voice)
  const goesOn = rings || ahead > 0
  const heard = start < heardFrom ? length : goesOn ? Math.min(length, Math.max(0, v.over[voice] - start)) : produced
  if (heard > 0) runStages(engine, voice, start, heard, stereo)
  v.startFrame[voice] = heardFrom
  if (start < heardFrom) return
  if (heard > 0) {
    if (v.fadeStart[voice] !== NEVER) applyFade(engine, voice, start, heard, stereo)
    settleGains(engine, voice, start, heard)
    addToBus(engine, voice, at, heard, stereo)
    if (engine.memory.arena[v.ray[voice] + RayField.sendCount] > 0) addToSends(engine, voice, at, heard, stereo)
  }
  if (start + count >= v.over[voice] || (ended && !goesOn)) v.active[voice] = OVER
}

/** What its ray's program says that a voice passes, in its order; a stage that holds back sets the voice's time back by as much. */
function runStages(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { memory, voices: v } = engine
  const { arena } = memory
  const stages = memory.directory[v.program[voice]] + arena[v.ray[voice] + RayField.stages]
  for (let i = 0; i < arena[v.ray[voice] + RayField.stageCount]; i++) {
    if (start < v.startFrame[voice]) return // it has not begun for this stage, nor for what follows
    switch (arena[stages + i]) {
      case stageCodes.filter1:
        filter(engine, voice, 0, start, count, stereo)
        break
      case stageCodes.filter2:
        filter(engine, voice, 1, start, count, stereo)
        break
      case stageCodes.edges:
        applyEdges(engine, voice, start, count, stereo)
        break
      case stageCodes.transient:
        applyTransient(engine, voice, start, count, stereo)
        break
      case stageCodes.lowCut:
        filter(engine, voice, 2, start, count, stereo)
        break
      case stageCodes.crush:
        applyCrush(engine, voice, start, count, stereo)
        break
      case stageCodes.drive:
        applyDrive(engine, voice, 0, start, count, stereo)
        break
      case stageCodes.driveAfter:
        applyDrive(engine, voice, 1, start, count, stereo)
        break
      case stageCodes.wait:
        applyWait(engine, voice, count, stereo)
        break
      case stageCodes.width:
        if (stereo) applyWidth(engine, voice, start, count)
        break
      case stageCodes.level:
        applyLevel(engine, voice, start, count, stereo)
        break
    }
  }
}

/** Settles the frame on which a voice is over whatever its clip does: its envelope's end, or that of its last fade. */
function settleOver({ voices: v }: EngineState, voice: number): void {
  v.over[voice] = Math.min(v.endFrame[voice], v.fadeStart[voice] + v.fadeFrames[voice])
}

export function endVoice(engine: EngineState, voice: number): void {
  const v = engine.voices
  v.active[voice] = 0
  engine.memory.uses[v.program[voice]]--
  if (v.extraProgram[voice] !== 0) engine.memory.uses[v.extraProgram[voice]]--
  const strike = v.strike[voice]
  if (--engine.strikes.voices[strike] === 0) engine.strikes.active[strike] = 0
}

/** Level and place for every frame of a piece; a voice that nothing moves has one of each. */
function settleGains(engine: EngineState, voice: number, start: number, count: number): void {
  const { voices: v, gainsLeft, gainsRight } = engine
  if (v.isLive[voice] === 0) return
  let gain = v.runGain[voice]
  const ratio = v.runRatio[voice]
  for (let i = 0; i < count; i++) {
    const place = placeAtFrame(engine, voice, start + i)
    const held = place < -1 ? -1 : place > 1 ? 1 : place
    gainsLeft[i] = gain * Math.sqrt(1 - held)
    gainsRight[i] = gain * Math.sqrt(1 + held)
    gain *= ratio
  }
  v.runGain[voice] = gain
}

function addToBus(engine: EngineState, voice: number, at: number, count: number, stereo: boolean): void {
  const { mix, scratchLeft, voices: v } = engine
  const scratchRight = stereo ? engine.scratchRight : scratchLeft
  const bus = v.bus[voice]
  mix.fed[bus] = 1
  if (v.isLive[voice] === 0) addStill(engine, voice, mix.left[bus], mix.right[bus], scratchRight, at, count)
  else addMoving(engine, voice, mix.left[bus], mix.right[bus], scratchRight, at, count)
}

function addStill(
  engine: EngineState,
  voice: number,
  busLeft: Float64Array,
  busRight: Float64Array,
  from: Float64Array,
  at: number,
  count: number,
): void {
  const { scratchLeft, voices: v } = engine
  const gainLeft = v.gainLeft[voice]
  const gainRight = v.gainRight[voice]
  let peak = 0
  for (let i = 0; i < count; i++) {
    const left = scratchLeft[i] * gainLeft
    const right = from[i] * gainRight
    busLeft[at + i] += left
    busRight[at + i] += right
    if (left > peak) peak = left
    else if (-left > peak) peak = -left
    if (right > peak) peak = right
    else if (-right > peak) peak = -right
  }
  const { meters } = engine.memory
  if (peak > meters[v.meter[voice]]) meters[v.meter[voice]] = peak
}

/** The same where level and place have one value for every frame. */
function addMoving(
  engine: EngineState,
  voice: number,
  busLeft: Float64Array,
  busRight: Float64Array,
  from: Float64Array,
  at: number,
  count: number,
): void {
  const { scratchLeft, gainsLeft, gainsRight, voices: v } = engine
  let peak = 0
  for (let i = 0; i < count; i++) {
    const left = scratchLeft[i] * gainsLeft[i]
    const right = from[i] * gainsRight[i]
    busLeft[at + i] += left
    busRight[at + i] += right
    peak = Math.max(peak, Math.abs(left), Math.abs(right))
  }
  const { meters } = engine.memory
  if (peak > meters[v.meter[voice]]) meters[v.meter[voice]] = peak
}
