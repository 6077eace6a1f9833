import { ParamCode } from '../../program/layout'
import { get, put } from './cells'
import { moved } from './moved'

/** How far apart two channels stand: 0 both alike, 1 as they are, 2 twice as different. */
export function widenVoice(width: f64, moves: i32, passed: f64, left: i32, right: i32, count: i32): void {
  for (let i = 0; i < count; i++) {
    const share = Math.min(2, Math.max(0, moved(width, moves, ParamCode.width, passed + i)))
    const middle = 0.5 * (get(left + i) + get(right + i))
    const side = 0.5 * (get(left + i) - get(right + i)) * share
    put(left + i, middle + side)
    put(right + i, middle - side)
  }
}
