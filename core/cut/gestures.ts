import type { StrengthCurve } from './strength'

/**
 * A place where the sound rises. What is struck rarely sounds once: a foot has heel and toe, glass has splinters. So a
 * strike counts by its `height`: how likely it is one of its own, at most its strength.
 */
export interface Strike {
  readonly hop: number
  /** Where its gesture begins: at a strike just before that is nearly as loud, as in a flam, or at itself. */
  readonly beginHop: number
  /** How suddenly the sound rises here, 0..1. */
  readonly strength: number
  /** How likely it is a strike of its own, as log odds: 0 is as likely as not. */
  readonly odds: number
  /** Where the water line would have to stand to hide it, above 0 and at most its strength. */
  readonly height: number
}

/** All strikes of a recording, and where the water line stands by itself. */
export interface Strikes {
  readonly hopFrames: number
  readonly strikes: readonly Strike[]
  /** The line where this recording divides: where what lies over it is most likely all of its strikes and nothing else. */
  readonly line: number
  /** Whether the recording went through a lossy codec, which spreads strokes over what is before them. */
  readonly isCoded?: boolean
}

/** Those that no higher one within the gap hides. */
export function standing(sounds: readonly { readonly seconds: number }[], heights: ArrayLike<number>, gapSeconds: number): number[] {
  const order = sounds.map((_, i) => i).sort((a, b) => heights[b] - heights[a])
  const hidden = new Uint8Array(sounds.length)
  const kept: number[] = []
  for (const i of order) {
    if (hidden[i]) continue
    kept.push(i)
    for (const step of [-1, 1])
      for (let j = i + step; j >= 0 && j < sounds.length && Math.abs(sounds[j].seconds - sounds[i].seconds) <= gapSeconds; j += step) hidden[j] = 1
  } // prettier-ignore
  return kept.sort((a, b) => a - b)
}

/** A level at which a recording divides, and how many hits stand over it. */
export interface Level {
  readonly line: number
  readonly count: number
}

const LEAST_STEP = 0.012
const LEVELS_APART = 0.15

/** The strikes that stand at or above the line, none closer to a higher one than the gap, in their order. */
export function strikesOver({ strikes, hopFrames }: Strikes, waterLine: number, minGapFrames: number): Strike[] {
  const placed = strikes.map(({ hop }) => ({ seconds: hop * hopFrames }))
  return standing(placed, strikes.map(({ height }) => height), minGapFrames).map((i) => strikes[i]).filter(({ height }) => height >= waterLine) // prettier-ignore
}

/** Levels at which this recording divides, from few hits to many: the wider gaps between its heights. */
export function levelsOf(found: Strikes, minGapFrames: number): Level[] {
  const heights = strikesOver(found, 0, minGapFrames).map(({ height }) => height).sort((a, b) => b - a) // prettier-ignore
  const steps = heights
    .map((top, k) => ({ count: k + 1, step: top - (heights[k + 1] ?? 0), line: (top + (heights[k + 1] ?? 0)) / 2 }))
    .filter(({ step }) => step >= LEAST_STEP)
    .sort((a, b) => b.step - a.step)
  const chosen: Level[] = []
  for (const { count, line } of steps)
    if (!chosen.some((other) => Math.abs(other.count - count) < Math.max(2, LEVELS_APART * Math.max(count, other.count)))) chosen.push({ count, line }) // prettier-ignore
  return chosen.sort((a, b) => a.count - b.count)
}

/** The curve as the line sees it: each rise as high as its strike counts. */
export function curveOverLine({ strength, hopFrames }: StrengthCurve, { strikes }: Strikes): StrengthCurve {
  const shown = strength.slice()
  for (const [i, { hop, strength: own, height }] of strikes.entries()) {
    if (height >= own) continue
    const from = lowestBetween(strength, strikes[i - 1]?.hop ?? 0, hop)
    const to = lowestBetween(strength, hop, strikes[i + 1]?.hop ?? strength.length - 1)
    for (let at = from; at <= to; at++) shown[at] = Math.min(shown[at], (strength[at] * height) / own)
  }
  return { hopFrames, strength: shown }
}

function lowestBetween(strength: Float32Array, from: number, to: number): number {
  let lowest = from
  for (let hop = from; hop <= to; hop++) if (strength[hop] < strength[lowest] || (strength[hop] === strength[lowest] && hop < to)) lowest = hop
  return lowest
} // prettier-ignore
