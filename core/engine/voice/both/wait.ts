import { WaitField } from '../../program/layout'
import { get, put } from './cells'

/** Holds what comes back by as many frames as its row says, so that it comes together with what takes longer. */
export function wait(row: i32, frames: i32, left: i32, right: i32, count: i32): void {
  waitSide(row + WaitField.left0, frames, left, count)
  if (right !== 0) waitSide(row + WaitField.right0, frames, right, count)
}

/** In runs of as many frames as it holds back. */
function waitSide(line: i32, frames: i32, at: i32, count: i32): void {
  for (let done = 0; done < count; done += frames) {
    const run: i32 = count - done < frames ? count - done : frames
    for (let i = 0; i < run; i++) put(line + frames + i, get(at + done + i))
    for (let i = 0; i < run; i++) put(at + done + i, get(line + i))
    for (let i = 0; i < frames; i++) put(line + i, get(line + i + run))
  }
}
