import {
  FILTERS, LONG_CELL_FRAMES, NEVER, scratchLeft, scratchRight, SetUp_sampleRateHz, v_filters, v_releaseFrame, v_runEnd, v_runStart, v_startFrame,
} from './constants' // prettier-ignore
import { FilterField, FilterSection } from '../../program/layout'
import { settleCell } from '../../voice/both/filter-cells'
import { isLive, movesOf } from './moves'

/** Bytes behind the start of a filter or section at which a double of its lies. */
function field(row: usize, place: i32): usize {
  return row + ((<usize>place) << 3)
}

/** One of a voice's filters over a stretch, cell by cell; see voice/both/filter-cells.ts. */
export function filter(e: usize, voice: usize, which: i32, start: f64, count: i32, stereo: bool): void {
  const d = e + (voice << 3)
  const row = e + v_filters + (((voice * FILTERS + <usize>which) * FilterField.length) << 3)
  const moves = isLive(e, voice)
  const sections = <i32>load<f64>(field(row, FilterField.sections))
  for (let done = 0; done < count;) {
    const time = start + <f64>done - load<f64>(d, v_startFrame)
    const from = moves ? load<f64>(d, v_runStart) - load<f64>(d, v_startFrame) : floor<f64>(time / LONG_CELL_FRAMES) * LONG_CELL_FRAMES
    const isWithin = time < load<f64>(field(row, FilterField.cellEnd)) && time >= load<f64>(field(row, FilterField.cellStart))
    if (!isWithin || (moves && load<f64>(field(row, FilterField.spanStart)) != from))
      settle(e, voice, row, time, from, moves ? load<f64>(d, v_runEnd) - load<f64>(d, v_startFrame) : from + LONG_CELL_FRAMES)
    const run = <i32>min<f64>(<f64>(count - done), load<f64>(field(row, FilterField.cellEnd)) - time)
    const passed = time - load<f64>(field(row, FilterField.cellStart))
    for (let i = 0; i < sections; i++) {
      const section = field(row, FilterField.section0 + i * FilterSection.length)
      if (stereo) runBoth(e, section, done, run, passed)
      else runSection(section, e + scratchLeft, done, run, passed)
    }
    done += run
  }
}

function settle(e: usize, voice: usize, row: usize, time: f64, from: f64, to: f64): void {
  const d = e + (voice << 3)
  const canMove = isLive(e, voice) || load<f64>(field(row, FilterField.envelope)) != 0
  const release = load<f64>(d, v_releaseFrame)
  const letGo = release == NEVER ? NEVER : release - load<f64>(d, v_startFrame)
  const rate = load<f64>(e, SetUp_sampleRateHz)
  settleCell(<i32>(row >> 3), movesOf(e, voice), canMove ? 1 : 0, time, from, to, letGo, rate)
}

/** By three factors, as voice/stages/filter.ts says. */
function runSection(section: usize, block: usize, at: i32, count: i32, passed: f64): void {
  const pStep = 2 * load<f64>(field(section, FilterSection.a1Step))
  const qStep = 2 * load<f64>(field(section, FilterSection.a2Step))
  const rStep = 2 * load<f64>(field(section, FilterSection.a3Step))
  const p = 2 * load<f64>(field(section, FilterSection.a1)) - 1
  const q = 2 * load<f64>(field(section, FilterSection.a2))
  const r = 2 * load<f64>(field(section, FilterSection.a3))
  const mix0 = load<f64>(field(section, FilterSection.mix0))
  const mix1 = load<f64>(field(section, FilterSection.mix1))
  const mix2 = load<f64>(field(section, FilterSection.mix2))
  const mix0Step = load<f64>(field(section, FilterSection.mix0Step))
  const mix1Step = load<f64>(field(section, FilterSection.mix1Step))
  const mix2Step = load<f64>(field(section, FilterSection.mix2Step))
  const isMixed = mix0Step == 0 && mix1Step == 0 && mix2Step == 0 // of passes and notches the mix stands still
  let one = load<f64>(field(section, FilterSection.one))
  let two = load<f64>(field(section, FilterSection.two))
  let x = block + ((<usize>at) << 3)
  for (let i = 0; i < count; i++) {
    const input = load<f64>(x)
    const frame = passed + <f64>i
    const c = q + frame * qStep
    const rest = input - two
    const nextOne = (p + frame * pStep) * one + c * rest
    const nextTwo = two + c * one + (r + frame * rStep) * rest
    const band = 0.5 * (nextOne + one)
    const low = 0.5 * (nextTwo + two)
    if (isMixed) store<f64>(x, mix0 * input + mix1 * band + mix2 * low)
    else store<f64>(x, (mix0 + frame * mix0Step) * input + (mix1 + frame * mix1Step) * band + (mix2 + frame * mix2Step) * low)
    one = nextOne
    two = nextTwo
    x += 8
  }
  store<f64>(field(section, FilterSection.one), one)
  store<f64>(field(section, FilterSection.two), two)
}

/** The same for both channels at once. */
function runBoth(e: usize, section: usize, at: i32, count: i32, passed: f64): void {
  const pStep = 2 * load<f64>(field(section, FilterSection.a1Step))
  const qStep = 2 * load<f64>(field(section, FilterSection.a2Step))
  const rStep = 2 * load<f64>(field(section, FilterSection.a3Step))
  const p = 2 * load<f64>(field(section, FilterSection.a1)) - 1
  const q = 2 * load<f64>(field(section, FilterSection.a2))
  const r = 2 * load<f64>(field(section, FilterSection.a3))
  const mix0 = load<f64>(field(section, FilterSection.mix0))
  const mix1 = load<f64>(field(section, FilterSection.mix1))
  const mix2 = load<f64>(field(section, FilterSection.mix2))
  const mix0Step = load<f64>(field(section, FilterSection.mix0Step))
  const mix1Step = load<f64>(field(section, FilterSection.mix1Step))
  const mix2Step = load<f64>(field(section, FilterSection.mix2Step))
  const half = f64x2.splat(0.5)
  let one = f64x2(load<f64>(field(section, FilterSection.one)), load<f64>(field(section, FilterSection.rightOne)))
  let two = f64x2(load<f64>(field(section, FilterSection.two)), load<f64>(field(section, FilterSection.rightTwo)))
  let x = e + scratchLeft + ((<usize>at) << 3)
  let y = e + scratchRight + ((<usize>at) << 3)
  for (let i = 0; i < count; i++) {
    const input = v128.load64_lane(y, v128.load64_zero(x), 1)
    const frame = passed + <f64>i
    const c = f64x2.splat(q + frame * qStep)
    const rest = f64x2.sub(input, two)
    const nextOne = f64x2.add(f64x2.mul(f64x2.splat(p + frame * pStep), one), f64x2.mul(c, rest))
    const nextTwo = f64x2.add(f64x2.add(two, f64x2.mul(c, one)), f64x2.mul(f64x2.splat(r + frame * rStep), rest))
    const band = f64x2.mul(half, f64x2.add(nextOne, one))
    const low = f64x2.mul(half, f64x2.add(nextTwo, two))
    const dry = f64x2.mul(f64x2.splat(mix0 + frame * mix0Step), input)
    const withBand = f64x2.add(dry, f64x2.mul(f64x2.splat(mix1 + frame * mix1Step), band))
    const out = f64x2.add(withBand, f64x2.mul(f64x2.splat(mix2 + frame * mix2Step), low))
    v128.store64_lane(x, out, 0)
    v128.store64_lane(y, out, 1)
    one = nextOne
    two = nextTwo
    x += 8
    y += 8
  }
  v128.store64_lane(field(section, FilterSection.one), one, 0)
  v128.store64_lane(field(section, FilterSection.rightOne), one, 1)
  v128.store64_lane(field(section, FilterSection.two), two, 0)
  v128.store64_lane(field(section, FilterSection.rightTwo), two, 1)
}
