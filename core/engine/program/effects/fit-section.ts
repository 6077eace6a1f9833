import { exp2, log2, sin } from '../../math'
import { useMemory } from '../../voice/both/cells'
import { designSection } from '../../voice/both/filter-design'
import { filterCodes } from '../codes'
import { FilterSection } from '../layout'

/**
 * Sections of an equaliser, as close to the analogue ones they stand for as a section can be. A section is a share of two
 * squares: with x = sin²(w / 2) its squared magnitude is (n0 + n1 x + n2 x²) / (1 + d1 x + d2 x²) (M. Vicanek, "Matched
 * second order digital filters", 2016). Its five numbers are found by least squares of the relative error over the
 * frequencies that are heard, weighed by what the fit before left over (C. Sanathanan, J. Koerner, 1963), and again where
 * the error is greatest (C. L. Lawson, 1961).
 */

/** What a section needs: the tangent of half its angle, its damping, and how much of input, band and low it puts out. */
export interface Section {
  readonly g: number
  readonly k: number
  readonly mix0: number
  readonly mix1: number
  readonly mix2: number
}

export const bandKinds = ['peak', 'lowShelf', 'highShelf', 'notch', 'lowPass', 'highPass'] as const
export type BandKind = (typeof bandKinds)[number]

const PI = 3.141592653589793
const POINTS = 64
const LOWEST_HZ = 20
const ROUNDS = 16
/** Where the ear is keenest the fit is to be closer. */
const KEEN_HZ = 10000
const KEENER = 5
const DB_TO_OCTAVES = 0.08304820237218406

/** Passes every bit. */
export const THROUGH: Section = { g: 0.1, k: 1, mix0: 1, mix1: 0, mix2: 0 }

const squared = (x: number): number => x * x

/** Squared magnitude of the analogue section at `r` times its frequency; `gainDb` is of peaks and shelves, `damping` is 1 / Q. */
export function analogueSquared(kind: BandKind, r: number, gainDb: number, damping: number): number {
  const a = exp2(gainDb * DB_TO_OCTAVES)
  const root = Math.sqrt(a)
  const rr = r * r
  const share = (b2: number, b1: number, b0: number, a2: number, a1: number, a0: number) =>
    (squared(b0 - b2 * rr) + b1 * b1 * rr) / (squared(a0 - a2 * rr) + a1 * a1 * rr)
  switch (kind) {
    case 'peak':
      return share(1, a * damping, 1, 1, damping / a, 1)
    case 'lowShelf':
      return share(a, a * root * damping, a * a, a, root * damping, 1)
    case 'highShelf':
      return share(a * a, a * root * damping, a, 1, root * damping, a)
    case 'notch':
      return share(1, 0, 1, 1, damping, 1)
    case 'lowPass':
      return share(0, 0, 1, 1, damping, 1)
    case 'highPass':
      return share(1, 0, 0, 1, damping, 1)
  }
}

/** A section of a kind; `hz` and the engine's rate in Hz. One that changes nothing passes every bit. */
export function fitSection(kind: BandKind, hz: number, gainDb: number, damping: number, rateHz: number): Section {
  const isLifting = kind === 'peak' || kind === 'lowShelf' || kind === 'highShelf'
  if (isLifting && gainDb === 0) return THROUGH
  const points = pointsOf(kind, Math.min(hz, 0.49 * rateHz), gainDb, damping, rateHz)
  let best = matched(kind, Math.min(hz, 0.49 * rateHz), gainDb, damping, rateHz)
  let least = errorOf(best, points)
  const lawson = points.map(({ weight }) => weight)
  let last: readonly number[] = bottomOf(best)
  const bases = basesOf(kind, points, Math.min(hz, 0.49 * rateHz), rateHz)
  for (let round = 0; round < ROUNDS; round++) {
    const found = solve(kind, bases, points, lawson, last)
    if (!found) break
    last = [found[3], found[4]]
    const section = toSection(found)
    if (!section) continue
    const error = errorOf(section, points)
    if (error < least) [best, least] = [section, error]
    if (round >= 4) weighAnew(lawson, section, points)
  }
  return best
}

interface Point {
  readonly x: number
  readonly wanted: number
  readonly weight: number
}

function pointsOf(kind: BandKind, hz: number, gainDb: number, damping: number, rateHz: number): Point[] {
  const top = Math.min(20000, 0.46 * rateHz)
  const spread = Array.from({ length: POINTS }, (_, i) => LOWEST_HZ * exp2((i / (POINTS - 1)) * log2(top / LOWEST_HZ)))
  const near = [0.25, 0.5, 0.7, 0.85, 0.93, 0.97, 1, 1.03, 1.08, 1.18, 1.4, 2].map((share) => share * hz)
  return [...spread, ...near.filter((one) => one > LOWEST_HZ && one < top)].flatMap((at) => {
    const wanted = analogueSquared(kind, at / hz, gainDb, damping)
    if (wanted < 1e-5) return [] // below -50 dB nobody hears how far below
    const s = sin((PI * at) / rateHz)
    return [{ x: s * s, wanted, weight: at <= KEEN_HZ ? KEENER : 1 }]
  })
}

/** The section that voices have, to begin with (voice/both/filter-design.ts). */
function matched(kind: BandKind, hz: number, gainDb: number, damping: number, rateHz: number): Section {
  const cells = new Float64Array(FilterSection.length)
  useMemory(cells)
  designSection(0, filterCodes[kind], 1, 0, hz, damping, gainDb, rateHz)
  const [a1, a2] = [cells[FilterSection.a1], cells[FilterSection.a2]]
  const g = a2 / a1
  return { g, k: (1 / a1 - 1) / g - g, mix0: cells[FilterSection.mix0], mix1: cells[FilterSection.mix1], mix2: cells[FilterSection.mix2] }
}

/** d1 and d2 of a section. */
function bottomOf({ g, k }: Section): [number, number] {
  const gg = g * g
  const inner = (k * k - 2) / gg
  return [inner - 2, 1 / (gg * gg) - inner + 1]
}

/** What a kind leaves open of its numerator, as functions of x at each point, point after point; `zero` is where a notch is nothing. */
interface Bases {
  readonly count: number
  readonly values: Float64Array
  readonly zero: number
}

function basesOf(kind: BandKind, points: readonly Point[], hz: number, rateHz: number): Bases {
  const zero = squared(sin((PI * hz) / rateHz))
  const shapes: ((x: number) => number)[] =
    kind === 'highPass' ? [(x) => x * x] : kind === 'notch' ? [(x) => squared(x - zero)] : [() => 1, (x) => x, (x) => x * x]
  return { count: shapes.length, values: Float64Array.from(points.flatMap(({ x }) => shapes.map((shape) => shape(x)))), zero }
}

/** One row of what is solved, and the square of all: at most five numbers and what they make. */
const row = new Float64Array(5)
const rows = Array.from({ length: 5 }, () => new Float64Array(6))

/** Least squares of (n - wanted d) / (wanted dBefore) for the numbers that a kind leaves open: n0, n1, n2, d1, d2. */
function solve(
  kind: BandKind,
  { count, values, zero }: Bases,
  points: readonly Point[],
  weights: readonly number[],
  last: readonly number[],
): number[] | undefined {
  const size = count + 2
  for (const one of rows) one.fill(0)
  for (let i = 0; i < points.length; i++) {
    const { x, wanted } = points[i]
    const scale = weights[i] / (wanted * Math.max(1e-9, Math.abs(1 + last[0] * x + last[1] * x * x)))
    for (let j = 0; j < count; j++) row[j] = scale * values[i * count + j]
    row[count] = -scale * wanted * x
    row[count + 1] = -scale * wanted * x * x
    for (let j = 0; j < size; j++) {
      const sums = rows[j]
      const by = row[j]
      for (let k = j; k < size; k++) sums[k] += by * row[k]
      sums[size] += by * scale * wanted
    }
  }
  for (let j = 1; j < size; j++) for (let k = 0; k < j; k++) rows[j][k] = rows[k][j]
  const found = eliminated(rows.slice(0, size))
  if (!found) return undefined
  const [d1, d2] = found.slice(-2)
  if (kind === 'highPass') return [0, 0, found[0], d1, d2]
  if (kind === 'notch') return [found[0] * zero * zero, -2 * found[0] * zero, found[0], d1, d2]
  return [found[0], found[1], found[2], d1, d2]
}

function eliminated(rows: Float64Array[]): number[] | undefined {
  const size = rows.length
  for (let column = 0; column < size; column++) {
    let pivot = column
    for (let row = column + 1; row < size; row++) if (Math.abs(rows[row][column]) > Math.abs(rows[pivot][column])) pivot = row
    if (!(Math.abs(rows[pivot][column]) > 1e-200)) return undefined
    ;[rows[column], rows[pivot]] = [rows[pivot], rows[column]]
    for (let row = 0; row < size; row++) {
      if (row === column) continue
      const share = rows[row][column] / rows[column][column]
      for (let k = column; k <= size; k++) rows[row][k] -= share * rows[column][k]
    }
  }
  return rows.map((row, i) => row[size] / row[i])
}

/** The stable section of a share of squares; undefined where there is none. */
function toSection([n0, n1, n2, d1, d2]: readonly number[]): Section | undefined {
  const bottom = factored(1, d1, d2)
  const top = factored(n0, n1, n2)
  if (!bottom || !top) return undefined
  const [b0, b1, b2] = top
  const [a0, a1, a2] = bottom
  if (!(a2 > 0) || !(a1 > 0)) return undefined
  const g = Math.sqrt(a0 / a2)
  const high = b2 / a2
  const k = (a1 * g) / a0
  return { g, k, mix0: high, mix1: (b1 * g) / a0 - k * high, mix2: b0 / a0 - high }
}

/** b0 + b1 s + b2 s² whose square on the axis is the one given; undefined where that goes below nothing. */
function factored(q0: number, q1: number, q2: number): [number, number, number] | undefined {
  const end = q0 + q1 + q2
  if (q0 < -1e-12 || end < -1e-12) return undefined
  const b0 = Math.sqrt(Math.max(0, q0))
  const b2 = Math.sqrt(Math.max(0, end))
  const inner = 2 * q0 + q1 + 2 * b0 * b2
  if (inner < -1e-9 * (q0 + Math.abs(end) + 1e-12)) return undefined
  return [b0, Math.sqrt(Math.max(0, inner)), b2]
}

/** Squared magnitude of a section where x is sin²(w / 2). */
export function sectionSquared({ g, k, mix0, mix1, mix2 }: Section, x: number): number {
  const tt = x / (1 - x) / (g * g) // squared, in parts of its own tangent
  const top = squared(mix0 * (1 - tt) + mix2) + squared(mix0 * k + mix1) * tt
  return top / (squared(1 - tt) + k * k * tt)
}

function errorOf(section: Section, points: readonly Point[]): number {
  let most = 0
  for (const { x, wanted, weight } of points) most = Math.max(most, weight * Math.abs(sectionSquared(section, x) / wanted - 1))
  return most
}

function weighAnew(weights: number[], section: Section, points: readonly Point[]): void {
  let sum = 0
  for (let i = 0; i < points.length; i++) {
    const { x, wanted, weight } = points[i]
    const error = weight * Math.abs(sectionSquared(section, x) / wanted - 1)
    weights[i] *= Math.sqrt(error + 1e-9)
    sum += weights[i]
  }
  for (let i = 0; i < points.length; i++) weights[i] *= points.length / sum
}
