import { sin } from '../math'
import { waveCodes } from '../program/codes'
import { KitHead, OscillatorField } from '../program/layout'
import type { EngineState } from '../state'
import { hash32, Purpose } from '../strike/chance'

const TURN = 6.283185307179586
/** How long a jump of a wave takes, so that it does not click. */
const JUMP_SECONDS = 0.002

/**
 * Where an oscillator of the kit stands at a frame, -1..1, into `at`: a function of the frame alone, or of frames since the
 * strike for one that begins with it. 0 for one that the kit does not have.
 */
export function oscillatorIn(at: Float64Array, engine: EngineState, place: number, frame: number, startFrame: number): void {
  const { memory, kit } = engine
  const { arena } = memory
  at[0] = 0
  if (kit === 0 || place >= arena[kit + KitHead.oscillatorCount]) return
  const row = kit + arena[kit + KitHead.oscillators] + place * OscillatorField.length
  const period = Math.max(2, arena[row + OscillatorField.periodFrames])
  const time = arena[row + OscillatorField.runsAlways] === 1 ? frame : frame - startFrame
  const turns = time / period + arena[row + OscillatorField.phase]
  const cycle = Math.floor(turns)
  const x = turns - cycle
  const jump = Math.min(0.5, (JUMP_SECONDS * engine.sampleRateHz) / period)
  switch (arena[row + OscillatorField.wave]) {
    case waveCodes.sine:
      at[0] = sin(TURN * x)
      break
    case waveCodes.triangle:
      at[0] = x < 0.25 ? 4 * x : x < 0.75 ? 2 - 4 * x : 4 * x - 4
      break
    case waveCodes.falling:
      at[0] = x < jump ? -1 + (2 * x) / jump : 1 - (2 * (x - jump)) / (1 - jump)
      break
    default: {
      // Steps: waits on one value for a whole turn, and goes to the next within a jump.
      const hash = arena[row + OscillatorField.hash] | 0
      const here = hash32(engine.seed, hash, cycle | 0, Purpose.oscillator) / 2147483648 - 1
      const before = hash32(engine.seed, hash, (cycle - 1) | 0, Purpose.oscillator) / 2147483648 - 1
      at[0] = x >= jump ? here : before * (1 - x / jump) + (here * x) / jump
    }
  }
}

/** Frames from one looking at an oscillator to the next: fast ones are looked at for every frame. */
export function oscillatorStride({ memory, kit, sampleRateHz }: EngineState, place: number): number {
  const { arena } = memory
  if (kit === 0 || place >= arena[kit + KitHead.oscillatorCount]) return 16
  const period = arena[kit + arena[kit + KitHead.oscillators] + place * OscillatorField.length + OscillatorField.periodFrames]
  return period < sampleRateHz / 30 ? 1 : 4
}
