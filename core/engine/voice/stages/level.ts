import { EnvelopeField, PointField } from '../../program/layout'
import { NEVER } from '../../state'
import type { EngineState } from '../../state'
import { bent, envelopeIn } from '../envelope'

/** Level of a voice's amplitude envelope at an absolute frame; waits at the sustain point until it is let go. */
export function ampAt(engine: EngineState, voice: number, frame: number): number {
  ampIn(cell, engine, voice, frame)
  return cell[0]
}

/** Results go through a cell, so that they cost no memory (see math.ts). */
const cell = new Float64Array(1)

function ampIn(at: Float64Array, engine: EngineState, voice: number, frame: number): void {
  const v = engine.voices
  const arena = engine.memory.arena
  const envelope = v.ampEnv[voice]
  if (envelope === 0) {
    at[0] = 1
    return
  }
  const scale = v.timeScale[voice]
  const time = (frame - v.startFrame[voice]) * scale
  const sustain = arena[envelope + EnvelopeField.sustain]
  const point = envelope + EnvelopeField.length + sustain * PointField.length
  const held = arena[point + PointField.frame]
  const after = (frame - v.releaseFrame[voice]) * scale + held
  const next = arena[point + PointField.length + PointField.frame]
  const waits = sustain >= 0 && v.holds[voice] !== 0
  const isLetGo = v.releaseFrame[voice] !== NEVER
  if (waits && isLetGo && after < next) {
    const to = arena[point + PointField.length + PointField.value]
    at[0] = bent(v.releaseLevel[voice], to, (after - held) / (next - held), arena[point + PointField.length + PointField.k])
    return
  }
  at[0] = !waits ? time : isLetGo ? after : Math.min(time, held)
  envelopeIn(at, 0, arena, envelope)
}

/** The level envelope over a stretch; what is held is looked at frame by frame. */
export function applyLevel(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { scratchLeft, scratchRight } = engine
  const v = engine.voices
  const held = v.holds[voice] !== 0
  const plain = held ? -1 : plainSegment(engine, voice, start, count)
  if (plain >= 0) {
    applySegment(engine, voice, plain, start, count, stereo)
    return
  }
  for (let i = 0; i < count; i++) {
    ampIn(cell, engine, voice, start + i)
    scratchLeft[i] *= cell[0]
    if (stereo) scratchRight[i] *= cell[0]
  }
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
