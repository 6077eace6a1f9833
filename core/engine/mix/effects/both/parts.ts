import { UnitField } from '../../../program/layout'
import { get, put } from '../../../voice/both/cells'

/** What effects are made of. Both compilers read this room: see voice/both/cells.ts. */

/** Damping of a section that is flat as long as it can be (S. Butterworth, 1930): the root of 2. */
export const FLAT: f64 = 1.4142135623730951

/** Where a number of an effect stands `i` frames into a cell of the grid. */
export function valueAt(unit: i32, value: i32, i: f64): f64 {
  return get(unit + UnitField.now0 + value) + i * get(unit + UnitField.step0 + value)
}

/** A section of a state variable filter: what it holds, and what it made of the last sample. */
export const SECTION_DOUBLES: i32 = 4

/** Writes the three numbers of a section at `to`, for the tangent `g` of half its angle and damping `k`. */
export function designCore(to: i32, g: f64, k: f64): void {
  const a1 = 1 / (1 + g * (g + k))
  put(to, a1)
  put(to + 1, g * a1)
  put(to + 2, g * g * a1)
}

/** A sample through the section at `row`; leaves band and low there. `core` is what `designCore` wrote. */
export function runSection(core: i32, row: i32, input: f64): void {
  const one = get(row)
  const two = get(row + 1)
  const rest = input - two
  const band = get(core) * one + get(core + 1) * rest
  const low = two + get(core + 1) * one + get(core + 2) * rest
  put(row, still(2 * band - one))
  put(row + 1, still(2 * low - two))
  put(row + 2, band)
  put(row + 3, low)
}

export function bandOf(row: i32): f64 {
  return get(row + 2)
}

export function lowOf(row: i32): f64 {
  return get(row + 3)
}

/** Numbers this small would decay into denormals, which are slow. */
export function still(value: f64): f64 {
  return Math.abs(value) < 1e-18 ? 0 : value
}

/** A first-order low pass (trapezoidal) that holds one number at `row`; `g` is the tangent of half its angle. */
export function runOnePole(row: i32, g: f64, input: f64): f64 {
  const held = get(row)
  const step = ((input - held) * g) / (1 + g)
  const low = held + step
  put(row, still(low + step))
  return low
}
