import { EdgeField } from '../../program/layout'
import { get, put } from './cells'

/**
 * The fades at both ends of what a strike plays of its clip: in by the time since the strike, out by how far the clip has
 * been read, whatever its pitch. `positions` is where each frame was read, `time` how long after the strike the first is. A
 * stretch in which a loop is left fades out from there on.
 */
export function fadeEdges(row: i32, positions: i32, time: f64, left: i32, right: i32, count: i32): void {
  const fadeIn = get(row + EdgeField.inFrames)
  const fadeOut = get(row + EdgeField.outFrames)
  const end = get(row + EdgeField.endFrame)
  const outFrom = get(row + EdgeField.tailAt)
  put(row + EdgeField.tailAt, 0)
  for (let i = 0; i < count; i++) {
    let level: f64 = 1
    if (time + i < fadeIn) level = (time + i) / fadeIn
    const remains = end - get(positions + i)
    if (remains < fadeOut && i >= outFrom) level *= Math.max(0, remains / fadeOut)
    if (level === 1) continue
    put(left + i, get(left + i) * level)
    if (right !== 0) put(right + i, get(right + i) * level)
  }
}
