import { stageCodes } from '../../program/codes'
import { FilterField, FILTERS, FilterSection, RayField } from '../../program/layout'
import { LONG_CELL_FRAMES, NEVER } from '../../time'
import type { EngineState } from '../../state'
import { useMemory } from '../both/cells'
import { DRIVE_FRAMES } from '../both/drive'
import { envelopeValue } from '../both/envelope-time'
import { settleCell } from '../both/filter-cells'
import { movesOf } from './moves'

/** One of a voice's filters over a stretch, cell by cell; see both/filter-cells.ts. */
export function filter(engine: EngineState, voice: number, which: number, start: number, count: number, stereo: boolean): void {
  const { voices: v, scratchLeft, scratchRight } = engine
  const row = (voice * FILTERS + which) * FilterField.length
  const isLive = v.isLive[voice] !== 0
  for (let done = 0; done < count;) {
    const time = start + done - v.startFrame[voice]
    const from = isLive ? v.runStart[voice] - v.startFrame[voice] : Math.floor(time / LONG_CELL_FRAMES) * LONG_CELL_FRAMES
    const isWithin = time < v.filters[row + FilterField.cellEnd] && time >= v.filters[row + FilterField.cellStart]
    if (!isWithin || (isLive && v.filters[row + FilterField.spanStart] !== from))
      settle(engine, voice, which, time, from, isLive ? v.runEnd[voice] - v.startFrame[voice] : from + LONG_CELL_FRAMES)
    const run = Math.min(count - done, v.filters[row + FilterField.cellEnd] - time)
    const passed = time - v.filters[row + FilterField.cellStart]
    for (let i = 0; i < v.filters[row + FilterField.sections]; i++) {
      const section = row + FilterField.section0 + i * FilterSection.length
      runSection(v.filters, section, 0, scratchLeft, done, run, passed)
      if (stereo) runSection(v.filters, section, FilterSection.rightOne - FilterSection.one, scratchRight, done, run, passed)
    }
    done += run
  }
}

/** Where the envelope of one of a voice's filters stands for what it is fed with at an absolute frame; 0 where it has none. */
export function filterEnvelopeAt(engine: EngineState, voice: number, which: number, frame: number): number {
  const { voices: v, memory } = engine
  const row = (voice * FILTERS + which) * FilterField.length
  const envelope = v.filters[row + FilterField.envelope]
  if (envelope === 0) return 0
  const ahead = aheadOf(engine, voice, FILTER_STAGES[which])
  useMemory(memory.everything)
  return envelopeValue(envelope, (frame + ahead - v.startFrame[voice]) * v.otherScale[voice], v.holds[voice], NEVER, 0)
}

const FILTER_STAGES = [stageCodes.filter1, stageCodes.filter2, stageCodes.lowCut]

/** How many frames before it is heard a stage of a voice has what it is fed with. */
function aheadOf({ voices: v, memory }: EngineState, voice: number, stage: number): number {
  const { arena } = memory
  const ray = v.ray[voice]
  const stages = memory.directory[v.program[voice]] + arena[ray + RayField.stages]
  let ahead = v.ahead[voice]
  for (let i = 0; i < arena[ray + RayField.stageCount] && arena[stages + i] !== stage; i++) {
    if (arena[stages + i] === stageCodes.wait) ahead -= arena[ray + RayField.waitFrames]
    else if (arena[stages + i] === stageCodes.drive || arena[stages + i] === stageCodes.driveAfter) ahead -= DRIVE_FRAMES
  }
  return ahead
}

function settle(engine: EngineState, voice: number, which: number, time: number, from: number, to: number): void {
  const { voices: v, memory, sampleRateHz } = engine
  const filter = v.filters.byteOffset / 8 + (voice * FILTERS + which) * FilterField.length
  const isLive = v.isLive[voice] !== 0
  const canMove = isLive || v.filters[(voice * FILTERS + which) * FilterField.length + FilterField.envelope] !== 0
  const letGo = v.releaseFrame[voice] === NEVER ? NEVER : v.releaseFrame[voice] - v.startFrame[voice]
  useMemory(memory.everything)
  settleCell(filter, movesOf(engine, voice), canMove ? 1 : 0, time, from, to, letGo, sampleRateHz)
}

/**
 * The two states go on by three factors, p = 2 a1 - 1, q = 2 a2 and r = 2 a3, so that as little as can be waits for the
 * sample before; band and low are the means of a state and the next one.
 */
function runSection(f: Float64Array, section: number, side: number, block: Float64Array, at: number, count: number, passed: number): void {
  const pStep = 2 * f[section + FilterSection.a1Step]
  const qStep = 2 * f[section + FilterSection.a2Step]
  const rStep = 2 * f[section + FilterSection.a3Step]
  const p = 2 * f[section + FilterSection.a1] - 1
  const q = 2 * f[section + FilterSection.a2]
  const r = 2 * f[section + FilterSection.a3]
  let one = f[section + side + FilterSection.one]
  let two = f[section + side + FilterSection.two]
  for (let i = 0; i < count; i++) {
    const input = block[at + i]
    const frame = passed + i
    const c = q + frame * qStep
    const rest = input - two
    const nextOne = (p + frame * pStep) * one + c * rest
    const nextTwo = two + c * one + (r + frame * rStep) * rest
    const band = 0.5 * (nextOne + one)
    const low = 0.5 * (nextTwo + two)
    one = nextOne
    two = nextTwo
    const mix0 = f[section + FilterSection.mix0] + frame * f[section + FilterSection.mix0Step]
    const mix1 = f[section + FilterSection.mix1] + frame * f[section + FilterSection.mix1Step]
    const mix2 = f[section + FilterSection.mix2] + frame * f[section + FilterSection.mix2Step]
    block[at + i] = mix0 * input + mix1 * band + mix2 * low
  }
  f[section + side + FilterSection.one] = one
  f[section + side + FilterSection.two] = two
}
