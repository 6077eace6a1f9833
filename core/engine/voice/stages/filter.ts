import { envelopeAt } from '../envelope'
import { centsToRatio } from '../../math'
import { filterCodes } from '../../program/codes'
import { GRID_FRAMES, tan } from '../../state'
import type { EngineState } from '../../state'

/** State variable filter by the trapezoidal rule (A. Simper, "Linear Trapezoidal Integrated SVF", 2013). */
export function filter(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const v = engine.voices
  for (let done = 0; done < count;) {
    const frame = start + done
    const cell = Math.floor(frame / GRID_FRAMES) * GRID_FRAMES
    if (v.filterCell[voice] !== cell) beginFilterCell(engine, voice, cell)
    const run = Math.min(count - done, cell + GRID_FRAMES - frame)
    filterRun(engine, voice, engine.scratchLeft, v.leftOne, v.leftTwo, done, run, frame - cell)
    if (stereo) filterRun(engine, voice, engine.scratchRight, v.rightOne, v.rightTwo, done, run, frame - cell)
    done += run
  }
}

function beginFilterCell(engine: EngineState, voice: number, cell: number): void {
  const v = engine.voices
  const first = v.filterCell[voice] < 0
  v.filterCell[voice] = cell
  flushFilter(engine, voice)
  if (v.filterEnv[voice] === 0) {
    if (first) setCoefficients(engine, voice, v.cutoffHz[voice], v.cutoffHz[voice])
    return
  }
  setCoefficients(engine, voice, cutoffAt(engine, voice, cell), cutoffAt(engine, voice, cell + GRID_FRAMES))
}

function cutoffAt(engine: EngineState, voice: number, frame: number): number {
  const v = engine.voices
  const level = envelopeAt(engine.memory.arena, v.filterEnv[voice], Math.max(0, frame - v.startFrame[voice]))
  return v.cutoffHz[voice] * centsToRatio(level * v.filterEnvCents[voice])
}

function setCoefficients(engine: EngineState, voice: number, fromHz: number, toHz: number): void {
  const v = engine.voices
  const k = v.damping[voice]
  const ceiling = engine.sampleRateHz * 0.49
  const perHz = 3.141592653589793 / engine.sampleRateHz
  const g0 = tan(Math.min(Math.max(fromHz, 5), ceiling) * perHz)
  const a1 = 1 / (1 + g0 * (g0 + k))
  v.a1[voice] = a1
  v.a2[voice] = g0 * a1
  v.a3[voice] = g0 * g0 * a1
  v.a1Step[voice] = v.a2Step[voice] = v.a3Step[voice] = 0
  if (toHz === fromHz) return
  const g1 = tan(Math.min(Math.max(toHz, 5), ceiling) * perHz)
  const b1 = 1 / (1 + g1 * (g1 + k))
  v.a1Step[voice] = (b1 - a1) / GRID_FRAMES
  v.a2Step[voice] = (g1 * b1 - g0 * a1) / GRID_FRAMES
  v.a3Step[voice] = (g1 * g1 * b1 - g0 * g0 * a1) / GRID_FRAMES
}

/** What has died away is silence. */
export function flushFilter({ voices: v }: EngineState, voice: number): void {
  flushTiny(v.leftOne, voice)
  flushTiny(v.leftTwo, voice)
  flushTiny(v.rightOne, voice)
  flushTiny(v.rightTwo, voice)
}

/** Numbers this small would decay into denormals, which are slow. */
function flushTiny(state: Float64Array, voice: number): void {
  if (Math.abs(state[voice]) < 1e-15) state[voice] = 0
}

function filterRun(
  engine: EngineState,
  voice: number,
  block: Float64Array,
  ones: Float64Array,
  twos: Float64Array,
  at: number,
  count: number,
  inCell: number,
): void {
  const v = engine.voices
  const type = v.filterType[voice]
  const k = v.damping[voice]
  const a1Step = v.a1Step[voice]
  const a2Step = v.a2Step[voice]
  const a3Step = v.a3Step[voice]
  const a1 = v.a1[voice]
  const a2 = v.a2[voice]
  const a3 = v.a3[voice]
  let one = ones[voice]
  let two = twos[voice]
  for (let i = 0; i < count; i++) {
    const input = block[at + i]
    const frame = inCell + i
    const c2 = a2 + frame * a2Step
    const v3 = input - two
    const band = (a1 + frame * a1Step) * one + c2 * v3
    const low = two + c2 * one + (a3 + frame * a3Step) * v3
    one = 2 * band - one
    two = 2 * low - two
    block[at + i] = type === filterCodes.lowPass ? low : type === filterCodes.bandPass ? k * band : input - k * band - low
  }
  ones[voice] = one
  twos[voice] = two
}

/** The same filter where its cutoff or damping moves: coefficients of their own for every frame, by the voice's run. */
export function filterMoving(engine: EngineState, voice: number, count: number, stereo: boolean): void {
  const { voices: v, scratchLeft, scratchRight, sampleRateHz } = engine
  const ceiling = sampleRateHz * 0.49
  const perHz = 3.141592653589793 / sampleRateHz
  const ratio = v.runCutoffRatio[voice]
  const dampingStep = v.runDampingStep[voice]
  let cutoff = v.runCutoff[voice]
  let damping = v.runDamping[voice]
  let g = -1
  for (let i = 0; i < count; i++) {
    if (g < 0 || ratio !== 1) g = tan(Math.min(Math.max(cutoff, 5), ceiling) * perHz)
    const k = Math.min(2, Math.max(0.05, damping))
    scratchLeft[i] = filterFrame(v.filterType[voice], v.leftOne, v.leftTwo, voice, scratchLeft[i], g, k)
    if (stereo) scratchRight[i] = filterFrame(v.filterType[voice], v.rightOne, v.rightTwo, voice, scratchRight[i], g, k)
    cutoff *= ratio
    damping += dampingStep
  }
  v.runCutoff[voice] = cutoff
  v.runDamping[voice] = damping
}

/** One frame through the filter; `g` is the tangent of half the cutoff in radians a frame, `k` the damping. */
function filterFrame(type: number, ones: Float64Array, twos: Float64Array, voice: number, input: number, g: number, k: number): number {
  const a1 = 1 / (1 + g * (g + k))
  const a2 = g * a1
  const rest = input - twos[voice]
  const band = a1 * ones[voice] + a2 * rest
  const low = twos[voice] + a2 * ones[voice] + g * a2 * rest
  ones[voice] = 2 * band - ones[voice]
  twos[voice] = 2 * low - twos[voice]
  return type === filterCodes.lowPass ? low : type === filterCodes.bandPass ? k * band : input - k * band - low
}
