import { MIX_FROM } from '../memory/reading-tables'
import type { EngineState } from '../state'
import { takeTail } from './loops'
import { beginPitchCell } from './pitch-cells'
import { readThrough } from './reading'

/**
 * Sources of a voice: each reads so many frames of its clip into the scratch blocks, silence after the clip's end, and
 * returns how many lie before that end. This is the plain form of what the kernel does.
 */

/** What a voice is read by, decided when it begins: its samples as they are, at one rate, or at a rate that moves. */
export const sourceKinds = { plain: 0, resampled: 1, gliding: 2 } as const

export function readSource(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): number {
  const v = engine.voices
  if (v.isLive[voice] !== 0) {
    setPath(v.runPlace[voice], v.runPlaceStep[voice], start - v.runStart[voice])
    path[RATE] = v.runRate[voice]
    path[RATIO] = v.runRateRatio[voice]
    const produced = readRun(engine, voice, 0, count, stereo)
    v.runRate[voice] = path[RATE]
    return produced
  }
  switch (v.source[voice]) {
    case sourceKinds.plain:
      return copyRun(engine, voice, count, stereo)
    case sourceKinds.resampled:
      setPath(v.basePlace[voice], 0, 0)
      path[RATE] = v.baseRate[voice]
      path[RATIO] = 1
      return readRun(engine, voice, 0, count, stereo)
    default:
      return readGliding(engine, voice, start, count, stereo)
  }
}

/**
 * How a run is read: the place among the tables where its cell begins, by how much it moves a frame, and how many frames
 * have passed since; its rate, and by which factor that moves.
 */
const [PLACE, PLACE_STEP, PASSED, RATE, RATIO] = [0, 1, 2, 3, 4]
const path = new Float64Array(5)

function setPath(place: number, step: number, passed: number): void {
  path[PLACE] = place
  path[PLACE_STEP] = step
  path[PASSED] = passed
}

/** Which source a voice takes. A plain one that goes on from between two frames is resampled from there on. */
export function chooseSource({ voices: v }: EngineState, voice: number): number {
  if (v.pitchEnv[voice] !== 0) return sourceKinds.gliding
  const isPlain = v.baseRate[voice] === 1 && v.loops[voice] === 0
  return isPlain ? sourceKinds.plain : sourceKinds.resampled
}

/** Cell by cell; within one the pitch goes straight. */
function readGliding(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): number {
  const v = engine.voices
  let produced = 0
  for (let done = 0; done < count;) {
    const frame = start + done
    if (frame >= v.cellEnd[voice]) beginPitchCell(engine, voice, frame)
    const run = Math.min(count - done, v.cellEnd[voice] - frame)
    setPath(v.cellPlace[voice], v.cellPlaceStep[voice], frame - v.cellStart[voice])
    path[RATE] = v.cellRate[voice]
    path[RATIO] = v.cellRatio[voice]
    produced += readRun(engine, voice, done, run, stereo)
    v.cellRate[voice] = path[RATE]
    done += run
  }
  return produced
}

/** Rate 1 from a whole frame: the samples themselves. Returns how many frames the clip still had. */
function copyRun(engine: EngineState, voice: number, count: number, stereo: boolean): number {
  const v = engine.voices
  const chunk = engine.memory.chunks[v.chunk[voice]]
  const position = v.position[voice]
  const available = chunk === undefined ? 0 : Math.min(count, Math.max(0, v.frames[voice] - position))
  const left = v.left[voice] + position
  const { positions, scratchLeft, scratchRight } = engine
  v.position[voice] = position + count
  if (available < count) silence(engine, available, count)
  if (chunk === undefined) return 0
  for (let i = 0; i < available; i++) {
    positions[i] = position + i
    scratchLeft[i] = chunk[left + i]
  }
  if (!stereo) return available
  const right = v.right[voice] + position
  for (let i = 0; i < available; i++) scratchRight[i] = chunk[right + i]
  return available
}

function silence(engine: EngineState, from: number, to: number): void {
  engine.scratchLeft.fill(0, from, to)
  engine.scratchRight.fill(0, from, to)
}

/** Reads a run along its path, which is left where the next one goes on. Returns how many frames the clip still had. */
function readRun(engine: EngineState, voice: number, at: number, count: number, stereo: boolean): number {
  const { voices: v } = engine
  let produced = readStretch(engine, voice, at, count, stereo)
  if (v.leaves[voice] === 0 || v.position[voice] < v.frames[voice] || produced === count) return produced
  // It came round to where it leaves its loop: the rest of the run is the clip itself.
  v.position[voice] += v.loopStart[voice] - v.frames[voice]
  takeTail(engine, voice, at + produced)
  path[PASSED] += produced
  produced += readStretch(engine, voice, at + produced, count - produced, stereo)
  return produced
}

function readStretch(engine: EngineState, voice: number, at: number, count: number, stereo: boolean): number {
  const { voices: v, positions } = engine
  const chunk = engine.memory.chunks[v.chunk[voice]]
  const frames = v.frames[voice]
  const loops = v.loops[voice] !== 0
  const from = v.roundFrom[voice]
  if (chunk === undefined) v.position[voice] = frames
  let position = v.position[voice]
  let rate = path[RATE]
  const isCopied = rate === 1 && path[RATIO] === 1 && position === Math.floor(position)
  let i = 0
  for (; i < count; i++) {
    if (position >= frames) {
      if (!loops || chunk === undefined || v.leaves[voice] !== 0) break
      position = from + ((position - from) % (frames - from))
    }
    positions[at + i] = position
    position += rate
    rate *= path[RATIO]
  }
  v.position[voice] = position
  path[RATE] = rate
  if (i < count) silence(engine, at + i, at + count)
  if (chunk === undefined) return i
  if (isCopied) copyAlong(engine, voice, chunk, at, i, stereo)
  else readAlong(engine, voice, chunk, at, i, stereo)
  return i
}

/** At rate 1 from a whole frame what goes round, or is moved otherwise, is the samples themselves too. */
function copyAlong(engine: EngineState, voice: number, chunk: Float32Array, at: number, count: number, stereo: boolean): void {
  const { voices: v, positions, scratchLeft, scratchRight } = engine
  for (let i = 0; i < count; i++) scratchLeft[at + i] = chunk[v.left[voice] + positions[at + i]]
  if (stereo) for (let i = 0; i < count; i++) scratchRight[at + i] = chunk[v.right[voice] + positions[at + i]]
}

/** The frames of a run, those together that are read by the same table, or by the same two. */
function readAlong(engine: EngineState, voice: number, chunk: Float32Array, at: number, count: number, stereo: boolean): void {
  const { scratchLeft, scratchRight, gainsLeft, gainsRight } = engine
  for (let from = 0; from < count;) {
    const table = tableAtFrame(from)
    const mixes = mixAtFrame(from, table) > 0
    let to = path[PLACE_STEP] === 0 ? count : from + 1
    while (to < count && tableAtFrame(to) === table && mixAtFrame(to, table) > 0 === mixes) to++
    readThrough(engine, voice, chunk, table, at + from, at + to, scratchLeft, stereo ? scratchRight : undefined)
    if (mixes) {
      readThrough(engine, voice, chunk, table + 1, at + from, at + to, gainsLeft, stereo ? gainsRight : undefined)
      for (let i = from; i < to; i++) {
        const share = mixAtFrame(i, table)
        scratchLeft[at + i] += share * (gainsLeft[at + i] - scratchLeft[at + i])
        if (stereo) scratchRight[at + i] += share * (gainsRight[at + i] - scratchRight[at + i])
      }
    }
    from = to
  }
}

/** The table by which a frame of the run is read, counted on through the octaves; the first one below the engine's own rate. */
function tableAtFrame(i: number): number {
  const table = Math.floor(path[PLACE] + (path[PASSED] + i) * path[PLACE_STEP])
  return table < 0 ? 0 : table
}

/** How far a frame has gone over into the next table, 0..1. */
function mixAtFrame(i: number, table: number): number {
  const share = (path[PLACE] + (path[PASSED] + i) * path[PLACE_STEP] - table - MIX_FROM) * (1 / (1 - MIX_FROM))
  return share < 0 ? 0 : share
}
