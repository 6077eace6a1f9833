import {
  EnvelopeField_count, EnvelopeField_length, EnvelopeField_sustain, NEVER, PointField_frame, PointField_k, PointField_length, PointField_value,
  scratchLeft, scratchRight, SetUp_arena, v_ampEnv, v_fadeFrames, v_fadeStart, v_holds, v_releaseFrame, v_releaseLevel, v_startFrame, v_timeScale,
} from './constants' // prettier-ignore
import { bent, envelopeAt, place } from './envelope'

const POINT: usize = PointField_length << 3

/** Level of a voice's envelope at an absolute frame; waits at the sustain point until it is let go. */
function levelAt(e: usize, voice: usize, envelope: usize, frame: f64): f64 {
  const d = e + (voice << 3)
  const scale = load<f64>(d, v_timeScale)
  const time = (frame - load<f64>(d, v_startFrame)) * scale
  const sustain = load<f64>(envelope, EnvelopeField_sustain << 3)
  if (!(sustain >= 0) || load<i32>(e + (voice << 2), v_holds) == 0) return envelopeAt(envelope, time)
  const point = envelope + (EnvelopeField_length << 3) + <usize>sustain * POINT
  const held = load<f64>(point, PointField_frame << 3)
  const release = load<f64>(d, v_releaseFrame)
  if (release == NEVER) return envelopeAt(envelope, min<f64>(time, held))
  const after = (frame - release) * scale + held
  const next = load<f64>(point, (PointField_length + PointField_frame) << 3)
  if (!(after < next)) return envelopeAt(envelope, after)
  const to = load<f64>(point, (PointField_length + PointField_value) << 3)
  const k = load<f64>(point, (PointField_length + PointField_k) << 3)
  return bent(load<f64>(d, v_releaseLevel), to, (after - held) / (next - held), k)
}

/** The level envelope over a stretch; what is held is looked at frame by frame. */
export function applyLevel(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const at = load<i32>(e + (voice << 2), v_ampEnv)
  if (at == 0) return
  const envelope = place(<usize>load<f64>(e, SetUp_arena), <f64>at)
  const segment = load<i32>(e + (voice << 2), v_holds) != 0 ? 0 : plainSegment(e, voice, envelope, start, count)
  if (segment != 0) {
    applySegment(e, voice, segment, start, count, stereo)
    return
  }
  for (let i = 0; i < count; i++) {
    const level = levelAt(e, voice, envelope, start + <f64>i)
    scale(e + scratchLeft + ((<usize>i) << 3), level)
    if (stereo) scale(e + scratchRight + ((<usize>i) << 3), level)
  }
}

function scale(p: usize, by: f64): void {
  store<f64>(p, load<f64>(p) * by)
}

/** Where the end point of the segment lies that holds all of these frames, or 0 where they straddle a point. */
function plainSegment(e: usize, voice: usize, envelope: usize, start: f64, count: i32): usize {
  const d = e + (voice << 3)
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

function applySegment(e: usize, voice: usize, to: usize, start: f64, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  const begin = load<f64>(to - POINT, PointField_frame << 3)
  const perFrame = 1 / (load<f64>(to, PointField_frame << 3) - begin)
  const low = load<f64>(to - POINT, PointField_value << 3)
  const rise = load<f64>(to, PointField_value << 3) - low
  const k = load<f64>(to, PointField_k << 3)
  const timeScale = load<f64>(d, v_timeScale)
  const origin = start - load<f64>(d, v_startFrame)
  const left = e + scratchLeft
  const right = e + scratchRight
  const pairs = count & ~1
  let passed = f64x2(origin, origin + 1)
  for (let i = 0; i < pairs; i += 2) {
    const u = v128.mul<f64>(v128.sub<f64>(v128.mul<f64>(passed, f64x2.splat(timeScale)), f64x2.splat(begin)), f64x2.splat(perFrame))
    const share = k == 1 ? u : v128.div<f64>(u, v128.add<f64>(u, v128.mul<f64>(f64x2.splat(k), v128.sub<f64>(f64x2.splat(1), u))))
    const level = v128.add<f64>(f64x2.splat(low), v128.mul<f64>(f64x2.splat(rise), share))
    const p = (<usize>i) << 3
    v128.store(left + p, v128.mul<f64>(v128.load(left + p), level))
    if (stereo) v128.store(right + p, v128.mul<f64>(v128.load(right + p), level))
    passed = v128.add<f64>(passed, f64x2.splat(2))
  }
  if (pairs == count) return
  const u = ((origin + <f64>pairs) * timeScale - begin) * perFrame
  const level = k == 1 ? low + rise * u : low + rise * (u / (u + k * (1 - u)))
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
