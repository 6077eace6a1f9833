import { envelopeAt } from './envelope'
import { centsToRatio } from '../math'
import { GRID_FRAMES, tan } from '../state'
import type { EngineState } from '../state'

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
  flushTiny(v.leftOne, voice)
  flushTiny(v.leftTwo, voice)
  flushTiny(v.rightOne, voice)
  flushTiny(v.rightTwo, voice)
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
    block[at + i] = type === 1 ? low : type === 2 ? k * band : input - k * band - low
  }
  ones[voice] = one
  twos[voice] = two
}
