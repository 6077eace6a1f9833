const MOST_STEPS = 16

/** The number at `guess` or a few bits beside it for which `of` gives exactly `wanted`; `guess` where none of them does. */
export function nearest(guess: number, wanted: number, of: (x: number) => number): number {
  const step = Math.max(Number.EPSILON * Math.abs(guess), Number.EPSILON / 8) / 2
  for (let distance = 0; distance <= MOST_STEPS; distance++)
    for (const x of [guess + distance * step, guess - distance * step]) if (of(x) === wanted) return x
  return guess
}
