import { get } from './cells'

/** Where a parameter stands `passed` frames into a run: its own value, and what moves it by `offsets` and `steps` a frame. */
export function moved(base: f64, offsets: i32, steps: i32, code: i32, passed: f64): f64 {
  return base + (get(offsets + code) + get(steps + code) * passed)
}
