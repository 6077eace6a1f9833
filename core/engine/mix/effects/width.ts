import { nearer } from '../mix-state'

/**
 * How wide a block sounds: what left and right have in common stays, what sets them apart is multiplied. Width 0 is one
 * channel, 1 changes no bit, 2 is twice as far apart. It nears the width that is set frame by frame.
 */
export function widen(
  states: Float64Array,
  state: number,
  rows: Float64Array,
  value: number,
  left: Float64Array,
  right: Float64Array,
  count: number,
  step: number,
): void {
  const target = rows[value]
  let width = states[state]
  for (let i = 0; i < count; i++) {
    if (width !== target) width = nearer(width, target, step)
    if (width === 1) continue
    const middle = 0.5 * (left[i] + right[i])
    const side = 0.5 * (left[i] - right[i]) * width
    left[i] = middle + side
    right[i] = middle - side
  }
  states[state] = width
}
