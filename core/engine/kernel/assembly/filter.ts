import {
  filterCodes_bandPass, filterCodes_lowPass, gainsLeft, gainsRight, GRID_FRAMES, scratchLeft, scratchRight, SetUp_arena, SetUp_sampleRateHz,
  v_a1, v_a1Step, v_a2, v_a2Step, v_a3, v_a3Step, v_cutoffHz, v_damping, v_filterCell, v_filterEnv, v_filterEnvCents, v_filterType,
  v_leftOne, v_leftTwo, v_rightOne, v_rightTwo, v_runCutoff, v_runCutoffRatio, v_runDamping, v_runDampingStep, v_startFrame,
} from './constants' // prettier-ignore
import { envelopeAt, place } from './envelope'
import { centsToRatio, tan } from './math'

/** State variable filter by the trapezoidal rule (A. Simper, "Linear Trapezoidal Integrated SVF", 2013). */
export function filter(e: usize, voice: usize, start: f64, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  for (let done = 0; done < count;) {
    const frame = start + <f64>done - load<f64>(d, v_startFrame)
    const cell = floor<f64>(frame / GRID_FRAMES) * GRID_FRAMES
    if (load<f64>(d, v_filterCell) != cell) beginFilterCell(e, voice, cell)
    const run = <i32>min<f64>(<f64>(count - done), cell + GRID_FRAMES - frame)
    if (stereo) filterBoth(e, voice, done, run, frame - cell)
    else filterRun(e, voice, e + scratchLeft, d + v_leftOne, d + v_leftTwo, done, run, frame - cell)
    done += run
  }
}

function beginFilterCell(e: usize, voice: usize, cell: f64): void {
  const d = e + (voice << 3)
  const first = load<f64>(d, v_filterCell) < 0
  store<f64>(d, cell, v_filterCell)
  flushTiny(d + v_leftOne)
  flushTiny(d + v_leftTwo)
  flushTiny(d + v_rightOne)
  flushTiny(d + v_rightTwo)
  const moves = load<i32>(e + (voice << 2), v_filterEnv) != 0
  if (!moves && !first) return
  const cutoff = load<f64>(d, v_cutoffHz)
  if (moves) setCoefficients(e, voice, cutoffAt(e, voice, cell), cutoffAt(e, voice, cell + GRID_FRAMES))
  else setCoefficients(e, voice, cutoff, cutoff)
}

/** Numbers this small would decay into denormals, which are slow. */
function flushTiny(state: usize): void {
  if (abs<f64>(load<f64>(state)) < 1e-15) store<f64>(state, 0)
}

function cutoffAt(e: usize, voice: usize, frame: f64): f64 {
  const d = e + (voice << 3)
  const envelope = place(<usize>load<f64>(e, SetUp_arena), <f64>load<i32>(e + (voice << 2), v_filterEnv))
  const value = envelopeAt(envelope, frame)
  return centsToRatio(value * load<f64>(d, v_filterEnvCents)) * load<f64>(d, v_cutoffHz)
}

/** The tangent of half a cutoff in radians a frame. */
function tangentOf(e: usize, cutoffHz: f64): f64 {
  const ceiling = load<f64>(e, SetUp_sampleRateHz) * 0.49
  const perHz = 3.141592653589793 / load<f64>(e, SetUp_sampleRateHz)
  return tan(min<f64>(max<f64>(cutoffHz, 5), ceiling) * perHz)
}

function setCoefficients(e: usize, voice: usize, from: f64, to: f64): void {
  const d = e + (voice << 3)
  const k = load<f64>(d, v_damping)
  const g0 = tangentOf(e, from)
  const a1 = 1 / (1 + g0 * (g0 + k))
  store<f64>(d, a1, v_a1)
  store<f64>(d, g0 * a1, v_a2)
  store<f64>(d, g0 * g0 * a1, v_a3)
  if (from == to) {
    store<f64>(d, 0, v_a1Step)
    store<f64>(d, 0, v_a2Step)
    store<f64>(d, 0, v_a3Step)
    return
  }
  const g1 = tangentOf(e, to)
  const b1 = 1 / (1 + g1 * (g1 + k))
  store<f64>(d, (b1 - a1) / GRID_FRAMES, v_a1Step)
  store<f64>(d, (g1 * b1 - g0 * a1) / GRID_FRAMES, v_a2Step)
  store<f64>(d, (g1 * g1 * b1 - g0 * g0 * a1) / GRID_FRAMES, v_a3Step)
}

function output(type: i32, k: f64, input: f64, band: f64, low: f64): f64 {
  return type == filterCodes_lowPass ? low : type == filterCodes_bandPass ? k * band : input - k * band - low
}

/** By three factors, as voice/stages/filter.ts says. */
function filterRun(e: usize, voice: usize, block: usize, ones: usize, twos: usize, at: i32, count: i32, inCell: f64): void {
  const d = e + (voice << 3)
  const type = load<i32>(e + (voice << 2), v_filterType)
  const k = load<f64>(d, v_damping)
  const pStep = 2 * load<f64>(d, v_a1Step)
  const qStep = 2 * load<f64>(d, v_a2Step)
  const rStep = 2 * load<f64>(d, v_a3Step)
  const p = 2 * load<f64>(d, v_a1) - 1
  const q = 2 * load<f64>(d, v_a2)
  const r = 2 * load<f64>(d, v_a3)
  let one = load<f64>(ones)
  let two = load<f64>(twos)
  let x = block + ((<usize>at) << 3)
  for (let i = 0; i < count; i++) {
    const input = load<f64>(x)
    const frame = inCell + <f64>i
    const c = q + frame * qStep
    const rest = input - two
    const nextOne = (p + frame * pStep) * one + c * rest
    const nextTwo = two + c * one + (r + frame * rStep) * rest
    store<f64>(x, output(type, k, input, 0.5 * (nextOne + one), 0.5 * (nextTwo + two)))
    one = nextOne
    two = nextTwo
    x += 8
  }
  store<f64>(ones, one)
  store<f64>(twos, two)
}

/** The same for both channels at once. */
function filterBoth(e: usize, voice: usize, at: i32, count: i32, inCell: f64): void {
  const d = e + (voice << 3)
  const type = load<i32>(e + (voice << 2), v_filterType)
  const k = f64x2.splat(load<f64>(d, v_damping))
  const pStep = 2 * load<f64>(d, v_a1Step)
  const qStep = 2 * load<f64>(d, v_a2Step)
  const rStep = 2 * load<f64>(d, v_a3Step)
  const p = 2 * load<f64>(d, v_a1) - 1
  const q = 2 * load<f64>(d, v_a2)
  const r = 2 * load<f64>(d, v_a3)
  const half = f64x2.splat(0.5)
  let one = f64x2(load<f64>(d, v_leftOne), load<f64>(d, v_rightOne))
  let two = f64x2(load<f64>(d, v_leftTwo), load<f64>(d, v_rightTwo))
  let x = e + scratchLeft + ((<usize>at) << 3)
  let y = e + scratchRight + ((<usize>at) << 3)
  for (let i = 0; i < count; i++) {
    const input = v128.load64_lane(y, v128.load64_zero(x), 1)
    const frame = inCell + <f64>i
    const c = f64x2.splat(q + frame * qStep)
    const rest = f64x2.sub(input, two)
    const nextOne = f64x2.add(f64x2.mul(f64x2.splat(p + frame * pStep), one), f64x2.mul(c, rest))
    const nextTwo = f64x2.add(f64x2.add(two, f64x2.mul(c, one)), f64x2.mul(f64x2.splat(r + frame * rStep), rest))
    const band = f64x2.mul(half, f64x2.add(nextOne, one))
    const low = f64x2.mul(half, f64x2.add(nextTwo, two))
    const out =
      type == filterCodes_lowPass
        ? low
        : type == filterCodes_bandPass
          ? f64x2.mul(k, band)
          : f64x2.sub(f64x2.sub(input, f64x2.mul(k, band)), low)
    v128.store64_lane(x, out, 0)
    v128.store64_lane(y, out, 1)
    one = nextOne
    two = nextTwo
    x += 8
    y += 8
  }
  v128.store64_lane(d + v_leftOne, one, 0)
  v128.store64_lane(d + v_rightOne, one, 1)
  v128.store64_lane(d + v_leftTwo, two, 0)
  v128.store64_lane(d + v_rightTwo, two, 1)
}

/** The same filter where its cutoff or damping moves: coefficients of their own for every frame, by the voice's run. */
export function filterMoving(e: usize, voice: usize, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  const ratio = load<f64>(d, v_runCutoffRatio)
  const step = load<f64>(d, v_runDampingStep)
  let cutoff = load<f64>(d, v_runCutoff)
  let damping = load<f64>(d, v_runDamping)
  let tangent: f64 = 0
  for (let i = 0; i < count; i++) {
    if (i == 0 || ratio != 1) tangent = tangentOf(e, cutoff)
    store<f64>(e + gainsLeft + ((<usize>i) << 3), tangent)
    store<f64>(e + gainsRight + ((<usize>i) << 3), min<f64>(2, max<f64>(0.05, damping)))
    cutoff *= ratio
    damping += step
  }
  store<f64>(d, cutoff, v_runCutoff)
  store<f64>(d, damping, v_runDamping)
  filterFrames(e, voice, e + scratchLeft, d + v_leftOne, d + v_leftTwo, count)
  if (stereo) filterFrames(e, voice, e + scratchRight, d + v_rightOne, d + v_rightTwo, count)
}

/** Each frame by its own tangent and damping, which stand where level and place will stand later. */
function filterFrames(e: usize, voice: usize, block: usize, ones: usize, twos: usize, count: i32): void {
  const type = load<i32>(e + (voice << 2), v_filterType)
  let one = load<f64>(ones)
  let two = load<f64>(twos)
  for (let i = 0; i < count; i++) {
    const p = block + ((<usize>i) << 3)
    const input = load<f64>(p)
    const g = load<f64>(e + gainsLeft + ((<usize>i) << 3))
    const k = load<f64>(e + gainsRight + ((<usize>i) << 3))
    const a1 = 1 / (1 + g * (g + k))
    const a2 = g * a1
    const rest = input - two
    const band = a1 * one + a2 * rest
    const low = two + a2 * one + g * a2 * rest
    one = 2 * band - one
    two = 2 * low - two
    store<f64>(p, output(type, k, input, band, low))
  }
  store<f64>(ones, one)
  store<f64>(twos, two)
}
