import { centsToRatio, dbToGain, log2 } from '../math'
import { TABLES_PER_OCTAVE } from '../memory/reading-tables'
import { filterCodes, modeCodes } from '../program/codes'
import {
  ClipField,
  CrushField,
  DriveField,
  DRIVES,
  EdgeField,
  EnvelopeField,
  FilterField,
  FILTERS,
  Head,
  ParamCode,
  PARAMS,
  PointField,
  RayField,
  TransientField,
  VOICE_POOL,
  WaitField,
} from '../program/layout'
import { NEVER } from '../time'
import type { EngineState } from '../state'
import { chooseForm } from './forms'
import { steadyKept } from '../voice/both/drive'
import { heldDamping } from '../voice/both/filter-design'
import { beginLive } from '../voice/live'
import { beginSends } from '../voice/sends'
import { MOST_RATE } from '../voice/pitch-cells'
import { beginSlices } from '../voice/slices'
import { chooseSource } from '../voice/sources'
import { fallsSilent } from '../voice/stages/level'

/** More than this nothing is raised, tuned or stretched, however much moves it. */
const MOST_DB = 120
const MOST_CENTS = 7200
const MOST_OCTAVES = 20
const MOST_SHARE = 4
/** Nothing sounds later after its strike than a delay and all that moves it may make it. */
const MOST_DELAY_SECONDS = 20

/** Starts a voice of a ray with a clip for the strike that is being decided; -1 where none is free. */
export function startVoice(engine: EngineState, ray: number, given: number): number {
  const voice = freeVoice(engine)
  if (voice < 0) return -1
  const clip = chooseForm(engine, given)
  const { memory, voices: v, now } = engine
  v.active[voice] = 1
  v.strike[voice] = now.slot
  v.program[voice] = now.programSlot
  memory.uses[now.programSlot]++
  v.extraProgram[voice] = now.beadProgram
  if (now.beadProgram !== 0) memory.uses[now.beadProgram]++
  const own = memory.arena[given + ClipField.ray]
  v.ray[voice] = own === 0 ? ray : now.program + own
  v.bandHash[voice] = now.bandHash
  v.bus[voice] = memory.arena[v.ray[voice] + RayField.bus]
  engine.strikes.voices[now.slot]++
  beginClip(engine, voice, clip)
  beginLevel(engine, voice, clip)
  beginModes(engine, voice)
  beginFilter(engine, voice)
  beginDirt(engine, voice)
  beginDrive(engine, voice)
  beginEdges(engine, voice, clip)
  v.endFrame[voice] = v.holds[voice] !== 0 && hasSustain(memory.arena, v.ampEnv[voice]) ? NEVER : envelopeEnd(engine, voice)
  v.source[voice] = chooseSource(engine, voice)
  beginSlices(engine, voice, clip)
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
  // What was worked for a note sounds there as it is.
  const root = now.formRoot >= 0 ? now.formRoot : arena[program + Head.rootNote]
  const tracked = root >= 0 && note >= 0 ? trackOf(engine, ray) * (note - root) * 100 : 0
  const cents = arena[program + Head.tuneCents] + arena[ray + RayField.tuneCents] + tracked + offsets[ParamCode.tuneCents]
  const startSeconds = Math.max(0, arena[ray + RayField.startSeconds] + offsets[ParamCode.startSeconds])
  v.chunk[voice] = arena[clip + ClipField.chunk]
  v.left[voice] = arena[clip + ClipField.left]
  v.right[voice] = arena[clip + ClipField.right]
  v.frames[voice] = v.laidFrames[voice] = arena[clip + ClipField.frames]
  v.position[voice] = Math.floor(startSeconds * engine.sampleRateHz * arena[clip + ClipField.rate] + 0.5)
  v.startFrame[voice] = engine.frame + delayOf(engine, ray)
  v.levels[voice] = arena[clip + ClipField.levels]
  beginLoop(engine, voice, clip)
  v.baseRate[voice] = Math.min(MOST_RATE, Math.max(1 / MOST_RATE, arena[clip + ClipField.rate] * centsToRatio(within(cents, MOST_CENTS))))
  v.basePlace[voice] = TABLES_PER_OCTAVE * log2(v.baseRate[voice])
  v.pitchEnv[voice] = envelopeOffset(program, arena[ray + RayField.pitch])
  v.bendShare[voice] = arena[program + arena[ray + RayField.values] + ParamCode.bendTrack] + offsets[ParamCode.bendTrack]
  v.pitchShare[voice] = within(arena[ray + RayField.pitchShare] + offsets[ParamCode.pitchEnvelope], MOST_SHARE)
  beginGlide(engine, voice)
}

/** By what share a ray follows the note. */
function trackOf({ memory, offsets }: EngineState, ray: number): number {
  return Math.min(1, Math.max(0, memory.arena[ray + RayField.keyTrack] + offsets[ParamCode.keyTrack]))
}

/** By how many frames a ray sounds after its strike. */
function delayOf({ memory, offsets, sampleRateHz }: EngineState, ray: number): number {
  const frames = memory.arena[ray + RayField.delayFrames]
  const by = offsets[ParamCode.delaySeconds]
  return by === 0 ? frames : Math.max(0, frames + Math.floor(Math.min(MOST_DELAY_SECONDS, by) * sampleRateHz + 0.5))
}

/** A pad that glides begins at the note that it was struck with last, by the share of it that the ray follows. */
function beginGlide(engine: EngineState, voice: number): void {
  const { voices: v, memory, now, offsets } = engine
  const { arena } = memory
  const frames = Math.max(0, arena[now.program + Head.glideFrames] + offsets[ParamCode.glideSeconds] * engine.sampleRateHz)
  const from = now.lastNote
  const glides = frames > 0 && from >= 0 && now.note >= 0 && from !== now.note && arena[now.program + Head.rootNote] >= 0
  v.glideCents[voice] = glides ? trackOf(engine, v.ray[voice]) * (from - now.note) * 100 : 0
  v.glideEnd[voice] = v.glideCents[voice] === 0 ? -1 : v.startFrame[voice] + frames
}

/** What of its clip goes round, and by what it goes on once it is let go. */
function beginLoop({ voices: v, memory }: EngineState, voice: number, clip: number): void {
  const { arena } = memory
  const hasLoop = arena[clip + ClipField.roundFrom] >= 0
  v.leaves[voice] = 0
  v.roundFrom[voice] = hasLoop ? arena[clip + ClipField.roundFrom] : 0
  v.loopStart[voice] = arena[clip + ClipField.loopStart]
  v.loopPeriod[voice] = hasLoop ? arena[clip + ClipField.loopPeriod] : 0
  v.loopPlain[voice] = arena[clip + ClipField.loopPlain]
  v.tailChunk[voice] = hasLoop ? arena[clip + ClipField.tailChunk] : -1
  v.tailLeft[voice] = arena[clip + ClipField.tailLeft]
  v.tailRight[voice] = arena[clip + ClipField.tailRight]
  v.tailFrames[voice] = arena[clip + ClipField.tailFrames]
  v.tailLevels[voice] = arena[clip + ClipField.tailLevels]
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
  v.levelShare[voice] = Math.min(1, Math.max(0, arena[ray + RayField.levelShare] + offsets[ParamCode.levelEnvelope]))
  v.timeScale[voice] = centsToRatio(-1200 * within(offsets[ParamCode.decayScale], MOST_OCTAVES))
  v.otherScale[voice] = v.ampEnv[voice] === 0 ? v.timeScale[voice] : 1
  v.cellEnd[voice] = -NEVER
}

/** Whether it is held and goes round; nothing has let it go or faded it yet. */
function beginModes(engine: EngineState, voice: number): void {
  const { voices: v, now } = engine
  const mode = engine.memory.arena[now.program + Head.mode]
  v.releaseFrame[voice] = NEVER
  const isAlone = engine.memory.arena[now.program + Head.rollSeconds] > 0 // what goes on is made of strikes that end by themselves
  v.holds[voice] = !isAlone && (mode === modeCodes.hold || mode === modeCodes.loopUntilLetGo) ? 1 : 0
  const goesRound = (mode === modeCodes.loopUntilLetGo && !isAlone) || mode === modeCodes.loopUntilStruckAgain
  v.loops[voice] = goesRound || v.loopPeriod[voice] > 0 ? 1 : 0
  v.fadeStart[voice] = NEVER
  v.fadeFrames[voice] = 0
}

function beginFilter(engine: EngineState, voice: number): void {
  const { memory, voices: v, offsets, now } = engine
  const { arena } = memory
  const ray = v.ray[voice]
  const { filters } = v
  v.rings[voice] = 0
  for (let i = 0; i < FILTERS; i++) {
    const row = (voice * FILTERS + i) * FilterField.length
    const from = ray + FILTER_ROWS[i]
    const codes = FILTER_CODES[i]
    for (let j = 0; j < FilterField.length; j++) filters[row + j] = 0
    const kind = arena[from]
    filters[row + FilterField.kind] = kind
    filters[row + FilterField.which] = i
    filters[row + FilterField.holds] = v.holds[voice]
    if (kind === filterCodes.off) continue
    const envelope = arena[from + IN_FILTER.env]
    v.rings[voice] = 1
    filters[row + FilterField.sections] = arena[from + IN_FILTER.sections]
    filters[row + FilterField.cutoffHz] = arena[from + IN_FILTER.cutoffHz] * centsToRatio(offsets[codes.cutoff])
    filters[row + FilterField.damping] = heldDamping(arena[from + IN_FILTER.damping] + (offsets[codes.damping] ?? 0))
    filters[row + FilterField.gainDb] = arena[from + IN_FILTER.gainDb] + (offsets[codes.gain] ?? 0)
    filters[row + FilterField.timeScale] = v.otherScale[voice]
    filters[row + FilterField.envelope] = envelope < 0 ? 0 : arena.byteOffset / 8 + now.program + envelope
    filters[row + FilterField.envelopeCents] = arena[from + IN_FILTER.envCents] + (offsets[codes.envelope] ?? 0)
    filters[row + FilterField.spanStart] = filters[row + FilterField.cellEnd] = -1
    filters[row + FilterField.cents] = NEVER
  }
}

/** Where its clip ends for it, and its fades. What goes round has its end in its loop; once it has left it, no sooner than behind that. */
function beginEdges({ voices: v, memory, offsets, sampleRateHz }: EngineState, voice: number, clip: number): void {
  const { arena } = memory
  const ray = v.ray[voice]
  const row = voice * EdgeField.length
  const secondsOf = (field: number, code: number) => Math.max(0, arena[ray + field] + offsets[code])
  const clipRateHz = sampleRateHz * arena[clip + ClipField.rate]
  const trimmed = Math.floor(secondsOf(RayField.endSeconds, ParamCode.endSeconds) * clipRateHz + 0.5)
  const outFrames = secondsOf(RayField.fadeOutSeconds, ParamCode.fadeOutSeconds) * clipRateHz
  if (v.loops[voice] === 0) v.frames[voice] = Math.max(0, v.frames[voice] - trimmed)
  v.edges[row + EdgeField.inFrames] = secondsOf(RayField.fadeInSeconds, ParamCode.fadeInSeconds) * sampleRateHz
  v.edges[row + EdgeField.outFrames] = v.loops[voice] !== 0 ? 0 : outFrames
  v.edges[row + EdgeField.endFrame] = v.frames[voice]
  const loopFrames = arena[clip + ClipField.turnsBackAfter] || v.loopPeriod[voice]
  v.edges[row + EdgeField.tailOutFrames] = outFrames
  v.edges[row + EdgeField.tailEndFrame] = Math.max(v.loopStart[voice] + loopFrames, v.tailFrames[voice] - trimmed)
  v.edges[row + EdgeField.tailAt] = 0
}

function beginDirt({ voices: v, memory, offsets }: EngineState, voice: number): void {
  const { arena } = memory
  const { crushes } = v
  const ray = v.ray[voice]
  const row = voice * CrushField.length
  const transient = voice * TransientField.length
  for (let j = 0; j < TransientField.length; j++) v.transients[transient + j] = 0
  v.transients[transient + TransientField.attackDb] = arena[ray + RayField.attackDb] + offsets[ParamCode.attackDb]
  v.transients[transient + TransientField.tailDb] = arena[ray + RayField.tailDb] + offsets[ParamCode.tailDb]
  v.width[voice] = arena[ray + RayField.width] + offsets[ParamCode.width]
  for (let j = 0; j < CrushField.length; j++) crushes[row + j] = 0
  crushes[row + CrushField.mix] = arena[ray + RayField.crush] + offsets[ParamCode.crush]
  crushes[row + CrushField.bits] = arena[ray + RayField.crushBits] + offsets[ParamCode.crushBits]
  crushes[row + CrushField.rateHz] = arena[ray + RayField.crushRateHz] * centsToRatio(offsets[ParamCode.crushRateHz])
  crushes[row + CrushField.isFiltered] = arena[ray + RayField.crushFilter]
  crushes[row + CrushField.phase] = 1 // the first sample is taken
}

/** Its two drives, and by how much it is read ahead of what is heard: as far as any ray of its pad, so that they stay together. */
function beginDrive({ voices: v, memory, offsets, now, sampleRateHz }: EngineState, voice: number): void {
  const { arena } = memory
  const ray = v.ray[voice]
  v.ahead[voice] = arena[now.program + Head.aheadFrames]
  v.isPrimed[voice] = 0
  if (v.ahead[voice] === 0) return
  for (let j = 0; j < WaitField.length; j++) v.waits[voice * WaitField.length + j] = 0
  for (let which = 0; which < DRIVES; which++) {
    const row = (voice * DRIVES + which) * DriveField.length
    for (let j = 0; j < DriveField.length; j++) v.drives[row + j] = 0
    v.drives[row + DriveField.kind] = arena[ray + RayField.driveKind]
    v.drives[row + DriveField.amountDb] =
      which === 0
        ? arena[ray + RayField.driveDb] + offsets[ParamCode.driveDb]
        : arena[ray + RayField.driveAfterDb] + offsets[ParamCode.driveAfterDb]
    v.drives[row + DriveField.levelDb] = arena[ray + RayField.driveLevelDb] + offsets[ParamCode.driveLevelDb]
    v.drives[row + DriveField.code] = which === 0 ? ParamCode.driveDb : ParamCode.driveAfterDb
    v.drives[row + DriveField.keep] = steadyKept(sampleRateHz)
    v.drives[row + DriveField.hasLevel] = arena[ray + RayField.levelIsAfter] === which ? 1 : 0
  }
}

const FILTER_ROWS = [RayField.filter1, RayField.filter2, RayField.lowCut]
const FILTER_CODES = [
  { cutoff: ParamCode.filter1CutoffHz, damping: ParamCode.filter1Damping, gain: ParamCode.filter1GainDb, envelope: ParamCode.filter1EnvelopeCents },
  { cutoff: ParamCode.filter2CutoffHz, damping: ParamCode.filter2Damping, gain: ParamCode.filter2GainDb, envelope: ParamCode.filter2EnvelopeCents },
  { cutoff: ParamCode.lowCutHz, damping: PARAMS, gain: PARAMS, envelope: PARAMS },
] // prettier-ignore
/** Where the numbers of a filter stand behind its kind. */
const IN_FILTER = {
  sections: RayField.filter1Sections - RayField.filter1,
  cutoffHz: RayField.filter1CutoffHz - RayField.filter1,
  damping: RayField.filter1Damping - RayField.filter1,
  gainDb: RayField.filter1GainDb - RayField.filter1,
  env: RayField.filter1Env - RayField.filter1,
  envCents: RayField.filter1EnvCents - RayField.filter1,
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
  if (!fallsSilent(engine, voice)) return NEVER
  const last = envelope + EnvelopeField.length + (arena[envelope + EnvelopeField.count] - 1) * PointField.length
  return v.startFrame[voice] + Math.floor(arena[last + PointField.frame] / v.timeScale[voice] + 1)
}

function within(value: number, most: number): number {
  return value < -most ? -most : value > most ? most : value
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
