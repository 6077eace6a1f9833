import { envelopeIn } from '../envelope'
import { centsToRatioIn, tanIn } from '../../math'
import { filterCodes } from '../../program/codes'
import { GRID_FRAMES } from '../../state'
import type { EngineState } from '../../state'

/** Cells are counted from the strike. State variable filter by the trapezoidal rule (A. Simper, "Linear Trapezoidal Integrated SVF", 2013). */
export function filter(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const v = engine.voices
  for (let done = 0; done < count;) {
    const frame = start + done - v.startFrame[voice]
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
  const moves = v.filterEnv[voice] !== 0
  if (!moves && !first) return
  cutoffs[0] = cutoffs[1] = v.cutoffHz[voice]
  if (moves) {
    cutoffIn(engine, voice, cell, 0)
    cutoffIn(engine, voice, cell + GRID_FRAMES, 1)
  }
  setCoefficients(engine, voice)
}

/** Cutoffs where a cell begins and ends, Hz; then what becomes of them. Numbers in a row cost no memory (see math.ts). */
const cutoffs = new Float64Array(2)

function cutoffIn(engine: EngineState, voice: number, frame: number, at: number): void {
  const v = engine.voices
  cutoffs[at] = frame
  envelopeIn(cutoffs, at, engine.memory.arena, v.filterEnv[voice])
  cutoffs[at] *= v.filterEnvCents[voice]
  centsToRatioIn(cutoffs, at)
  cutoffs[at] *= v.cutoffHz[voice]
}

/** Tangents of half a cutoff in radians a frame, in its place. */
function toTangent(engine: EngineState, at: number): void {
  const ceiling = engine.sampleRateHz * 0.49
  const perHz = 3.141592653589793 / engine.sampleRateHz
  cutoffs[at] = Math.min(Math.max(cutoffs[at], 5), ceiling) * perHz
  tanIn(cutoffs, at)
}

function setCoefficients(engine: EngineState, voice: number): void {
  const v = engine.voices
  const k = v.damping[voice]
  const isStill = cutoffs[0] === cutoffs[1]
  toTangent(engine, 0)
  const g0 = cutoffs[0]
  const a1 = 1 / (1 + g0 * (g0 + k))
  v.a1[voice] = a1
  v.a2[voice] = g0 * a1
  v.a3[voice] = g0 * g0 * a1
  v.a1Step[voice] = v.a2Step[voice] = v.a3Step[voice] = 0
  if (isStill) return
  toTangent(engine, 1)
  const g1 = cutoffs[1]
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

/**
 * The two states go on by three factors, p = 2 a1 - 1, q = 2 a2 and r = 2 a3, so that as little as can be waits for the
 * sample before; band and low are the means of a state and the next one.
 */
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
  const pStep = 2 * v.a1Step[voice]
  const qStep = 2 * v.a2Step[voice]
  const rStep = 2 * v.a3Step[voice]
  const p = 2 * v.a1[voice] - 1
  const q = 2 * v.a2[voice]
  const r = 2 * v.a3[voice]
  let one = ones[voice]
  let two = twos[voice]
  for (let i = 0; i < count; i++) {
    const input = block[at + i]
    const frame = inCell + i
    const c = q + frame * qStep
    const rest = input - two
    const nextOne = (p + frame * pStep) * one + c * rest
    const nextTwo = two + c * one + (r + frame * rStep) * rest
    const band = 0.5 * (nextOne + one)
    const low = 0.5 * (nextTwo + two)
    one = nextOne
    two = nextTwo
    block[at + i] = type === filterCodes.lowPass ? low : type === filterCodes.bandPass ? k * band : input - k * band - low
  }
  ones[voice] = one
  twos[voice] = two
}

/** The same filter where its cutoff or damping moves: coefficients of their own for every frame, by the voice's run. */
export function filterMoving(engine: EngineState, voice: number, count: number, stereo: boolean): void {
  const { voices: v, scratchLeft, scratchRight, gainsLeft: tangents, gainsRight: dampings } = engine
  const ratio = v.runCutoffRatio[voice]
  for (let i = 0; i < count; i++) {
    if (i === 0 || ratio !== 1) {
      cutoffs[0] = v.runCutoff[voice]
      toTangent(engine, 0)
    }
    tangents[i] = cutoffs[0]
    dampings[i] = Math.min(2, Math.max(0.05, v.runDamping[voice]))
    v.runCutoff[voice] *= ratio
    v.runDamping[voice] += v.runDampingStep[voice]
  }
  filterFrames(engine, voice, scratchLeft, v.leftOne, v.leftTwo, count)
  if (stereo) filterFrames(engine, voice, scratchRight, v.rightOne, v.rightTwo, count)
}

/** Each frame by its own tangent and damping, which stand where level and place will stand later. */
function filterFrames(
  engine: EngineState,
  voice: number,
  block: Float64Array,
  ones: Float64Array,
  twos: Float64Array,
  count: number,
): void {
  const { voices: v, gainsLeft: tangents, gainsRight: dampings } = engine
  const type = v.filterType[voice]
  let one = ones[voice]
  let two = twos[voice]
  for (let i = 0; i < count; i++) {
    const input = block[i]
    const g = tangents[i]
    const k = dampings[i]
    const a1 = 1 / (1 + g * (g + k))
    const a2 = g * a1
    const rest = input - two
    const band = a1 * one + a2 * rest
    const low = two + a2 * one + g * a2 * rest
    one = 2 * band - one
    two = 2 * low - two
    block[i] = type === filterCodes.lowPass ? low : type === filterCodes.bandPass ? k * band : input - k * band - low
  }
  ones[voice] = one
  twos[voice] = two
}
