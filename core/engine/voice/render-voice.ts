import { OVER } from '../kernel/kernel'
import { filterCodes, stageCodes } from '../program/codes'
import { RayField } from '../program/layout'
import { NEVER } from '../state'
import type { EngineState } from '../state'
import { beginRun, placeAtFrame } from './live'
import { addToSends } from './sends'
import { readSource } from './sources'
import { applyFade } from './stages/fade'
import { applyLevel } from './stages/level'
import { filter, filterMoving } from './stages/filter'

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
  for (let done = from; done < count && v.active[voice] !== OVER;) {
    const start = frame + done
    if (start >= v.runEnd[voice]) beginRun(engine, voice, start)
    const run = Math.min(count - done, v.runEnd[voice] - start)
    if (engine.kernel) engine.kernel.renderPiece(engine.kernel.engine, voice, done, start, run)
    else renderPiece(engine, voice, done, start, run)
    done += run
  }
}

/** A stretch in which nothing changes its way of moving; `at` is where it lies in the block. */
function renderPiece(engine: EngineState, voice: number, at: number, start: number, count: number): void {
  const v = engine.voices
  settleOver(engine, voice)
  const length = Math.max(0, Math.min(start + count, v.over[voice]) - start)
  const stereo = v.right[voice] >= 0
  const produced = length > 0 ? readSource(engine, voice, start, length, stereo) : 0
  const ended = v.loops[voice] === 0 && v.position[voice] >= v.frames[voice]
  const rings = v.filterType[voice] !== filterCodes.off
  // A filter rings on after its clip; it gets a short fade that begins on the very frame where the clip ends.
  if (ended && rings && v.fadeStart[voice] === NEVER) {
    v.fadeStart[voice] = start + produced
    v.fadeFrames[voice] = RING_FADES * engine.stopFadeFrames
    settleOver(engine, voice)
  }
  const heard = rings ? Math.min(length, Math.max(0, v.over[voice] - start)) : produced
  if (heard > 0) {
    runStages(engine, voice, start, heard, stereo)
    if (v.fadeStart[voice] !== NEVER) applyFade(engine, voice, start, heard, stereo)
    settleGains(engine, voice, start, heard)
    addToBus(engine, voice, at, heard, stereo)
    if (engine.memory.arena[v.ray[voice] + RayField.sendCount] > 0) addToSends(engine, voice, at, heard, stereo)
  }
  if (start + count >= v.over[voice] || (ended && !rings)) v.active[voice] = OVER
}

/** What its ray's program says that a voice passes, in its order. */
function runStages(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { memory, voices: v } = engine
  const { arena } = memory
  const stages = memory.directory[v.program[voice]] + arena[v.ray[voice] + RayField.stages]
  for (let i = 0; i < arena[v.ray[voice] + RayField.stageCount]; i++) {
    switch (arena[stages + i]) {
      case stageCodes.filter1:
        if (v.isLive[voice] === 0) filter(engine, voice, start, count, stereo)
        else filterMoving(engine, voice, count, stereo)
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
