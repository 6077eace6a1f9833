export const RATE = 48000
export const STOP_FRAMES = 192
export const DRIVE_FRAMES = 16
export const GRID = 16

export type Side = Float64Array
export type Sides = Side[]

export const dB = (db: number) => 10 ** (db / 20)
export const held = (value: number, least: number, most: number) => (value < least ? least : value > most ? most : value)

/** The modified Bessel function of order 0. */
export function bessel(x: number): number {
  let [sum, term] = [1, 1]
  for (let k = 1; k < 60; k++) sum += term *= (x / (2 * k)) ** 2
  return sum
}
