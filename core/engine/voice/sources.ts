import { centsToRatioIn } from '../math'
import { GRID_FRAMES } from '../state'
import type { EngineState } from '../state'
import { envelopeIn, nextPointAfter } from './envelope'

/**
 * Sources of a voice: each reads so many frames of its clip into the scratch blocks, silence after the clip's end, and
 * returns how many lie before that end.
 */

/** What a voice is read by, decided when it begins: its samples as they are, at one rate, or at a rate that moves. */
export const sourceKinds = { plain: 0, resampled: 1, gliding: 2 } as const

export function readSource(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): number {
  const v = engine.voices
  if (v.isLive[voice] !== 0) return readLive(engine, voice, count, stereo)
  switch (v.source[voice]) {
    case sourceKinds.plain:
      return copyRun(engine, voice, count, stereo)
    case sourceKinds.resampled:
      step[RATE] = v.baseRate[voice]
      step[SLOPE] = 0
      step[PASSED] = 0
      step[RATIO] = 1
      return readRun(engine, voice, 0, count, stereo)
    default:
      return readGliding(engine, voice, start, count, stereo)
  }
}

/** How a clip is read: its rate where the cell begins and by how much it moves a frame, how far into the cell; or by which factor. */
const [RATE, SLOPE, PASSED, RATIO] = [0, 1, 2, 3]
const step = new Float64Array(4)

/** At a rate that is multiplied from frame to frame, and kept for the next run. */
function readLive(engine: EngineState, voice: number, count: number, stereo: boolean): number {
  const v = engine.voices
  step[RATE] = v.runRate[voice]
  step[SLOPE] = 0
  step[PASSED] = 0
  step[RATIO] = v.runRateRatio[voice]
  const produced = readRun(engine, voice, 0, count, stereo)
  v.runRate[voice] = step[RATE]
  return produced
}

/** Which source a voice takes. A plain one that goes on from between two frames is resampled from there on. */
export function chooseSource({ voices: v }: EngineState, voice: number): number {
  if (v.pitchEnv[voice] !== 0) return sourceKinds.gliding
  const isPlain = v.baseRate[voice] === 1 && v.loops[voice] === 0
  return isPlain ? sourceKinds.plain : sourceKinds.resampled
}

function readGliding(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): number {
  const v = engine.voices
  let produced = 0
  for (let done = 0; done < count;) {
    if (start + done >= v.cellEnd[voice]) beginCell(engine, voice, start + done)
    const run = Math.min(count - done, v.cellEnd[voice] - start - done)
    step[RATE] = v.cellRate[voice]
    step[SLOPE] = v.cellRateSlope[voice]
    step[PASSED] = start + done - v.cellStart[voice]
    step[RATIO] = 1
    produced += readRun(engine, voice, done, run, stereo)
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
  if (v.cellEnd[voice] === frame) v.cellRate[voice] = v.cellRateEnd[voice]
  else rateAt(engine, voice, time, v.cellRate)
  rateAt(engine, voice, end - v.startFrame[voice], v.cellRateEnd)
  v.cellStart[voice] = frame
  v.cellEnd[voice] = end
  v.cellRateSlope[voice] = (v.cellRateEnd[voice] - v.cellRate[voice]) / (end - frame)
}

/** Leaves the rate of a voice, so many frames after its start, in a row of its cells. */
function rateAt({ voices: v, memory }: EngineState, voice: number, time: number, rates: Float64Array): void {
  rates[voice] = time
  envelopeIn(rates, voice, memory.arena, v.pitchEnv[voice])
  centsToRatioIn(rates, voice)
  rates[voice] *= v.baseRate[voice]
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
 * Four-point cubic interpolation (Hermite through the two middle points, Catmull-Rom tangents), at the rate that `step`
 * says: a rate is reckoned from where its cell began, so that a split run adds the same numbers. Leaves the next rate in
 * `step` where it has a ratio. Returns how many frames the clip still had.
 */
function readRun(engine: EngineState, voice: number, at: number, count: number, stereo: boolean): number {
  const v = engine.voices
  const chunk = engine.memory.chunks[v.chunk[voice]]
  const frames = v.frames[voice]
  if (chunk === undefined) {
    v.position[voice] = frames
    silence(engine, at, at + count)
    return 0
  }
  const { scratchLeft, scratchRight } = engine
  const first = step[RATE]
  const slope = step[SLOPE]
  const passed = step[PASSED]
  const ratio = step[RATIO]
  const glides = v.isLive[voice] !== 0
  let position = v.position[voice]
  const left = v.left[voice]
  const right = v.right[voice]
  const loops = v.loops[voice] !== 0
  let rate = first + passed * slope
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
    position += rate
    rate = glides ? rate * ratio : first + (passed + i + 1) * slope
  }
  v.position[voice] = position
  if (glides) step[RATE] = rate
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
