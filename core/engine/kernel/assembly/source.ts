import {
  gainsLeft, gainsRight, MIX_FROM, positions, scratchLeft, scratchRight, SetUp_chunkAt, SourceKind_plain, SourceKind_resampled, stageCodes_edges, v_basePlace,
  v_baseRate, v_cellEnd, v_cellPlace, v_cellPlaceStep, v_cellRate, v_cellRatio, v_cellStart, v_chunk, v_frames, v_isLive, v_laidFrames, v_leaves, v_left, v_levels, v_loopPeriod, v_loops, v_loopStart,
  v_position, v_right, v_roundFrom, v_runPlace, v_runPlaceStep, v_runRate, v_runRateRatio, v_runStart, v_source, v_tailChunk, v_tailFrames,
  v_edges, v_tailLeft, v_tailLevels, v_tailRight,
} from './constants' // prettier-ignore
import { EdgeField } from '../../program/layout'
import { beginPitchCell } from './pitch'
import { readThrough } from './reading'
import { stageAt, stageCount } from './stages'

/** Reads so many frames of a voice's clip into the scratch blocks, silence after its end; returns how many lie before that end. */
export function readSource(e: usize, voice: usize, start: f64, count: i32, stereo: bool): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  if (load<i32>(w, v_isLive) != 0) {
    const passed = start - load<f64>(d, v_runStart)
    setPath(d + v_runRate, load<f64>(d, v_runRateRatio), load<f64>(d, v_runPlace), load<f64>(d, v_runPlaceStep))
    return readRun(e, voice, 0, count, stereo, passed)
  }
  const kind = load<i32>(w, v_source)
  if (kind == SourceKind_plain) return copyRun(e, voice, count, stereo)
  if (kind == SourceKind_resampled) {
    setPath(d + v_baseRate, 1, load<f64>(d, v_basePlace), 0)
    return readRun(e, voice, 0, count, stereo, 0)
  }
  return readGliding(e, voice, start, count, stereo)
}

/**
 * How a run is read: its rate, at `rateAt`, is multiplied by `ratio` from frame to frame and left there for the next one; its
 * place among the tables goes straight from `place` by `step` a frame.
 */
let rateAt: usize = 0
let ratio: f64 = 1
let place: f64 = 0
let step: f64 = 0

function setPath(rate: usize, times: f64, from: f64, by: f64): void {
  rateAt = rate
  ratio = times
  place = from
  step = by
}

/** Cell by cell; within one the pitch goes straight. */
function readGliding(e: usize, voice: usize, start: f64, count: i32, stereo: bool): i32 {
  const d = e + (voice << 3)
  let produced = 0
  for (let done = 0; done < count;) {
    const frame = start + <f64>done
    if (frame >= load<f64>(d, v_cellEnd)) beginPitchCell(e, voice, frame)
    const run = <i32>min<f64>(<f64>(count - done), load<f64>(d, v_cellEnd) - frame)
    const passed = frame - load<f64>(d, v_cellStart)
    setPath(d + v_cellRate, load<f64>(d, v_cellRatio), load<f64>(d, v_cellPlace), load<f64>(d, v_cellPlaceStep))
    produced += readRun(e, voice, done, run, stereo, passed)
    done += run
  }
  return produced
}

/** Rate 1 from a whole frame: the samples themselves. */
function copyRun(e: usize, voice: usize, count: i32, stereo: bool): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const position = load<f64>(d, v_position)
  const available = <i32>min<f64>(<f64>count, max<f64>(0, load<f64>(d, v_frames) - position))
  store<f64>(d, position + <f64>count, v_position)
  if (available < count) silence(e, available, count)
  if (needsPositions(e, voice)) for (let i = 0; i < available; i++) store<f64>(e + ((<usize>i) << 3), position + <f64>i, positions)
  const chunk = chunkOf(e, w)
  copy(e + scratchLeft, chunk + ((<usize>(<f64>load<i32>(w, v_left) + position)) << 2), available)
  if (stereo) copy(e + scratchRight, chunk + ((<usize>(<f64>load<i32>(w, v_right) + position)) << 2), available)
  return available
}

/** Whether anything asks where each frame was read: fades of the ends do, which come first. */
function needsPositions(e: usize, voice: usize): bool {
  return stageCount(e, voice) > 0 && stageAt(e, voice, 0) == stageCodes_edges
}

function copy(to: usize, from: usize, count: i32): void {
  const pairs = count & ~1
  for (let i = 0; i < pairs; i += 2) v128.store(to + ((<usize>i) << 3), f64x2.promote_low_f32x4(v128.load64_zero(from + ((<usize>i) << 2))))
  if (pairs < count) store<f64>(to + ((<usize>pairs) << 3), <f64>load<f32>(from + ((<usize>pairs) << 2)))
}

/** Where the samples of a voice's chunk begin. */
export function chunkOf(e: usize, w: usize): usize {
  return <usize>load<f64>(<usize>load<f64>(e, SetUp_chunkAt) + ((<usize>load<i32>(w, v_chunk)) << 3))
}

function silence(e: usize, from: i32, to: i32): void {
  const bytes = (<usize>(to - from)) << 3
  memory.fill(e + scratchLeft + ((<usize>from) << 3), 0, bytes)
  memory.fill(e + scratchRight + ((<usize>from) << 3), 0, bytes)
}

/** Reads a run: one stretch, or two where it comes round to where it leaves its loop; see voice/sources.ts. */
function readRun(e: usize, voice: usize, at: i32, count: i32, stereo: bool, passed: f64): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const produced = readStretch(e, voice, at, count, stereo, passed)
  if (load<i32>(w, v_leaves) == 0 || load<f64>(d, v_position) < load<f64>(d, v_frames) || produced == count) return produced
  store<f64>(d, load<f64>(d, v_position) + (load<f64>(d, v_loopStart) - load<f64>(d, v_frames)), v_position)
  takeTail(e, voice, at + produced)
  return produced + readStretch(e, voice, at + produced, count - produced, stereo, passed + <f64>produced)
}

/** From frame `at` of the stretch on the voice is read from its clip without the loop; see voice/loops.ts. */
function takeTail(e: usize, voice: usize, at: i32): void {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const row = e + v_edges + ((voice * <usize>EdgeField.length) << 3)
  const end = load<f64>(row, EdgeField.tailEndFrame << 3)
  store<f64>(row, end, EdgeField.endFrame << 3)
  store<f64>(row, min<f64>(load<f64>(row, EdgeField.tailOutFrames << 3), end - load<f64>(d, v_position)), EdgeField.outFrames << 3)
  store<f64>(row, <f64>at, EdgeField.tailAt << 3)
  store<i32>(w, load<i32>(w, v_tailChunk), v_chunk)
  store<i32>(w, load<i32>(w, v_tailLeft), v_left)
  store<i32>(w, load<i32>(w, v_tailRight), v_right)
  store<f64>(d, end, v_frames)
  store<f64>(d, load<f64>(d, v_tailFrames), v_laidFrames)
  store<i32>(w, load<i32>(w, v_tailLevels), v_levels)
  store<i32>(w, 0, v_loops)
  store<i32>(w, 0, v_leaves)
  store<f64>(d, 0, v_loopPeriod)
  store<i32>(w, -1, v_tailChunk)
}

/** Reads a stretch that begins `passed` frames into its path. */
function readStretch(e: usize, voice: usize, at: i32, count: i32, stereo: bool, passed: f64): i32 {
  const d = e + (voice << 3)
  const w = e + (voice << 2)
  const frames = load<f64>(d, v_frames)
  const loops = load<i32>(w, v_loops) != 0
  const leaves = load<i32>(w, v_leaves) != 0
  const from = load<f64>(d, v_roundFrom)
  let position = load<f64>(d, v_position)
  let rate = load<f64>(rateAt)
  const times = ratio
  const isCopied = rate == 1 && times == 1 && position == floor<f64>(position)
  let i = 0
  for (; i < count; i++) {
    if (position >= frames) {
      if (!loops || leaves) break
      position = from + ((position - from) % (frames - from))
    }
    store<f64>(e + ((<usize>(at + i)) << 3), position, positions)
    position += rate
    rate *= times
  }
  store<f64>(d, position, v_position)
  store<f64>(rateAt, rate)
  if (i < count) silence(e, at + i, at + count)
  const chunk = chunkOf(e, w)
  if (isCopied) {
    copyAlong(e + positions + ((<usize>at) << 3), e + scratchLeft + ((<usize>at) << 3), chunk + ((<usize>load<i32>(w, v_left)) << 2), i)
    if (stereo)
      copyAlong(e + positions + ((<usize>at) << 3), e + scratchRight + ((<usize>at) << 3), chunk + ((<usize>load<i32>(w, v_right)) << 2), i)
  } else readAlong(e, voice, chunk, at, i, stereo, passed)
  return i
}

/** At rate 1 from a whole frame what goes round, or is moved otherwise, is the samples themselves too. */
function copyAlong(at: usize, to: usize, from: usize, count: i32): void {
  for (let i = 0; i < count; i++) {
    const position = <usize>load<f64>(at + ((<usize>i) << 3))
    store<f64>(to + ((<usize>i) << 3), <f64>load<f32>(from + (position << 2)))
  }
}

/** The frames of a run, those together that are read by the same table, or by the same two. */
function readAlong(e: usize, voice: usize, chunk: usize, at: i32, count: i32, stereo: bool, passed: f64): void {
  const left = e + scratchLeft
  const right = stereo ? e + scratchRight : 0
  const otherLeft = e + gainsLeft
  const otherRight = stereo ? e + gainsRight : 0
  for (let from = 0; from < count;) {
    const here = place + (passed + <f64>from) * step
    const table = tableOf(here)
    const mixes = mixOf(here, table) > 0
    let to = from + 1
    if (step == 0 || isReadAlike(place + (passed + <f64>(count - 1)) * step, table, mixes)) to = count
    else while (isReadAlike(place + (passed + <f64>to) * step, table, mixes)) to++
    readThrough(e, voice, chunk, table, at + from, at + to, left, right)
    if (mixes) {
      readThrough(e, voice, chunk, table + 1, at + from, at + to, otherLeft, otherRight)
      for (let i = from; i < to; i++) {
        const share = mixOf(place + (passed + <f64>i) * step, table)
        const p = (<usize>(at + i)) << 3
        mix(left + p, otherLeft + p, share)
        if (stereo) mix(right + p, otherRight + p, share)
      }
    }
    from = to
  }
}

function isReadAlike(place: f64, table: i32, mixes: bool): bool {
  return tableOf(place) == table && mixOf(place, table) > 0 == mixes
}

function mix(one: usize, other: usize, share: f64): void {
  const value = load<f64>(one)
  store<f64>(one, value + share * (load<f64>(other) - value))
}

/** The table for a place, counted on through the octaves; the first one below the engine's own rate. */
function tableOf(place: f64): i32 {
  return <i32>max<f64>(0, floor<f64>(place))
}

/** How far a place has gone over into the next table, 0..1. */
function mixOf(place: f64, table: i32): f64 {
  return max<f64>(0, (place - <f64>table - MIX_FROM) * (1 / (1 - MIX_FROM)))
}
