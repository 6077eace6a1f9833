/**
 * Peaks and shelves of voices against the analogue ones they stand for, by the points at which numerator and denominator
 * are right (core/engine/voice/both/filter-design.ts): what learning those points goes by.
 */

const RATE = 48000
/** Units of the net that says where the points lie. */
export const UNITS = 8
const POINTS = 6
export const WEIGHTS = UNITS * 4 + POINTS * (UNITS + 1)

/** A filter as a share of two squares, each with a corner (radians a frame) and a damping, and what the net is told of it. */
export interface Lifting {
  /** The lower corner of a shelf, the wider square of a peak; then the other one. */
  readonly corners: readonly [number, number]
  readonly dampings: readonly [number, number]
  readonly told: readonly [number, number, number]
  /** Where both squares are right without the net. */
  readonly base: readonly [number, number]
  /** By what share the two squares may differ: nothing where the filter lifts nothing. */
  readonly apart: number
}

const FREQUENCIES = [
  ...Array.from({ length: 10 }, (_, i) => 100 * 8 ** (i / 10)),
  ...Array.from({ length: 80 }, (_, i) => 800 * (18000 / 800) ** (i / 79)),
].map((hz) => ({ w: (2 * Math.PI * hz) / RATE, x: xOf((2 * Math.PI * hz) / RATE), mostDb: hz <= 10000 ? 0.1 : 0.5 }))

function xOf(w: number): number {
  return Math.sin(w / 2) ** 2
}

const bent = (damping: number) => (damping - 0.4) / (damping + 0.4)
const highTurn = (w: number) => Math.min(2.1, 1.3 + 0.5 * w)

interface Drawn {
  readonly w: number
  readonly damping: number
  readonly gainDb: number
}

function drawn(random: () => number): Drawn {
  const damping = random() < 0.5 ? 0.05 * 6 ** random() : 0.3 * 6.7 ** random()
  const hz = random() < 0.25 ? 20 * 1200 ** random() : 3000 * 8 ** random()
  return { w: (2 * Math.PI * Math.min(hz, 0.49 * RATE)) / RATE, damping, gainDb: 48 * random() - 24 }
}

export function drawPeak(random: () => number): Lifting {
  const { w, damping, gainDb } = drawn(random)
  const a = 10 ** (Math.abs(gainDb) / 40)
  const spread = damping ** 2 / (damping ** 2 + 0.2)
  const here = Math.min(w, 2.2)
  const below = here < 1.05 ? here * (1 + 0.25 * spread) : here - (here - 1.05) * spread
  const above = here + Math.max(0, highTurn(w) - here) * spread
  const [wide, narrow] = [damping * a, damping / a]
  return { corners: [w, w], dampings: [wide, narrow], told: [Math.min(w, 2.8) - 1, bent(narrow), bent(wide)], base: [below, above], apart: Math.min(1, (3 * (wide - narrow)) / (wide + narrow)) } // prettier-ignore
}

export function drawShelf(random: () => number): Lifting {
  const { w, damping, gainDb } = drawn(random)
  const root = 10 ** (Math.abs(gainDb) / 80)
  const [low, high] = [w / root, w * root]
  const spread = damping ** 2 / (damping ** 2 + 0.3)
  const [lower, upper] = [Math.min(low, 2.1), Math.min(high, 2.2)]
  const base = [lower + (Math.min(1.1, 0.45 + 0.45 * w) - lower) * spread, upper + (highTurn(w) - upper) * spread] as const
  return { corners: [low, high], dampings: [damping, damping], told: [Math.min(low, 2.8) - 1, Math.min(high, 2.8) - 1, bent(damping)], base, apart: Math.min(1, (6 * (high - low)) / (high + low)) } // prettier-ignore
}

/** What the net makes of what it is told, and its units on the way there. */
function asks(told: readonly number[], weights: readonly number[]): { sums: number[]; ways: number[] } {
  let at = 0
  const sums = Array.from({ length: UNITS }, () => {
    let sum = weights[at++]
    for (const one of told) sum += weights[at++] * one
    return sum
  })
  const ways = Array.from({ length: POINTS }, () => {
    let sum = weights[at++]
    for (const one of sums) sum += (weights[at++] * one) / (1 + Math.abs(one))
    return sum
  })
  return { sums, ways }
}

const NEAR = 1e-4

/** Adds the slope of a loss of one filter to those of the weights: by each way as it is tried, from there on as the net is made. */
export function addSlope(filter: Lifting, weights: readonly number[], loss: (excess: number) => number, slope: Float64Array): void {
  const { sums, ways } = asks(filter.told, weights)
  const by = ways.map(
    (way, i) => (loss(excessAt(filter, ways.with(i, way + NEAR))) - loss(excessAt(filter, ways.with(i, way - NEAR)))) / (2 * NEAR),
  )
  sums.forEach((sum, j) => {
    const turn = 1 / (1 + Math.abs(sum)) ** 2
    const hidden = by.reduce((all, one, i) => all + one * weights[outerAt(i) + 1 + j], 0) * turn
    slope[4 * j] += hidden
    filter.told.forEach((one, i) => (slope[4 * j + 1 + i] += hidden * one))
  })
  by.forEach((one, i) => {
    slope[outerAt(i)] += one
    sums.forEach((sum, j) => (slope[outerAt(i) + 1 + j] += (one * sum) / (1 + Math.abs(sum))))
  })
}

const outerAt = (way: number) => 4 * UNITS + way * (UNITS + 1)

/** Points of the common map, of the first square and of the second. */
function pointsOf({ corners, base: [below, above], apart }: Lifting, ways: readonly number[]): number[] {
  const share = Math.min(1, corners[1] / 0.6) ** 2
  const by = ways.map((way) => share * way)
  const at = [below + by[0], above + by[1], below + by[2] - apart * by[4], above + by[3] - apart * by[5], below + by[2] + apart * by[4], above + by[3] + apart * by[5]] // prettier-ignore
  const points = at.map((w) => Math.min(3, Math.max(0.001, w)))
  for (let i = 0; i < POINTS; i += 2) {
    if (points[i + 1] - points[i] >= 0.05) continue
    const middle = Math.min(2.9, (points[i] + points[i + 1]) / 2)
    points[i] = Math.max(0.001, middle - 0.025)
    points[i + 1] = Math.max(points[i] + 0.001, middle + 0.025)
  }
  return points
}

/** A square of the analogue filter, as a quadratic in x that is right at 0 and at two frequencies. */
function through(corner: number, damping: number, c: number, d: number, p1: number, p2: number): [number, number, number] {
  const at = (w: number) => squareAt(w / corner, damping) * (c + d * xOf(w)) ** 2
  const y0 = c * c
  const [x1, x2] = [xOf(p1), xOf(p2)]
  const [y1, y2] = [(at(p1) - y0) / x1, (at(p2) - y0) / x2]
  const highest = (y2 - y1) / (x2 - x1)
  return [y0, y1 - highest * x1, highest]
}

function squareAt(r: number, damping: number): number {
  return (1 - r * r) ** 2 + damping ** 2 * r * r
}

/** How far a filter is from the analogue one at most, in parts of what it may be: 0.1 dB to 10 kHz, 0.5 dB to 18 kHz. */
export function excessOf(filter: Lifting, weights: readonly number[]): number {
  return excessAt(filter, asks(filter.told, weights).ways)
}

function excessAt(filter: Lifting, ways: readonly number[]): number {
  const [m1, m2, p1, p2, q1, q2] = pointsOf(filter, ways)
  const shareAt = (w: number) => xOf(w) / (w * w)
  const d = (shareAt(m2) - shareAt(m1)) / (xOf(m2) - xOf(m1))
  const c = shareAt(m1) - d * xOf(m1)
  const { corners, dampings } = filter
  const one = through(corners[0], dampings[0], c, d, p1, p2)
  const other = through(corners[1], dampings[1], c, d, q1, q2)
  let most = 0
  for (const { w, x, mostDb } of FREQUENCIES) {
    const a = (one[0] + x * (one[1] + x * one[2])) / squareAt(w / corners[0], dampings[0])
    const b = (other[0] + x * (other[1] + x * other[2])) / squareAt(w / corners[1], dampings[1])
    // A square that comes near nothing is none, and the farther it is from one the worse.
    const excess = a > 0.02 && b > 0.02 ? Math.abs(10 * Math.log10(a / b)) / mostDb : 60 + 100 * (Math.max(0, 0.02 - a) + Math.max(0, 0.02 - b))
    most = Math.max(most, excess)
  }
  return most
} // prettier-ignore
