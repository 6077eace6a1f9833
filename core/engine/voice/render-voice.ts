import { bent, envelopeAt, nextPointAfter } from './envelope'
import { filter } from './filter'
import { centsToRatio } from '../math'
import { EnvelopeField, PointField } from '../program/layout'
import { GRID_FRAMES, NEVER } from '../state'
import type { EngineState } from '../state'

/** How many stop fades long a filter may ring after its clip. */
const RING_FADES = 5

/** Adds `count` frames of a voice, from `frame` on, to the mix. Audio thread: allocates nothing. */
export function renderVoice(engine: EngineState, voice: number, frame: number, count: number): void {
  const v = engine.voices
  let from = 0
  if (v.startFrame[voice] > frame) {
    from = v.startFrame[voice] - frame
    if (from >= count) return
  }
  const start = frame + from
  const length = Math.max(0, Math.min(frame + count, lastFrame(engine, voice)) - start)
  const stereo = v.right[voice] >= 0
  const produced = length > 0 ? readClip(engine, voice, start, length, stereo) : 0
  const ended = v.loops[voice] === 0 && v.position[voice] >= v.frames[voice]
  const rings = v.filterType[voice] !== 0
  // A filter rings on after its clip; it gets a short fade that begins on the very frame where the clip ends.
  if (ended && rings && v.fadeStart[voice] === NEVER) {
    v.fadeStart[voice] = start + produced
    v.fadeFrames[voice] = RING_FADES * engine.stopFadeFrames
  }
  const heard = rings ? Math.min(length, Math.max(0, lastFrame(engine, voice) - start)) : produced
  if (heard > 0) {
    if (rings) filter(engine, voice, start, heard, stereo)
    if (v.ampEnv[voice] !== 0) applyAmp(engine, voice, start, heard, stereo)
    if (v.fadeStart[voice] !== NEVER) applyFade(engine, voice, start, heard, stereo)
    addToMix(engine, voice, from, heard, stereo)
  }
  if (frame + count >= lastFrame(engine, voice) || (ended && !rings)) endVoice(engine, voice)
}

/** The frame on which a voice is over whatever its clip does: its envelope's end, or that of its last fade. */
function lastFrame(engine: EngineState, voice: number): number {
  const v = engine.voices
  return Math.min(v.endFrame[voice], v.fadeStart[voice] + v.fadeFrames[voice])
}

export function endVoice(engine: EngineState, voice: number): void {
  const v = engine.voices
  v.active[voice] = 0
  engine.memory.uses[v.program[voice]]--
  const strike = v.strike[voice]
  if (--engine.strikes.voices[strike] === 0) engine.strikes.active[strike] = 0
}

/** Reads `count` frames into the scratch blocks, silence after the clip's end; returns how many lie before that end. */
function readClip(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): number {
  const v = engine.voices
  if (v.pitchEnv[voice] === 0) {
    if (v.baseRate[voice] === 1 && v.loops[voice] === 0 && v.position[voice] === Math.floor(v.position[voice]))
      return copyRun(engine, voice, count, stereo)
    return readRun(engine, voice, 0, count, v.baseRate[voice], 0, 0, stereo)
  }
  let produced = 0
  for (let done = 0; done < count;) {
    if (start + done >= v.cellEnd[voice]) beginCell(engine, voice, start + done)
    const run = Math.min(count - done, v.cellEnd[voice] - start - done)
    produced += readRun(engine, voice, done, run, v.cellRate[voice], v.cellRateSlope[voice], start + done - v.cellStart[voice], stereo)
    done += run
  }
  return produced
}

/** A pitch cell runs to the next control frame or the next envelope point, whichever comes first. */
function beginCell(engine: EngineState, voice: number, frame: number): void {
  const v = engine.voices
  const arena = engine.memory.arena
  const envelope = v.pitchEnv[voice]
  const time = frame - v.startFrame[voice]
  const grid = (Math.floor(frame / GRID_FRAMES) + 1) * GRID_FRAMES
  const point = Math.floor(nextPointAfter(arena, envelope, time)) + v.startFrame[voice]
  const end = point > frame && point < grid ? point : grid
  // Where a cell goes on from the last one, its first rate is the one that was computed as the last one's end.
  const from = v.cellEnd[voice] === frame ? v.cellRateEnd[voice] : v.baseRate[voice] * centsToRatio(envelopeAt(arena, envelope, time))
  const to = v.baseRate[voice] * centsToRatio(envelopeAt(arena, envelope, end - v.startFrame[voice]))
  v.cellStart[voice] = frame
  v.cellEnd[voice] = end
  v.cellRate[voice] = from
  v.cellRateEnd[voice] = to
  v.cellRateSlope[voice] = (to - from) / (end - frame)
}

/** Rate 1 from a whole frame: the samples themselves. Returns how many frames the clip still had. */
function copyRun(engine: EngineState, voice: number, count: number, stereo: boolean): number {
  const v = engine.voices
  const chunk = engine.memory.chunks[v.chunk[voice]]
  const position = v.position[voice]
  const available = chunk === undefined ? 0 : Math.min(count, Math.max(0, v.frames[voice] - position))
  const left = v.left[voice] + position
  const { scratchLeft, scratchRight } = engine
  v.position[voice] = position + count
  if (available < count) silence(engine, available, count)
  if (chunk === undefined) return 0
  for (let i = 0; i < available; i++) scratchLeft[i] = chunk[left + i]
  if (!stereo) return available
  const right = v.right[voice] + position
  for (let i = 0; i < available; i++) scratchRight[i] = chunk[right + i]
  return available
}

function silence(engine: EngineState, from: number, to: number): void {
  engine.scratchLeft.fill(0, from, to)
  engine.scratchRight.fill(0, from, to)
}

/**
 * Four-point cubic interpolation (Hermite through the two middle points, Catmull-Rom tangents). `rate` is that of the
 * cell's first frame and `inCell` how far into the cell this run begins, so that a split run adds the same numbers.
 * Returns how many frames the clip still had.
 */
function readRun(
  engine: EngineState,
  voice: number,
  at: number,
  count: number,
  rate: number,
  slope: number,
  inCell: number,
  stereo: boolean,
): number {
  const v = engine.voices
  const chunk = engine.memory.chunks[v.chunk[voice]]
  const frames = v.frames[voice]
  if (chunk === undefined) {
    v.position[voice] = frames
    silence(engine, at, at + count)
    return 0
  }
  const { scratchLeft, scratchRight } = engine
  let position = v.position[voice]
  const left = v.left[voice]
  const right = v.right[voice]
  const loops = v.loops[voice] !== 0
  let i = 0
  for (; i < count; i++) {
    if (position >= frames) {
      if (!loops) break
      position %= frames
    }
    const whole = position | 0
    const t = position - whole
    const seam = loops && t > 0 && (whole < 1 || whole > frames - 3)
    scratchLeft[at + i] = seam ? overSeam(chunk, left, whole, t, frames) : between(chunk, left + whole, t)
    if (stereo) scratchRight[at + i] = seam ? overSeam(chunk, right, whole, t, frames) : between(chunk, right + whole, t)
    position += rate + (inCell + i) * slope
  }
  v.position[voice] = position
  if (i < count) silence(engine, at + i, at + count)
  return i
}

/** As `between`, where a loop goes on from its end to its start. */
function overSeam(chunk: Float32Array, first: number, whole: number, t: number, frames: number): number {
  const a = chunk[first + ((whole + frames - 1) % frames)]
  const b = chunk[first + whole]
  const c = chunk[first + ((whole + 1) % frames)]
  const d = chunk[first + ((whole + 2) % frames)]
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)))
}

/** The value a share `t` (0..1) of the way from sample `p` to the next. */
function between(chunk: Float32Array, p: number, t: number): number {
  const a = chunk[p - 1]
  const b = chunk[p]
  const c = chunk[p + 1]
  const d = chunk[p + 2]
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)))
}

/** Level of a voice's amplitude envelope at an absolute frame; waits at the sustain point until it is let go. */
export function ampAt(engine: EngineState, voice: number, frame: number): number {
  const v = engine.voices
  const arena = engine.memory.arena
  const envelope = v.ampEnv[voice]
  if (envelope === 0) return 1
  const scale = v.timeScale[voice]
  const time = (frame - v.startFrame[voice]) * scale
  const sustain = arena[envelope + EnvelopeField.sustain]
  if (sustain < 0 || v.holds[voice] === 0) return envelopeAt(arena, envelope, time)
  const point = envelope + EnvelopeField.length + sustain * PointField.length
  const held = arena[point + PointField.frame]
  if (v.releaseFrame[voice] === NEVER) return envelopeAt(arena, envelope, Math.min(time, held))
  const after = (frame - v.releaseFrame[voice]) * scale + held
  const next = arena[point + PointField.length + PointField.frame]
  if (after >= next) return envelopeAt(arena, envelope, after)
  const to = arena[point + PointField.length + PointField.value]
  return bent(v.releaseLevel[voice], to, (after - held) / (next - held), arena[point + PointField.length + PointField.k])
}

function applyAmp(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { scratchLeft, scratchRight } = engine
  const v = engine.voices
  const held = v.holds[voice] !== 0
  const plain = held ? -1 : plainSegment(engine, voice, start, count)
  if (plain >= 0) {
    applySegment(engine, voice, plain, start, count, stereo)
    return
  }
  for (let i = 0; i < count; i++) {
    const level = ampAt(engine, voice, start + i)
    scratchLeft[i] *= level
    if (stereo) scratchRight[i] *= level
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

function applyFade(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { scratchLeft, scratchRight } = engine
  const v = engine.voices
  const fadeStart = v.fadeStart[voice]
  const fadeFrames = v.fadeFrames[voice]
  for (let i = 0; i < count; i++) {
    const passed = start + i - fadeStart
    if (passed <= 0) continue
    const level = 1 - passed / fadeFrames
    scratchLeft[i] *= level
    if (stereo) scratchRight[i] *= level
  }
}

function addToMix(engine: EngineState, voice: number, at: number, count: number, stereo: boolean): void {
  const { mixLeft, mixRight, scratchLeft } = engine
  const scratchRight = stereo ? engine.scratchRight : scratchLeft
  const gainLeft = engine.voices.gainLeft[voice]
  const gainRight = engine.voices.gainRight[voice]
  let peak = 0
  for (let i = 0; i < count; i++) {
    const left = scratchLeft[i] * gainLeft
    const right = scratchRight[i] * gainRight
    mixLeft[at + i] += left
    mixRight[at + i] += right
    if (left > peak) peak = left
    else if (-left > peak) peak = -left
    if (right > peak) peak = right
    else if (-right > peak) peak = -right
  }
  const { meters } = engine.memory
  const meter = engine.voices.meter[voice]
  if (peak > meters[meter]) meters[meter] = peak
}
