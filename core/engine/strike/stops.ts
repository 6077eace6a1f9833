import { limitCodes, onCodes } from '../program/codes'
import {
  ChokeField,
  EnvelopeField,
  FilterField,
  FILTERS,
  Head,
  KitHead,
  LogField,
  PointField,
  RayField,
  StatusField,
  VOICE_POOL,
} from '../program/layout'
import { MAX_STRIKES, programOf } from '../state'
import { NEVER } from '../time'
import type { EngineState } from '../state'
import { endVoice } from '../voice/render-voice'
import { leaveLoop } from '../voice/loops'
import { fallsSilent, levelAt } from '../voice/stages/level'
import { filterEnvelopeAt } from '../voice/stages/filter'
import { pitchAt } from '../voice/live'

/** Lets a held pad go: strikes with this key, or all of the pad for key 0. */
export function release(engine: EngineState, padSlot: number, key: number): void {
  const s = engine.strikes
  for (let slot = 0; slot < s.active.length; slot++) {
    if (s.active[slot] === 0 || s.struckSlot[slot] !== padSlot || s.released[slot] !== 0) continue
    if (key !== 0 && s.key[slot] !== key) continue
    s.released[slot] = 1
    releaseVoices(engine, slot)
  }
  const program = programOf(engine, padSlot)
  if (program !== 0) choke(engine, program, onCodes.letGo)
}

/** Lets go of all that one key holds, whatever pads it struck. */
export function releaseKey(engine: EngineState, key: number): void {
  const s = engine.strikes
  for (let slot = 0; slot < s.active.length; slot++) {
    if (s.active[slot] === 0 || s.key[slot] !== key || s.released[slot] !== 0) continue
    s.released[slot] = 1
    releaseVoices(engine, slot)
  }
}

function releaseVoices(engine: EngineState, slot: number): void {
  const v = engine.voices
  const arena = engine.memory.arena
  for (let voice = 0; voice < engine.voiceTop; voice++) {
    if (v.active[voice] === 0 || v.strike[voice] !== slot || v.holds[voice] === 0) continue
    const envelope = v.ampEnv[voice]
    const sustain = envelope === 0 ? -1 : arena[envelope + EnvelopeField.sustain]
    const waits = sustain >= 0 && sustain < arena[envelope + EnvelopeField.count] - 1
    if (!leaveLoop(engine, voice) && !waits) {
      fadeVoice(engine, voice, engine.stopFadeFrames)
      continue
    }
    noteWhereLeft(engine, voice)
    v.releaseFrame[voice] = engine.frame
    if (!waits || !fallsSilent(engine, voice)) continue
    const points = envelope + EnvelopeField.length
    const last = points + (arena[envelope + EnvelopeField.count] - 1) * PointField.length
    const remaining = arena[last + PointField.frame] - arena[points + sustain * PointField.length + PointField.frame]
    v.endFrame[voice] = engine.frame + Math.floor(remaining / v.timeScale[voice] + 1)
  }
}

/** Notes where the envelopes of a voice stand as it is let go: from there they set out for what follows. */
function noteWhereLeft(engine: EngineState, voice: number): void {
  const { voices: v, frame } = engine
  v.releaseLevel[voice] = levelAt(engine, voice, frame)
  v.releaseCents[voice] = pitchAt(engine, voice, frame)
  for (let which = 0; which < FILTERS; which++) {
    const at = (voice * FILTERS + which) * FilterField.length
    v.filters[at + FilterField.leftAt] = filterEnvelopeAt(engine, voice, which, frame)
    v.filters[at + FilterField.spanStart] = v.filters[at + FilterField.cellEnd] = -1 // where it waited it sets out now
  }
}

/** Begins a voice's last fade; a voice that already fades keeps the fade that ends first. */
function fadeVoice(engine: EngineState, voice: number, fadeFrames: number): void {
  const v = engine.voices
  const frames = Math.max(1, fadeFrames)
  if (v.fadeStart[voice] !== NEVER) {
    const left = v.fadeStart[voice] + v.fadeFrames[voice] - engine.frame
    if (left <= frames) return
    // A shorter fade goes on from the level that the longer one has reached.
    const level = left / v.fadeFrames[voice]
    v.gain[voice] *= level
    v.runGain[voice] *= level
    v.gainLeft[voice] *= level
    v.gainRight[voice] *= level
  }
  v.fadeStart[voice] = engine.frame
  v.fadeFrames[voice] = frames
}

export function stopStrike(engine: EngineState, slot: number, fadeFrames: number): void {
  engine.strikes.stopping[slot] = 1
  for (let voice = 0; voice < engine.voiceTop; voice++)
    if (engine.voices.active[voice] !== 0 && engine.voices.strike[voice] === slot) fadeVoice(engine, voice, fadeFrames)
}

/** Stops every strike of a pad, or of all pads for -1. Returns whether any was sounding. */
export function stopPad(engine: EngineState, padSlot: number): boolean {
  const s = engine.strikes
  let stopped = false
  for (let slot = 0; slot < s.active.length; slot++)
    if (s.active[slot] !== 0 && s.stopping[slot] === 0 && (padSlot < 0 || s.padSlot[slot] === padSlot)) {
      stopStrike(engine, slot, engine.stopFadeFrames)
      stopped = true
    }
  return stopped
}

/** Silences what a pad silences by its strike, by being let go or by pressure; a strike notes the pads in its record. */
export function choke(engine: EngineState, program: number, on: number): void {
  const { memory, now } = engine
  const { arena, log } = memory
  for (let i = 0; i < arena[program + Head.chokeCount]; i++) {
    const tie = program + arena[program + Head.chokes] + i * ChokeField.length
    if (arena[tie + ChokeField.on] !== on || !silence(engine, program, tie)) continue
    if (on === onCodes.strike) setBit(log, now.record + LogField.choked, arena[tie + ChokeField.padSlot])
  }
}

/** Silences the strikes of a pad, or what a tie of a pad's program reaches of them. Returns whether anything sounded. */
function silence(engine: EngineState, program: number, tie: number): boolean {
  const { strikes: s, memory } = engine
  const { arena } = memory
  const isWhole = arena[tie + ChokeField.rays] === 0 && arena[tie + ChokeField.bands] === 0
  let silenced = false
  const silencedSlot = arena[tie + ChokeField.padSlot]
  // A pad that silences itself goes on all the same.
  if (isWhole && programOf(engine, silencedSlot) !== program) engine.rollEnd[silencedSlot] = engine.frame
  for (let slot = 0; slot < s.active.length; slot++) {
    if (s.active[slot] === 0 || s.stopping[slot] !== 0 || s.padSlot[slot] !== arena[tie + ChokeField.padSlot]) continue
    if (isWhole) stopStrike(engine, slot, arena[tie + ChokeField.fadeFrames])
    else if (!silenceReached(engine, tie, slot)) continue
    silenced = true
  }
  return silenced
}

/** Fades the voices of a strike that a tie reaches; one of which nothing is left is stopping. */
function silenceReached(engine: EngineState, tie: number, slot: number): boolean {
  const { voices: v, memory, strikes } = engine
  const { arena } = memory
  let reached = false
  let left = false
  for (let voice = 0; voice < engine.voiceTop; voice++) {
    if (v.active[voice] === 0 || v.strike[voice] !== slot) continue
    const isMeant = isListed(arena, tie + ChokeField.rays, arena[v.ray[voice] + RayField.hash]) && isListed(arena, tie + ChokeField.bands, v.bandHash[voice]) // prettier-ignore
    if (isMeant) {
      fadeVoice(engine, voice, arena[tie + ChokeField.fadeFrames])
      reached = true
    } else if (v.fadeStart[voice] === NEVER) left = true
  }
  if (reached && !left) strikes.stopping[slot] = 1
  return reached
}

/** Whether a hash stands in the list that a field points at, counted from itself; where there is no list, all do. */
function isListed(arena: Float64Array, field: number, hash: number): boolean {
  if (arena[field] === 0) return true
  const list = field + arena[field]
  for (let i = 1; i <= arena[list]; i++) if (arena[list + i] === hash) return true
  return false
}

/** Marks one of the pad slots in doubles of 32 bits each. */
function setBit(log: Float64Array, at: number, padSlot: number): void {
  const word = at + (padSlot >> 5)
  log[word] = (log[word] | (1 << (padSlot & 31))) >>> 0
}

/**
 * Voice limits count strikes. The pad's limit is looked at first, then its choke group's, then one it shares, then the kit's; what stops
 * is the oldest that was let go, else the oldest, and of two that began together the softer.
 */
export function makeRoom(engine: EngineState): void {
  const { memory, now, kit, strikes: s } = engine
  const { arena } = memory
  const { program } = now
  stealBeyond(engine, s.padSlot, now.padSlot, arena[program + Head.maxStrikes], limitCodes.own)
  if (arena[program + Head.group] >= 0)
    stealBeyond(engine, s.group, arena[program + Head.group], arena[program + Head.groupMaxStrikes], limitCodes.group)
  if (arena[program + Head.limit] >= 0)
    stealBeyond(engine, s.limit, arena[program + Head.limit], arena[program + Head.limitMaxStrikes], limitCodes.shared)
  const most = kit === 0 ? MAX_STRIKES : Math.min(MAX_STRIKES, arena[kit + KitHead.maxStrikes])
  stealBeyond(engine, s.active, 1, most, limitCodes.kit)
}

/** Stops strikes until one more fits within the limit of those whose `column` says `key`: a pad's, a group's, all; whose it was is noted. */
function stealBeyond(engine: EngineState, column: ArrayLike<number>, key: number, limit: number, by: number): void {
  const s = engine.strikes
  while (countOf(s, column, key) >= limit) {
    const first = firstOf(engine, column, key)
    setBit(engine.memory.log, engine.now.record + LogField.room, s.padSlot[first])
    engine.memory.log[engine.now.record + LogField.roomBy] |= by
    stopStrike(engine, first, engine.stopFadeFrames)
  }
}

/** How many strikes go on of those whose `column` says `key`; every strike asks for it, and hardly any has to find the first of them. */
function countOf({ active, stopping }: EngineState['strikes'], column: ArrayLike<number>, key: number): number {
  let count = 0
  for (let slot = 0; slot < active.length; slot++) if (column[slot] === key && active[slot] !== 0 && stopping[slot] === 0) count++
  return count
}

/** The one of them that is to go first. */
function firstOf(engine: EngineState, column: ArrayLike<number>, key: number): number {
  const { active, stopping } = engine.strikes
  let first = -1
  for (let slot = 0; slot < active.length; slot++)
    if (column[slot] === key && active[slot] !== 0 && stopping[slot] === 0 && (first < 0 || goesBefore(engine, slot, first))) first = slot
  return first
}

function goesBefore(engine: EngineState, a: number, b: number): boolean {
  const s = engine.strikes
  if (s.released[a] !== s.released[b]) return s.released[a] > s.released[b]
  if (s.startFrame[a] !== s.startFrame[b]) return s.startFrame[a] < s.startFrame[b]
  if (s.velocity[a] !== s.velocity[b]) return s.velocity[a] < s.velocity[b]
  return s.order[a] < s.order[b]
}

/**
 * Makes sure that so many voices are free: whole strikes end at once, first those that fade out already, then as limits
 * stop them, so that no microphone of a strike is ever missing. Each is counted.
 */
export function makeVoices(engine: EngineState, needed: number): void {
  for (let free = freeVoices(engine); free < needed; free = freeVoices(engine)) if (!endFirst(engine)) return
}

function freeVoices({ voices, voiceTop }: EngineState): number {
  let free = VOICE_POOL - voiceTop
  for (let voice = 0; voice < voiceTop; voice++) if (voices.active[voice] === 0) free++
  return free
}

/** Ends the strike that is to go first, at once. Returns whether there was one. */
export function endFirst(engine: EngineState): boolean {
  const { strikes: s, voices: v } = engine
  let first = -1
  for (let slot = 0; slot < s.active.length; slot++) {
    if (s.active[slot] === 0) continue
    if (first < 0 || s.stopping[slot] > s.stopping[first] || (s.stopping[slot] === s.stopping[first] && goesBefore(engine, slot, first)))
      first = slot
  }
  if (first < 0) return false
  for (let voice = 0; voice < engine.voiceTop; voice++) if (v.active[voice] !== 0 && v.strike[voice] === first) endVoice(engine, voice)
  engine.memory.status[StatusField.lostStrikes]++
  return true
}
