import { chance, Purpose } from './chance'
import { bent } from './envelope'
import { centsToRatio, dbToGain } from './math'
import { LOG_RECORDS } from './memory'
import { blendAbove, pickBand, pickTurn } from './pick'
import {
  BandField,
  ClipField,
  EnvelopeField,
  Head,
  KitField,
  LogField,
  MAX_PADS,
  MAX_RAYS,
  modeCodes,
  PointField,
  RayField,
  ResponseField,
  StatusField,
  TurnField,
} from './program'
import { NEVER, VOICE_POOL } from './state'
import type { EngineState } from './state'
import { choke, makeRoom, stopPad } from './stops'

const OFFSETS = 6
const GAIN_DB = 0
const PAN = 1
const TUNE_CENTS = 2
const START_SECONDS = 3
const CUTOFF_CENTS = 4
const DECAY = 5

/** Sounds a pad at the engine's current frame. Everything is decided here, once, and then only rendered. */
export function strike(engine: EngineState, padSlot: number, velocity: number, note: number, inputFrame: number, key: number): void {
  const { memory } = engine
  const arena = memory.arena
  const programSlot = memory.padTable[padSlot]
  const program = programSlot === 0 ? 0 : memory.directory[programSlot]
  const padStrike = engine.padCount[padSlot]++
  const record = beginRecord(engine, padSlot, velocity, inputFrame, padStrike)
  if (program === 0) return
  if (arena[program + Head.againFrames] >= 0 && engine.frame - engine.lastFrame[padSlot] > arena[program + Head.againFrames])
    countAnew(engine, padSlot, padStrike)
  engine.lastFrame[padSlot] = engine.frame
  choke(engine, program, record)
  const mode = arena[program + Head.mode]
  if (mode === modeCodes.silencer) return
  if (mode === modeCodes.loopUntilStruckAgain && stopPad(engine, padSlot)) return
  makeRoom(engine, padSlot, program)
  const slot = takeStrike(engine, padSlot, program, velocity, key)
  if (slot < 0) return
  const bands = program + arena[program + Head.bands]
  soundBands(
    engine,
    slot,
    programSlot,
    program,
    -1,
    bands,
    arena[program + Head.bandCount],
    arena[program + Head.pick],
    velocity,
    note,
    padSlot,
    padStrike,
    record,
  )
  for (let ray = 0; ray < arena[program + Head.rayCount]; ray++) {
    const at = program + arena[program + Head.rays] + ray * RayField.length
    if (arena[at + RayField.bandCount] < 0) continue
    soundBands(
      engine,
      slot,
      programSlot,
      program,
      ray,
      program + arena[at + RayField.bands],
      arena[at + RayField.bandCount],
      arena[at + RayField.pick],
      velocity,
      note,
      padSlot,
      padStrike,
      record,
    )
  }
  if (engine.strikes.voices[slot] === 0) engine.strikes.active[slot] = 0
}

/** Turns of a pad begin anew with the strike of this number. */
function countAnew(engine: EngineState, padSlot: number, padStrike: number): void {
  engine.countFrom[padSlot] = padStrike
  engine.bandCount.fill(0, padSlot * 128, padSlot * 128 + 128)
}

/** A groove begins: the turns that go by it begin anew. */
export function beginGroove(engine: EngineState): void {
  const { memory } = engine
  for (let padSlot = 0; padSlot < MAX_PADS; padSlot++) {
    const program = memory.directory[memory.padTable[padSlot]]
    if (memory.padTable[padSlot] !== 0 && memory.arena[program + Head.againAtGroove] === 1)
      countAnew(engine, padSlot, engine.padCount[padSlot])
  }
}

/** Sounds the cell of one list of bands, or the two cells where bands blend. `onlyRay` -1: all rays that share them. */
function soundBands(
  engine: EngineState,
  slot: number,
  programSlot: number,
  program: number,
  onlyRay: number,
  bands: number,
  bandCount: number,
  pick: number,
  velocity: number,
  note: number,
  padSlot: number,
  padStrike: number,
  record: number,
): void {
  // prettier-ignore
  const arena = engine.memory.arena
  const band = pickBand(arena, bands, bandCount, velocity)
  if (band < 0) return
  const above = blendAbove(arena, bands, bandCount, band, velocity)
  const upper = bands + (band + 1) * BandField.length
  const power = above > 0 && arena[upper + BandField.blendLaw] === 0
  const here = above > 0 ? (power ? Math.sqrt(1 - above) : 1 - above) : 1
  const turn = soundCell(engine, slot, programSlot, program, onlyRay, bands, band, pick, here, velocity, note, padSlot, padStrike, record)
  if (onlyRay < 0) {
    engine.memory.log[record + LogField.band] = band
    engine.memory.log[record + LogField.turn] = turn
  }
  if (above > 0) {
    const aboveTurn = soundCell(
      engine,
      slot,
      programSlot,
      program,
      onlyRay,
      bands,
      band + 1,
      pick,
      power ? Math.sqrt(above) : above,
      velocity,
      note,
      padSlot,
      padStrike,
      record,
    )
    if (onlyRay < 0) {
      engine.memory.log[record + LogField.aboveBand] = band + 1
      engine.memory.log[record + LogField.aboveTurn] = aboveTurn
    }
  }
  engine.memory.log[record + LogField.rays] = engine.strikes.voices[slot]
}

function soundCell(
  engine: EngineState,
  slot: number,
  programSlot: number,
  program: number,
  onlyRay: number,
  bands: number,
  bandIndex: number,
  pick: number,
  share: number,
  velocity: number,
  note: number,
  padSlot: number,
  padStrike: number,
  record: number,
): number {
  // prettier-ignore
  const arena = engine.memory.arena
  const band = bands + bandIndex * BandField.length
  const counter = padSlot * 128 + bandIndex
  const perBand = arena[program + Head.counter] === 1
  const bandStrike = onlyRay < 0 ? engine.bandCount[counter]++ : engine.bandCount[counter]
  const turn = pickTurn(
    engine,
    program,
    band,
    bandIndex,
    pick,
    perBand && onlyRay < 0 ? bandStrike : padStrike - engine.countFrom[padSlot],
    padStrike,
  )
  if (turn < 0) return -1
  const clips = program + arena[program + arena[band + BandField.turns] + turn * TurnField.length + TurnField.clips]
  for (let ray = 0; ray < arena[program + Head.rayCount]; ray++) {
    const at = program + arena[program + Head.rays] + ray * RayField.length
    if (onlyRay < 0 ? arena[at + RayField.bandCount] >= 0 : ray !== onlyRay) continue
    const clip = clips + ray * ClipField.length
    if (arena[clip + ClipField.chunk] < 0 || arena[at + RayField.mute] !== 0) continue
    gatherOffsets(engine, program, ray, velocity, note, padStrike)
    const voice = startVoice(engine, slot, programSlot, program, at, clip, share * arena[band + BandField.gain], note)
    if (voice < 0) continue
    engine.voices.meter[voice] = padSlot * MAX_RAYS + ray
    engine.memory.log[record + LogField.rayMask] = (engine.memory.log[record + LogField.rayMask] | (1 << ray)) >>> 0
  }
  return turn
}

/** Sums what all responses of this pad add for one ray. */
function gatherOffsets(engine: EngineState, program: number, ray: number, velocity: number, note: number, padStrike: number): void {
  const arena = engine.memory.arena
  const offsets = engine.offsets
  for (let i = 0; i < OFFSETS; i++) offsets[i] = 0
  const first = program + arena[program + Head.responses]
  for (let i = 0; i < arena[program + Head.responseCount]; i++) {
    const at = first + i * ResponseField.length
    const only = arena[at + ResponseField.ray]
    if (only >= 0 && only !== ray) continue
    const amount = arena[at + ResponseField.amount]
    const to = arena[at + ResponseField.to]
    const from = arena[at + ResponseField.from]
    if (from === 0) offsets[to] += amount * (bent(0, 1, velocity / 127, arena[at + ResponseField.k]) - 1)
    else if (from === 1) {
      const draw = chance(
        engine.memory.kit[KitField.seed] | 0,
        arena[program + Head.padHash] | 0,
        padStrike,
        Purpose.response + 256 * (arena[at + ResponseField.draw] + 1),
      )
      offsets[to] += amount * (2 * draw - 1)
    } else offsets[to] += (amount * (note - 60)) / 12
  }
}

/** The voice that was started, or -1 where none was free. */
function startVoice(
  engine: EngineState,
  slot: number,
  programSlot: number,
  program: number,
  ray: number,
  clip: number,
  share: number,
  note: number,
): number {
  const voice = freeVoice(engine)
  if (voice < 0) return -1
  const { memory, voices: v, offsets } = engine
  const arena = memory.arena
  const root = arena[program + Head.rootNote]
  const tracked = root >= 0 && note >= 0 ? arena[ray + RayField.keyTrack] * (note - root) * 100 : 0
  const cents = arena[program + Head.tuneCents] + arena[ray + RayField.tuneCents] + tracked + offsets[TUNE_CENTS]
  const gain = arena[program + Head.gain] * arena[ray + RayField.gain] * arena[clip + ClipField.gain] * share * dbToGain(offsets[GAIN_DB])
  const pan = clampPan(arena[program + Head.pan] + arena[ray + RayField.pan] + offsets[PAN])
  const startSeconds = Math.max(0, arena[ray + RayField.startSeconds] + offsets[START_SECONDS])

  v.active[voice] = 1
  v.strike[voice] = slot
  v.program[voice] = programSlot
  memory.uses[programSlot]++
  engine.strikes.voices[slot]++
  v.chunk[voice] = arena[clip + ClipField.chunk]
  v.left[voice] = arena[clip + ClipField.left]
  v.right[voice] = arena[clip + ClipField.right]
  v.frames[voice] = arena[clip + ClipField.frames]
  v.position[voice] = Math.floor(startSeconds * engine.sampleRateHz * arena[clip + ClipField.rate] + 0.5)
  v.startFrame[voice] = engine.frame + arena[ray + RayField.delayFrames]
  v.gainLeft[voice] = gain * Math.sqrt(1 - pan)
  v.gainRight[voice] = gain * Math.sqrt(1 + pan)
  v.baseRate[voice] = arena[clip + ClipField.rate] * centsToRatio(cents)
  v.pitchEnv[voice] = envelopeOffset(program, arena[ray + RayField.pitch])
  v.ampEnv[voice] = envelopeOffset(program, arena[ray + RayField.amp])
  v.timeScale[voice] = centsToRatio(-1200 * offsets[DECAY])
  v.cellEnd[voice] = -1
  v.releaseFrame[voice] = NEVER
  const mode = arena[program + Head.mode]
  v.holds[voice] = mode === modeCodes.hold || mode === modeCodes.loopUntilLetGo ? 1 : 0
  v.loops[voice] = mode === modeCodes.loopUntilLetGo || mode === modeCodes.loopUntilStruckAgain ? 1 : 0
  v.fadeStart[voice] = NEVER
  v.fadeFrames[voice] = 0
  v.filterType[voice] = arena[ray + RayField.filterType]
  v.cutoffHz[voice] = arena[ray + RayField.cutoffHz] * centsToRatio(offsets[CUTOFF_CENTS])
  v.damping[voice] = arena[ray + RayField.damping]
  v.filterEnv[voice] = envelopeOffset(program, arena[ray + RayField.filterEnv])
  v.filterEnvCents[voice] = arena[ray + RayField.filterEnvCents]
  v.filterCell[voice] = -1
  v.leftOne[voice] = v.leftTwo[voice] = v.rightOne[voice] = v.rightTwo[voice] = 0
  v.endFrame[voice] = v.holds[voice] !== 0 && hasSustain(arena, v.ampEnv[voice]) ? NEVER : envelopeEnd(engine, voice)
  return voice
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

function clampPan(pan: number): number {
  return pan < -1 ? -1 : pan > 1 ? 1 : pan
}

function takeStrike(engine: EngineState, padSlot: number, program: number, velocity: number, key: number): number {
  const s = engine.strikes
  for (let slot = 0; slot < s.active.length; slot++) {
    if (s.active[slot] !== 0) continue
    s.active[slot] = 1
    s.padSlot[slot] = padSlot
    s.voices[slot] = 0
    s.velocity[slot] = velocity
    s.released[slot] = 0
    s.stopping[slot] = 0
    s.group[slot] = engine.memory.arena[program + Head.group]
    s.startFrame[slot] = engine.frame
    s.key[slot] = key
    s.order[slot] = engine.strikeOrder++
    return slot
  }
  return -1
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

/** Opens the log record of a strike and returns its offset. */
function beginRecord(engine: EngineState, padSlot: number, velocity: number, inputFrame: number, padStrike: number): number {
  const { log, status } = engine.memory
  const at = (status[StatusField.logCount] % LOG_RECORDS) * LogField.length
  for (let i = 0; i < LogField.length; i++) log[at + i] = 0
  log[at + LogField.frame] = engine.frame
  log[at + LogField.inputFrame] = inputFrame
  log[at + LogField.padSlot] = padSlot
  log[at + LogField.velocity] = velocity
  log[at + LogField.band] = -1
  log[at + LogField.turn] = -1
  log[at + LogField.strikeNumber] = padStrike
  log[at + LogField.aboveBand] = -1
  log[at + LogField.aboveTurn] = -1
  status[StatusField.logCount]++
  return at
}
