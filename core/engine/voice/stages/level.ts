import { EnvelopeField, ParamCode, PARAMS, PointField, RayField } from '../../program/layout'
import { NEVER } from '../../time'
import type { EngineState } from '../../state'
import { useMemory } from '../both/cells'
import { envelopeValue } from '../both/envelope-time'

/** Level of a voice's envelope at an absolute frame; while it is held it waits, or goes round, until it is let go. */
export function levelAt({ voices: v, memory }: EngineState, voice: number, frame: number): number {
  if (v.ampEnv[voice] === 0) return 1
  const scale = v.timeScale[voice]
  const letGo = v.releaseFrame[voice] === NEVER ? NEVER : (v.releaseFrame[voice] - v.startFrame[voice]) * scale
  useMemory(memory.everything)
  const envelope = memory.arena.byteOffset / 8 + v.ampEnv[voice]
  return envelopeValue(envelope, (frame - v.startFrame[voice]) * scale, v.holds[voice], letGo, v.releaseLevel[voice])
}

/** Whether its level envelope ends a voice: it ends in silence, and counts whole whatever moves it. */
export function fallsSilent({ voices: v, memory }: EngineState, voice: number): boolean {
  const { arena } = memory
  const envelope = v.ampEnv[voice]
  if (envelope === 0 || v.levelShare[voice] !== 1 || arena[v.ray[voice] + RayField.levelShareMoves] !== 0) return false
  const last = envelope + EnvelopeField.length + (arena[envelope + EnvelopeField.count] - 1) * PointField.length
  return arena[last + PointField.value] <= 0
}

/** The level envelope over a stretch; what is held is looked at frame by frame. */
export function applyLevel(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { scratchLeft, scratchRight } = engine
  const v = engine.voices
  const held = v.holds[voice] !== 0 || shareMoves(v, voice) || v.levelShare[voice] !== 1
  const plain = held ? -1 : plainSegment(engine, voice, start, count)
  if (plain >= 0) {
    applySegment(engine, voice, plain, start, count, stereo)
    return
  }
  for (let i = 0; i < count; i++) {
    const share = shareAt(v, voice, start + i)
    const full = levelAt(engine, voice, start + i)
    const level = share === 1 ? full : 1 + share * (full - 1)
    scratchLeft[i] *= level
    if (stereo) scratchRight[i] *= level
  }
}

/** By what share the envelope counts at a frame, 0..1, where a response may move it. */
function shareAt(v: EngineState['voices'], voice: number, frame: number): number {
  if (v.isLive[voice] === 0) return v.levelShare[voice]
  const at = voice * PARAMS + ParamCode.levelEnvelope
  const share = v.levelShare[voice] + (v.offset[at] + v.offsetStep[at] * (frame - v.runStart[voice]))
  return Math.min(1, Math.max(0, share))
}

function shareMoves(v: EngineState['voices'], voice: number): boolean {
  const at = voice * PARAMS + ParamCode.levelEnvelope
  return v.isLive[voice] !== 0 && (v.offset[at] !== 0 || v.offsetStep[at] !== 0)
}

/** The segment (offset of its end point) that holds all of these frames, or -1 when they straddle a point. */
function plainSegment(engine: EngineState, voice: number, start: number, count: number): number {
  const arena = engine.memory.arena
  const v = engine.voices
  const envelope = v.ampEnv[voice]
  const points = arena[envelope + EnvelopeField.count]
  const first = (start - v.startFrame[voice]) * v.timeScale[voice]
  const last = (start + count - 1 - v.startFrame[voice]) * v.timeScale[voice]
  for (let index = 1; index < points; index++) {
    const to = envelope + EnvelopeField.length + index * PointField.length
    if (first < arena[to + PointField.frame])
      return first > arena[to - PointField.length + PointField.frame] && last < arena[to + PointField.frame] ? to : -1
  }
  return -1
}

function applySegment(engine: EngineState, voice: number, to: number, start: number, count: number, stereo: boolean): void {
  const { scratchLeft, scratchRight } = engine
  const arena = engine.memory.arena
  const v = engine.voices
  const from = to - PointField.length
  const begin = arena[from + PointField.frame]
  const perFrame = 1 / (arena[to + PointField.frame] - begin)
  const low = arena[from + PointField.value]
  const rise = arena[to + PointField.value] - low
  const k = arena[to + PointField.k]
  const scale = v.timeScale[voice]
  const origin = v.startFrame[voice]
  for (let i = 0; i < count; i++) {
    const u = ((start + i - origin) * scale - begin) * perFrame
    const level = k === 1 ? low + rise * u : low + rise * (u / (u + k * (1 - u)))
    scratchLeft[i] *= level
    if (stereo) scratchRight[i] *= level
  }
}
