import { nearest } from './nearest'

/**
 * The first version counted swing from 0 to 1, where 1 put every second step two thirds of the way through its pair. As
 * a share of the pair it is this, and a step added to its lateness comes to the very same number.
 */
export function swingOfOld(old: number): number {
  return (1 + old / 3) / 2
}

/** What the first version would have called a swing; what it did not know, a swing over two thirds, is its most. */
export function oldOfSwing(swing: number): number {
  return Math.min(1, Math.max(0, nearest(3 * (2 * swing - 1), swing, swingOfOld)))
}
