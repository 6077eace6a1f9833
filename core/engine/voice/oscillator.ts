import { sin } from '../math'
import { waveCodes } from '../program/codes'
import { KitHead, OscillatorField } from '../program/layout'
import type { EngineState } from '../state'
import { hash32, Purpose } from '../strike/chance'

const TURN = 6.283185307179586
/** How long a jump of a wave takes, so that it does not click. */
const JUMP_SECONDS = 0.002

/**
 * Where an oscillator of the kit stands at a frame, -1..1: a function of the frame alone, or of frames since the strike for
 * one that begins with it. 0 for one that the kit does not have.
 */
export function oscillatorAt(engine: EngineState, place: number, frame: number, startFrame: number): number {
  const { memory, kit } = engine
  const { arena } = memory
  if (kit === 0 || place >= arena[kit + KitHead.oscillatorCount]) return 0
  const row = kit + arena[kit + KitHead.oscillators] + place * OscillatorField.length
  const period = Math.max(2, arena[row + OscillatorField.periodFrames])
  const time = arena[row + OscillatorField.runsAlways] === 1 ? frame : frame - startFrame
  const turns = time / period + arena[row + OscillatorField.phase]
  const cycle = Math.floor(turns)
  const jump = Math.min(0.5, (JUMP_SECONDS * engine.sampleRateHz) / period)
  return waveAt(engine, arena[row + OscillatorField.wave], turns - cycle, cycle, arena[row + OscillatorField.hash], jump)
}

function waveAt({ seed }: EngineState, wave: number, x: number, cycle: number, hash: number, jump: number): number {
  switch (wave) {
    case waveCodes.sine:
      return sin(TURN * x)
    case waveCodes.triangle:
      return x < 0.25 ? 4 * x : x < 0.75 ? 2 - 4 * x : 4 * x - 4
    case waveCodes.falling:
      return x < jump ? -1 + (2 * x) / jump : 1 - (2 * (x - jump)) / (1 - jump)
    default: {
      const here = stepOf(seed, hash, cycle)
      return x >= jump ? here : stepOf(seed, hash, cycle - 1) * (1 - x / jump) + (here * x) / jump
    }
  }
}

/** One of the values that a wave of steps waits on, -1..1. */
function stepOf(seed: number, hash: number, cycle: number): number {
  return hash32(seed, hash | 0, cycle | 0, Purpose.oscillator) / 2147483648 - 1
}

/** Frames from one looking at an oscillator to the next: fast ones are looked at for every frame. */
export function oscillatorStride({ memory, kit, sampleRateHz }: EngineState, place: number): number {
  const { arena } = memory
  if (kit === 0 || place >= arena[kit + KitHead.oscillatorCount]) return 16
  const period = arena[kit + arena[kit + KitHead.oscillators] + place * OscillatorField.length + OscillatorField.periodFrames]
  return period < sampleRateHz / 30 ? 1 : 4
}
