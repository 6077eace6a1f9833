import { EnvelopeField, ChokeField, Head, KitField, LogField, PointField } from '../program/layout'
import { MAX_STRIKES, NEVER } from '../state'
import type { EngineState } from '../state'
import { ampAt } from '../voice/render-voice'

/** Lets a held pad go: strikes with this key, or all of the pad for key 0. */
export function release(engine: EngineState, padSlot: number, key: number): void {
  const s = engine.strikes
  for (let slot = 0; slot < s.active.length; slot++) {
    if (s.active[slot] === 0 || s.struckSlot[slot] !== padSlot || s.released[slot] !== 0) continue
    if (key !== 0 && s.key[slot] !== key) continue
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
    if (sustain < 0 || sustain >= arena[envelope + EnvelopeField.count] - 1) {
      fadeVoice(engine, voice, engine.stopFadeFrames)
      continue
    }
    v.releaseLevel[voice] = ampAt(engine, voice, engine.frame)
    v.releaseFrame[voice] = engine.frame
    const points = envelope + EnvelopeField.length
    const last = points + (arena[envelope + EnvelopeField.count] - 1) * PointField.length
    const remaining = arena[last + PointField.frame] - arena[points + sustain * PointField.length + PointField.frame]
    if (arena[last + PointField.value] <= 0) v.endFrame[voice] = engine.frame + Math.floor(remaining / v.timeScale[voice] + 1)
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

/** Silences the pads that the strike that is being decided silences, and notes them in its record. */
export function choke(engine: EngineState): void {
  const { program, record } = engine.now
  const arena = engine.memory.arena
  const s = engine.strikes
  const log = engine.memory.log
  for (let i = 0; i < arena[program + Head.chokeCount]; i++) {
    const tie = program + arena[program + Head.chokes] + i * ChokeField.length
    const padSlot = arena[tie + ChokeField.padSlot]
    let silenced = false
    for (let slot = 0; slot < s.active.length; slot++) {
      if (s.active[slot] === 0 || s.stopping[slot] !== 0 || s.padSlot[slot] !== padSlot) continue
      stopStrike(engine, slot, arena[tie + ChokeField.fadeFrames])
      silenced = true
    }
    if (silenced) setBit(log, record + LogField.choked, padSlot)
  }
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
  const { padSlot, program } = engine.now
  const arena = engine.memory.arena
  stealBeyond(engine, padSlot, -1, -1, arena[program + Head.maxStrikes])
  if (arena[program + Head.group] >= 0) stealBeyond(engine, -1, arena[program + Head.group], -1, arena[program + Head.groupMaxStrikes])
  if (arena[program + Head.limit] >= 0) stealBeyond(engine, -1, -1, arena[program + Head.limit], arena[program + Head.limitMaxStrikes])
  stealBeyond(engine, -1, -1, -1, Math.min(MAX_STRIKES, engine.memory.kit[KitField.maxStrikes]))
}

/** Stops strikes until one more fits within the limit: of a pad, of a group, of pads that share one, or (-1) of all. */
function stealBeyond(engine: EngineState, padSlot: number, group: number, shared: number, limit: number): void {
  const s = engine.strikes
  for (;;) {
    let count = 0
    let first = -1
    for (let slot = 0; slot < s.active.length; slot++) {
      if (s.active[slot] === 0 || s.stopping[slot] !== 0) continue
      if (padSlot >= 0 && s.padSlot[slot] !== padSlot) continue
      if (group >= 0 && s.group[slot] !== group) continue
      if (shared >= 0 && s.limit[slot] !== shared) continue
      count++
      if (first < 0 || goesBefore(engine, slot, first)) first = slot
    }
    if (count < limit) return
    stopStrike(engine, first, engine.stopFadeFrames)
  }
}

function goesBefore(engine: EngineState, a: number, b: number): boolean {
  const s = engine.strikes
  if (s.released[a] !== s.released[b]) return s.released[a] > s.released[b]
  if (s.startFrame[a] !== s.startFrame[b]) return s.startFrame[a] < s.startFrame[b]
  if (s.velocity[a] !== s.velocity[b]) return s.velocity[a] < s.velocity[b]
  return s.order[a] < s.order[b]
}
