import {
  EnvelopeField_count, EnvelopeField_length, NEVER, ParamCode_levelEnvelope, PARAMS, PointField_frame, PointField_k, PointField_length, PointField_value,
  scratchLeft, scratchRight, SetUp_arena, v_ampEnv, v_fadeFrames, v_fadeStart, v_holds, v_isLive, v_levelShare, v_offset, v_offsetStep, v_releaseFrame, v_releaseLevel, v_runStart, v_startFrame, v_timeScale,
} from './constants' // prettier-ignore
import { envelopeValue } from '../../voice/both/envelope-time'
import { place } from './envelope'

const POINT: usize = PointField_length << 3

/** Level of a voice's envelope at an absolute frame; while it is held it waits, or goes round, until it is let go. */
function levelAt(e: usize, voice: usize, envelope: usize, frame: f64): f64 {
  const d = e + (voice << 3)
  const scale = load<f64>(d, v_timeScale)
  const origin = load<f64>(d, v_startFrame)
  const release = load<f64>(d, v_releaseFrame)
  const letGo = release == NEVER ? NEVER : (release - origin) * scale
  const holds = load<i32>(e + (voice << 2), v_holds)
  return envelopeValue(<i32>(envelope >> 3), (frame - origin) * scale, holds, letGo, load<f64>(d, v_releaseLevel))
}

/** The level envelope over a stretch; what is held is looked at frame by frame. */
export function applyLevel(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const at = load<i32>(e + (voice << 2), v_ampEnv)
  if (at == 0) return
  const segment = segmentOver(e, voice, start, count)
  if (segment != 0) {
    applySegment(e, voice, segment, start, count, stereo)
    return
  }
  const envelope = place(<usize>load<f64>(e, SetUp_arena), <f64>at)
  for (let i = 0; i < count; i++) {
    const frame = start + <f64>i
    const share = shareAt(e, voice, frame)
    const full = levelAt(e, voice, envelope, frame)
    const level = share == 1 ? full : 1 + share * (full - 1)
    scale(e + scratchLeft + ((<usize>i) << 3), level)
    if (stereo) scale(e + scratchRight + ((<usize>i) << 3), level)
  }
}

/** By what share the envelope counts at a frame, 0..1, where a response may move it. */
function shareAt(e: usize, voice: usize, frame: f64): f64 {
  const d = e + (voice << 3)
  if (load<i32>(e + (voice << 2), v_isLive) == 0) return load<f64>(d, v_levelShare)
  const at = e + ((voice * PARAMS + ParamCode_levelEnvelope) << 3)
  const moved = load<f64>(at, v_offset) + load<f64>(at, v_offsetStep) * (frame - load<f64>(d, v_runStart))
  return min<f64>(1, max<f64>(0, load<f64>(d, v_levelShare) + moved))
}

/** Whether the envelope does not count whole, or may not. */
function shareCounts(e: usize, voice: usize): bool {
  if (load<f64>(e + (voice << 3), v_levelShare) != 1) return true
  const at = e + ((voice * PARAMS + ParamCode_levelEnvelope) << 3)
  return load<i32>(e + (voice << 2), v_isLive) != 0 && (load<f64>(at, v_offset) != 0 || load<f64>(at, v_offsetStep) != 0)
}

function scale(p: usize, by: f64): void {
  store<f64>(p, load<f64>(p) * by)
}

/** Where the end point of the segment lies that holds all of these frames; 0 where they straddle a point, are held, or the envelope does not count whole. */
export function segmentOver(e: usize, voice: usize, start: f64, count: i32): usize {
  if (load<i32>(e + (voice << 2), v_holds) != 0 || shareCounts(e, voice)) return 0
  const d = e + (voice << 3)
  const envelope = place(<usize>load<f64>(e, SetUp_arena), <f64>load<i32>(e + (voice << 2), v_ampEnv))
  const points = <i32>load<f64>(envelope, EnvelopeField_count << 3)
  const first = (start - load<f64>(d, v_startFrame)) * load<f64>(d, v_timeScale)
  const last = (start + <f64>(count - 1) - load<f64>(d, v_startFrame)) * load<f64>(d, v_timeScale)
  let to = envelope + (EnvelopeField_length << 3)
  for (let index = 1; index < points; index++) {
    to += POINT
    const frame = load<f64>(to, PointField_frame << 3)
    if (first < frame) return first > load<f64>(to - POINT, PointField_frame << 3) && last < frame ? to : 0
  }
  return 0
}

/** How the level goes over a stretch, set by `alongSegment` or `alongFull`; whoever goes along takes these numbers first. */
export let timeScale: f64 = 1
export let segmentFrom: f64 = 0
export let perFrame: f64 = 0
export let low: f64 = 1
export let rise: f64 = 0
export let bend: f64 = 1

/** From here on the level goes as a voice's envelope says in the segment that ends at point `to`. */
export function alongSegment(d: usize, to: usize): void {
  timeScale = load<f64>(d, v_timeScale)
  segmentFrom = load<f64>(to - POINT, PointField_frame << 3)
  perFrame = 1 / (load<f64>(to, PointField_frame << 3) - segmentFrom)
  low = load<f64>(to - POINT, PointField_value << 3)
  rise = load<f64>(to, PointField_value << 3) - low
  bend = load<f64>(to, PointField_k << 3)
}

/** From here on the level is full. */
export function alongFull(): void {
  timeScale = 1
  segmentFrom = 0
  perFrame = 0
  low = 1
  rise = 0
  bend = 1
}

/** The levels of two frames, each by how many frames have passed since the strike. */
export function levelsAt(passed: v128, times: f64, from: f64, share: f64, base: f64, height: f64, k: f64): v128 {
  const u = f64x2.mul(f64x2.sub(f64x2.mul(passed, f64x2.splat(times)), f64x2.splat(from)), f64x2.splat(share))
  const way = k == 1 ? u : f64x2.div(u, f64x2.add(u, f64x2.mul(f64x2.splat(k), f64x2.sub(f64x2.splat(1), u))))
  return f64x2.add(f64x2.splat(base), f64x2.mul(f64x2.splat(height), way))
}

function applySegment(e: usize, voice: usize, to: usize, start: f64, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  alongSegment(d, to)
  const times = timeScale
  const begin = segmentFrom
  const share = perFrame
  const base = low
  const height = rise
  const k = bend
  const origin = start - load<f64>(d, v_startFrame)
  const left = e + scratchLeft
  const right = e + scratchRight
  const pairs = count & ~1
  let passed = f64x2(origin, origin + 1)
  for (let i = 0; i < pairs; i += 2) {
    const level = levelsAt(passed, times, begin, share, base, height, k)
    const p = (<usize>i) << 3
    v128.store(left + p, v128.mul<f64>(v128.load(left + p), level))
    if (stereo) v128.store(right + p, v128.mul<f64>(v128.load(right + p), level))
    passed = v128.add<f64>(passed, f64x2.splat(2))
  }
  if (pairs == count) return
  const level = f64x2.extract_lane(levelsAt(f64x2.splat(origin + <f64>pairs), times, begin, share, base, height, k), 0)
  scale(left + ((<usize>pairs) << 3), level)
  if (stereo) scale(right + ((<usize>pairs) << 3), level)
}

/** The last fade of a voice, straight down from where it began. */
export function applyFade(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  const fadeStart = load<f64>(d, v_fadeStart)
  const fadeFrames = load<f64>(d, v_fadeFrames)
  for (let i = 0; i < count; i++) {
    const passed = start + <f64>i - fadeStart
    if (passed <= 0) continue
    const level = 1 - passed / fadeFrames
    scale(e + scratchLeft + ((<usize>i) << 3), level)
    if (stereo) scale(e + scratchRight + ((<usize>i) << 3), level)
  }
}
