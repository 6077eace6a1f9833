import { MovesField } from '../../program/layout'
import { get } from './cells'

/** Where a parameter stands `passed` frames into a run: its own value, and what moves it, which lies at `moves`. */
export function moved(base: f64, moves: i32, code: i32, passed: f64): f64 {
  return base + (get(moves + code) + get(moves + MovesField.steps + code) * passed)
}
