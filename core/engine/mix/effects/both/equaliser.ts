import { EqualiserValue, UnitField } from '../../../program/layout'
import { get, put } from '../../../voice/both/cells'
import { still } from './parts'

export const EQUALISER_BANDS: i32 = 6

/**
 * Six bands in a row, each a section of a state variable filter whose numbers are worked out where the kit is compiled
 * (program/fit-section.ts). A band that changes nothing passes every bit.
 */
export function equalise(unit: i32, left: i32, right: i32, at: f64, count: i32): void {
  const moves = get(unit + UnitField.isMoving) !== 0
  for (let band = 0; band < EQUALISER_BANDS; band++) {
    const value = unit + UnitField.now0 + band * EqualiserValue.length
    const state = unit + UnitField.state0 + band * 4
    if (!moves && isThrough(value)) {
      for (let i = 0; i < 4; i++) put(state + i, 0)
      continue
    }
    runBand(value, state, left, at, count)
    runBand(value, state + 2, right, at, count)
  }
}

function isThrough(value: i32): bool {
  return get(value + EqualiserValue.mix0) === 1 && get(value + EqualiserValue.mix1) === 0 && get(value + EqualiserValue.mix2) === 0
}

function runBand(value: i32, state: i32, side: i32, at: f64, count: i32): void {
  const steps = value + UnitField.step0 - UnitField.now0
  let one = get(state)
  let two = get(state + 1)
  for (let i = 0; i < count; i++) {
    const into = at + i
    const g = get(value + EqualiserValue.g) + into * get(steps + EqualiserValue.g)
    const k = get(value + EqualiserValue.k) + into * get(steps + EqualiserValue.k)
    const mix0 = get(value + EqualiserValue.mix0) + into * get(steps + EqualiserValue.mix0)
    const mix1 = get(value + EqualiserValue.mix1) + into * get(steps + EqualiserValue.mix1)
    const mix2 = get(value + EqualiserValue.mix2) + into * get(steps + EqualiserValue.mix2)
    const a1 = 1 / (1 + g * (g + k))
    const input = get(side + i)
    const rest = input - two
    const band = a1 * one + g * a1 * rest
    const low = two + g * a1 * one + g * g * a1 * rest
    one = still(2 * band - one)
    two = still(2 * low - two)
    put(side + i, mix0 * input + mix1 * band + mix2 * low)
  }
  put(state, one)
  put(state + 1, two)
}
