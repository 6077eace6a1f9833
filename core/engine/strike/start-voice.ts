import { centsToRatio, dbToGain, log2 } from '../math'
import { TABLES_PER_OCTAVE } from '../memory/reading-tables'
import { modeCodes } from '../program/codes'
import { ClipField, EnvelopeField, Head, ParamCode, PointField, RayField } from '../program/layout'
import { NEVER } from '../state'
import type { EngineState } from '../state'
import { beginLive } from '../voice/live'
import { beginSends } from '../voice/sends'
import { MOST_RATE } from '../voice/pitch-cells'
import { chooseSource } from '../voice/sources'
import { VOICE_POOL } from '../voice/voices'

/** More than this nothing is raised, tuned or stretched, however much moves it. */
const MOST_DB = 120
const MOST_CENTS = 7200
const MOST_OCTAVES = 20

/** Starts a voice of a ray with a clip for the strike that is being decided; -1 where none is free. */
export function startVoice(engine: EngineState, ray: number, clip: number): number {
  const voice = freeVoice(engine)
  if (voice < 0) return -1
  const { memory, voices: v, now } = engine
  v.active[voice] = 1
  v.strike[voice] = now.slot
  v.program[voice] = now.programSlot
  memory.uses[now.programSlot]++
  v.extraProgram[voice] = now.beadProgram
  if (now.beadProgram !== 0) memory.uses[now.beadProgram]++
  v.ray[voice] = ray
  v.bandHash[voice] = now.bandHash
  v.bus[voice] = memory.arena[ray + RayField.bus]
  engine.strikes.voices[now.slot]++
  beginClip(engine, voice, clip)
  beginLevel(engine, voice, clip)
  beginModes(engine, voice)
  beginFilter(engine, voice)
  v.endFrame[voice] = v.holds[voice] !== 0 && hasSustain(memory.arena, v.ampEnv[voice]) ? NEVER : envelopeEnd(engine, voice)
  v.source[voice] = chooseSource(engine, voice)
  beginLive(engine, voice)
  beginSends(engine, voice)
  return voice
}

/** Where it reads, from where, and how fast. */
function beginClip(engine: EngineState, voice: number, clip: number): void {
  const { memory, voices: v, offsets, now } = engine
  const { arena } = memory
  const ray = v.ray[voice]
  const { program, note } = now
  const root = arena[program + Head.rootNote]
  const tracked = root >= 0 && note >= 0 ? arena[ray + RayField.keyTrack] * (note - root) * 100 : 0
  const cents = arena[program + Head.tuneCents] + arena[ray + RayField.tuneCents] + tracked + offsets[ParamCode.tuneCents]
  const startSeconds = Math.max(0, arena[ray + RayField.startSeconds] + offsets[ParamCode.startSeconds])
  v.chunk[voice] = arena[clip + ClipField.chunk]
  v.left[voice] = arena[clip + ClipField.left]
  v.right[voice] = arena[clip + ClipField.right]
  v.frames[voice] = arena[clip + ClipField.frames]
  v.position[voice] = Math.floor(startSeconds * engine.sampleRateHz * arena[clip + ClipField.rate] + 0.5)
  v.startFrame[voice] = engine.frame + arena[ray + RayField.delayFrames]
  v.levels[voice] = arena[clip + ClipField.levels]
  v.baseRate[voice] = Math.min(MOST_RATE, Math.max(1 / MOST_RATE, arena[clip + ClipField.rate] * centsToRatio(within(cents, MOST_CENTS))))
  v.basePlace[voice] = TABLES_PER_OCTAVE * log2(v.baseRate[voice])
  v.pitchEnv[voice] = envelopeOffset(program, arena[ray + RayField.pitch])
}

function beginLevel(engine: EngineState, voice: number, clip: number): void {
  const { memory, voices: v, offsets, now, mix } = engine
  const { arena } = memory
  const ray = v.ray[voice]
  const { program } = now
  const gain =
    arena[program + Head.gain] *
    arena[ray + RayField.gain] *
    arena[clip + ClipField.gain] *
    now.share *
    dbToGain(Math.min(MOST_DB, offsets[ParamCode.gainDb]))
  v.pan[voice] = arena[program + Head.pan] + (arena[ray + RayField.pan] + mix.wayPan[v.bus[voice]]) + offsets[ParamCode.pan]
  const pan = within(v.pan[voice], 1)
  v.gain[voice] = gain
  v.preGain[voice] = 1 / (arena[program + Head.gain] * Math.abs(arena[ray + RayField.gain]))
  v.gainLeft[voice] = gain * Math.sqrt(1 - pan)
  v.gainRight[voice] = gain * Math.sqrt(1 + pan)
  v.ampEnv[voice] = envelopeOffset(program, arena[ray + RayField.amp])
  v.timeScale[voice] = centsToRatio(-1200 * within(offsets[ParamCode.decayScale], MOST_OCTAVES))
  v.cellEnd[voice] = -1
}

/** Whether it is held and goes round; nothing has let it go or faded it yet. */
function beginModes(engine: EngineState, voice: number): void {
  const { voices: v, now } = engine
  const mode = engine.memory.arena[now.program + Head.mode]
  v.releaseFrame[voice] = NEVER
  v.holds[voice] = mode === modeCodes.hold || mode === modeCodes.loopUntilLetGo ? 1 : 0
  v.loops[voice] = mode === modeCodes.loopUntilLetGo || mode === modeCodes.loopUntilStruckAgain ? 1 : 0
  v.fadeStart[voice] = NEVER
  v.fadeFrames[voice] = 0
}

function beginFilter(engine: EngineState, voice: number): void {
  const { memory, voices: v, offsets, now } = engine
  const { arena } = memory
  const ray = v.ray[voice]
  v.filterType[voice] = arena[ray + RayField.filterType]
  v.cutoffHz[voice] = arena[ray + RayField.cutoffHz] * centsToRatio(offsets[ParamCode.filter1CutoffHz])
  v.damping[voice] = dampingWithin(arena[ray + RayField.damping] + offsets[ParamCode.filter1Damping])
  v.filterEnv[voice] = envelopeOffset(now.program, arena[ray + RayField.filterEnv])
  v.filterEnvCents[voice] = arena[ray + RayField.filterEnvCents] + offsets[ParamCode.filter1EnvelopeCents]
  v.filterCell[voice] = -1
  v.leftOne[voice] = v.leftTwo[voice] = v.rightOne[voice] = v.rightTwo[voice] = 0
}

/** Envelopes are absolute in the arena once a voice has them; 0 stands for none. */
function envelopeOffset(program: number, relative: number): number {
  return relative < 0 ? 0 : program + relative
}

function hasSustain(arena: Float64Array, envelope: number): boolean {
  return envelope !== 0 && arena[envelope + EnvelopeField.sustain] >= 0
}

/** The frame on which an envelope that ends in silence has ended; NEVER for one that stays up. */
function envelopeEnd(engine: EngineState, voice: number): number {
  const v = engine.voices
  const arena = engine.memory.arena
  const envelope = v.ampEnv[voice]
  if (envelope === 0) return NEVER
  const last = envelope + EnvelopeField.length + (arena[envelope + EnvelopeField.count] - 1) * PointField.length
  if (arena[last + PointField.value] > 0) return NEVER
  return v.startFrame[voice] + Math.floor(arena[last + PointField.frame] / v.timeScale[voice] + 1)
}

function within(value: number, most: number): number {
  return value < -most ? -most : value > most ? most : value
}

function dampingWithin(damping: number): number {
  return damping < 0.05 ? 0.05 : damping > 2 ? 2 : damping
}

function freeVoice(engine: EngineState): number {
  const active = engine.voices.active
  for (let voice = 0; voice < VOICE_POOL; voice++) {
    if (active[voice] !== 0) continue
    if (voice >= engine.voiceTop) engine.voiceTop = voice + 1
    return voice
  }
  return -1
}
