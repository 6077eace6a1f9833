import {
  CHUNK_FRAMES, gainsLeft, gainsRight, m_balance, m_fed, m_isKnown, m_isMoving, m_left, m_places, m_right, MOST_SENDS, ParamCode_pan, PARAMS,
  RayField_sendCount, RayField_sends, scratchLeft, scratchRight, SendField_length, SendField_to, SetUp_arena, SetUp_directory, SetUp_meters,
  SetUp_mixStep, v_bus, v_gainLeft, v_gainRight, v_isLive, v_meter, v_offset, v_offsetStep, v_pan, v_program, v_ray, v_runGain, v_runRatio,
  v_runStart, v_sendGain, v_sendTarget, v_sliceSend, v_sliceSendStep,
} from './constants' // prettier-ignore

/** Level and place for every frame of a piece; a voice that nothing moves has one of each. */
export function settleGains(e: usize, voice: usize, start: f64, count: i32): void {
  if (load<i32>(e + (voice << 2), v_isLive) == 0) return
  const d = e + (voice << 3)
  const row = e + ((voice * PARAMS + ParamCode_pan) << 3)
  const pan = load<f64>(d, v_pan) + load<f64>(row, v_offset)
  const step = load<f64>(row, v_offsetStep)
  const ratio = load<f64>(d, v_runRatio)
  let gain = load<f64>(d, v_runGain)
  for (let i = 0; i < count; i++) {
    const place = pan + step * (start + <f64>i - load<f64>(d, v_runStart))
    const held = within(place)
    store<f64>(e + gainsLeft + ((<usize>i) << 3), gain * sqrt<f64>(1 - held))
    store<f64>(e + gainsRight + ((<usize>i) << 3), gain * sqrt<f64>(1 + held))
    gain *= ratio
  }
  store<f64>(d, gain, v_runGain)
}

function within(place: f64): f64 {
  return place < -1 ? -1 : place > 1 ? 1 : place
}

/** Adds a piece to the bus of its voice, and notes its highest sample for the meter. */
export function addToBus(e: usize, voice: usize, at: i32, count: i32, stereo: bool): void {
  const w = e + (voice << 2)
  const bus = <usize>load<i32>(w, v_bus)
  store<i32>(e + (bus << 2), 1, m_fed)
  const block = ((bus * CHUNK_FRAMES) << 3) + ((<usize>at) << 3)
  const right = stereo ? e + scratchRight : e + scratchLeft
  let peak: f64
  if (load<i32>(w, v_isLive) == 0) {
    const d = e + (voice << 3)
    if (!stereo)
      peak = addOne(e + scratchLeft, e + m_left + block, e + m_right + block, load<f64>(d, v_gainLeft), load<f64>(d, v_gainRight), count)
    else {
      peak = addStill(e + scratchLeft, e + m_left + block, load<f64>(d, v_gainLeft), count)
      peak = max<f64>(peak, addStill(right, e + m_right + block, load<f64>(d, v_gainRight), count))
    }
  } else {
    peak = addMoving(e + scratchLeft, e + m_left + block, e + gainsLeft, count)
    peak = max<f64>(peak, addMoving(right, e + m_right + block, e + gainsRight, count))
  }
  noteForMeter(e, w, peak)
}

/** Raises the meter of a voice to its highest sample. */
export function noteForMeter(e: usize, w: usize, peak: f64): void {
  const meter = <usize>load<f64>(e, SetUp_meters) + ((<usize>load<i32>(w, v_meter)) << 3)
  if (peak > load<f64>(meter)) store<f64>(meter, peak)
}

/**
 * One channel to both sides at once; its peak is that of the louder side. Both sides are read before either is written: they lie
 * a multiple of 4096 bytes apart, and a processor that compares only so many bits of an address waits for the one to read the other.
 */
function addOne(from: usize, left: usize, right: usize, gainLeft: f64, gainRight: f64, count: i32): f64 {
  const pairs = count & ~1
  const gainsLeft = f64x2.splat(gainLeft)
  const gainsRight = f64x2.splat(gainRight)
  let peaks = f64x2.splat(0)
  for (let i = 0; i < pairs; i += 2) {
    const p = (<usize>i) << 3
    const value = v128.load(from + p)
    const one = f64x2.add(v128.load(left + p), f64x2.mul(value, gainsLeft))
    const other = f64x2.add(v128.load(right + p), f64x2.mul(value, gainsRight))
    v128.store(left + p, one)
    v128.store(right + p, other)
    peaks = f64x2.max(peaks, f64x2.abs(value))
  }
  let peak = max<f64>(f64x2.extract_lane(peaks, 0), f64x2.extract_lane(peaks, 1))
  if (pairs != count) {
    const p = (<usize>pairs) << 3
    const value = load<f64>(from + p)
    store<f64>(left + p, load<f64>(left + p) + value * gainLeft)
    store<f64>(right + p, load<f64>(right + p) + value * gainRight)
    peak = max<f64>(peak, abs<f64>(value))
  }
  return peak * max<f64>(abs<f64>(gainLeft), abs<f64>(gainRight))
}

function addStill(from: usize, to: usize, gain: f64, count: i32): f64 {
  const pairs = count & ~1
  const gains = f64x2.splat(gain)
  let peaks = f64x2.splat(0)
  for (let i = 0; i < pairs; i += 2) {
    const p = (<usize>i) << 3
    const value = v128.mul<f64>(v128.load(from + p), gains)
    v128.store(to + p, v128.add<f64>(v128.load(to + p), value))
    peaks = v128.max<f64>(peaks, v128.abs<f64>(value))
  }
  return addLast(from, to, gain, pairs, count, peaks)
}

function addMoving(from: usize, to: usize, gains: usize, count: i32): f64 {
  const pairs = count & ~1
  let peaks = f64x2.splat(0)
  for (let i = 0; i < pairs; i += 2) {
    const p = (<usize>i) << 3
    const value = v128.mul<f64>(v128.load(from + p), v128.load(gains + p))
    v128.store(to + p, v128.add<f64>(v128.load(to + p), value))
    peaks = v128.max<f64>(peaks, v128.abs<f64>(value))
  }
  return addLast(from, to, load<f64>(gains + ((<usize>pairs) << 3)), pairs, count, peaks)
}

function addLast(from: usize, to: usize, gain: f64, pairs: i32, count: i32, peaks: v128): f64 {
  const peak = max<f64>(v128.extract_lane<f64>(peaks, 0), v128.extract_lane<f64>(peaks, 1))
  if (pairs == count) return peak
  const p = (<usize>pairs) << 3
  const value = load<f64>(from + p) * gain
  store<f64>(to + p, load<f64>(to + p) + value)
  return max<f64>(peak, abs<f64>(value))
}

/** To how many other buses a voice is sent. */
export function sendsOf(e: usize, voice: usize): i32 {
  const ray = <usize>load<f64>(e, SetUp_arena) + ((<usize>load<i32>(e + (voice << 2), v_ray)) << 3)
  return <i32>load<f64>(ray, RayField_sendCount << 3)
}

/** What of a ray goes to other buses: at its own place, moved by theirs. */
export function addToSends(e: usize, voice: usize, at: i32, count: i32, stereo: bool): void {
  const sends = sendsOf(e, voice)
  if (sends <= 0) return
  const arena = <usize>load<f64>(e, SetUp_arena)
  const w = e + (voice << 2)
  const ray = arena + ((<usize>load<i32>(w, v_ray)) << 3)
  const directory = <usize>load<f64>(e, SetUp_directory)
  const program = load<i32>(directory + ((<usize>load<i32>(w, v_program)) << 2))
  const rows = arena + ((<usize>(<f64>program + load<f64>(ray, RayField_sends << 3))) << 3)
  for (let send = 0; send < sends; send++)
    addToSend(e, voice, <usize>send, <usize>load<f64>(rows + ((<usize>send * SendField_length) << 3), SendField_to << 3), at, count, stereo)
}

function addToSend(e: usize, voice: usize, send: usize, to: usize, at: i32, count: i32, stereo: bool): void {
  if (load<i32>(e + (to << 2), m_isKnown) == 0) return
  const d = e + (voice << 3)
  const row = e + ((voice * MOST_SENDS + send) << 3)
  const target = load<f64>(row, v_sendTarget)
  const step = load<f64>(e, SetUp_mixStep)
  const moves = load<i32>(e + (voice << 2), v_isLive) != 0
  const isMoving = load<i32>(e + (to << 2), m_isMoving) != 0
  const balance = load<f64>(e + (to << 3), m_balance)
  const block = (to * CHUNK_FRAMES) << 3
  const right = stereo ? e + scratchRight : e + scratchLeft
  let gain = load<f64>(row, v_sendGain)
  let ofSlice = load<f64>(row, v_sliceSend)
  for (let i = 0; i < count; i++) {
    if (gain != target) gain = nearer(gain, target, step)
    const p = (<usize>i) << 3
    const q = block + ((<usize>(at + i)) << 3)
    const place = within(isMoving ? load<f64>(e + m_places + q) : balance)
    const gainLeft = moves ? load<f64>(e + gainsLeft + p) : load<f64>(d, v_gainLeft)
    const gainRight = moves ? load<f64>(e + gainsRight + p) : load<f64>(d, v_gainRight)
    const amount = gain * ofSlice
    store<f64>(e + m_left + q, load<f64>(e + m_left + q) + load<f64>(e + scratchLeft + p) * gainLeft * amount * sqrt<f64>(1 - place))
    store<f64>(e + m_right + q, load<f64>(e + m_right + q) + load<f64>(right + p) * gainRight * amount * sqrt<f64>(1 + place))
    ofSlice += load<f64>(row, v_sliceSendStep)
  }
  store<f64>(row, gain, v_sendGain)
  store<f64>(row, ofSlice, v_sliceSend)
  store<i32>(e + (to << 2), 1, m_fed)
}

function nearer(value: f64, target: f64, step: f64): f64 {
  const next = value + (target - value) * step
  return abs<f64>(target - next) < 1e-7 ? target : next
}
