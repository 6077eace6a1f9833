import { createRandom, gaussian } from '../../demo/random'

/** What is learned from: rows of signs, whether each is a strike, and how much it counts. */
export interface Lesson {
  readonly signs: Float64Array
  readonly isStrike: Uint8Array
  readonly counts: Float64Array
}

/** A net of one layer between, as core/cut/strike-odds.ts reads it. */
export interface TrainedNet {
  readonly units: number
  readonly inner: Float64Array
  readonly outer: Float64Array
}

const UNITS = 16
const ROUNDS = 60
const BATCH = 256
const STEP = 0.003
export const DECAY = 1e-4
/** Signs are blurred by this much of their own spread, so that no single number is learned by heart. */
export const BLUR = 0.05

/**
 * Learns to tell strikes by the cross entropy of each row, with Adam (D. P. Kingma and J. Ba, 2015), steps that fall as
 * half a cosine, and weights that decay.
 */
export function trainNet({ signs, isStrike, counts }: Lesson, width: number, seed: number): TrainedNet {
  const random = createRandom(seed)
  const rows = isStrike.length
  const { means, spreads } = spreadOf([signs], width)
  const normal = signs.map((sign, i) => (sign - means[i % width]!) / spreads[i % width]!)
  const inner = Float64Array.from({ length: UNITS * (width + 1) }, (_, i) => (i % (width + 1) === width ? 0 : gaussian(random) / Math.sqrt(width)))
  const outer = Float64Array.from({ length: UNITS + 1 }, (_, i) => (i === UNITS ? 0 : gaussian(random) / Math.sqrt(UNITS)))
  const [stepInner, stepOuter] = [adam(inner), adam(outer)]
  const [slopeInner, slopeOuter] = [new Float64Array(inner.length), new Float64Array(outer.length)]
  const order = Uint32Array.from({ length: rows }, (_, i) => i)
  const row = new Float64Array(width)
  const hidden = new Float64Array(UNITS)
  for (let round = 0; round < ROUNDS; round++) {
    shuffle(order, random)
    const size = STEP * 0.5 * (1 + Math.cos((Math.PI * round) / ROUNDS)) + 1e-5
    for (let from = 0; from < rows; from += BATCH) {
      const to = Math.min(rows, from + BATCH)
      slopeInner.forEach((_, i) => (slopeInner[i] = i % (width + 1) === width ? 0 : DECAY * inner[i]!))
      slopeOuter.forEach((_, i) => (slopeOuter[i] = i === UNITS ? 0 : DECAY * outer[i]!))
      for (let k = from; k < to; k++) {
        const which = order[k]!
        for (let i = 0; i < width; i++) row[i] = normal[which * width + i]! + BLUR * gaussian(random)
        addSlopes(row, hidden, { inner, outer, slopeInner, slopeOuter }, isStrike[which]!, counts[which]! / (to - from))
      }
      stepInner(slopeInner, size)
      stepOuter(slopeOuter, size)
    }
  }
  return { units: UNITS, inner: unfolded(inner, means, spreads), outer }
} // prettier-ignore

interface Slopes {
  readonly inner: Float64Array
  readonly outer: Float64Array
  readonly slopeInner: Float64Array
  readonly slopeOuter: Float64Array
}

function addSlopes(row: Float64Array, hidden: Float64Array, { inner, outer, slopeInner, slopeOuter }: Slopes, isStrike: number, count: number): void {
  const width = row.length
  let odds = outer[UNITS]!
  for (let unit = 0; unit < UNITS; unit++) {
    let sum = inner[unit * (width + 1) + width]!
    for (let i = 0; i < width; i++) sum += inner[unit * (width + 1) + i]! * row[i]!
    hidden[unit] = Math.tanh(sum)
    odds += outer[unit]! * hidden[unit]!
  }
  const slope = (1 / (1 + Math.exp(-odds)) - isStrike) * count
  slopeOuter[UNITS]! += slope
  for (let unit = 0; unit < UNITS; unit++) {
    slopeOuter[unit]! += slope * hidden[unit]!
    const under = slope * outer[unit]! * (1 - hidden[unit]! ** 2)
    for (let i = 0; i < width; i++) slopeInner[unit * (width + 1) + i]! += under * row[i]!
    slopeInner[unit * (width + 1) + width]! += under
  }
} // prettier-ignore

/** Steps of Adam for some weights. */
export function adam(weights: Float64Array): (slopes: Float64Array, size: number) => void {
  const mean = new Float64Array(weights.length)
  const square = new Float64Array(weights.length)
  let steps = 0
  return (slopes, size) => {
    steps++
    const [early, earlySquare] = [1 - 0.9 ** steps, 1 - 0.999 ** steps]
    for (let i = 0; i < weights.length; i++) {
      mean[i] = 0.9 * mean[i]! + 0.1 * slopes[i]!
      square[i] = 0.999 * square[i]! + 0.001 * slopes[i]! ** 2
      weights[i]! -= (size * (mean[i]! / early)) / (Math.sqrt(square[i]! / earlySquare) + 1e-8)
    }
  }
}

/** Mean and spread of each of `width` signs over all rows of some tables. */
export function spreadOf(tables: readonly ArrayLike<number>[], width: number): { means: Float64Array; spreads: Float64Array } {
  const rows = tables.reduce((sum, { length }) => sum + length, 0) / width
  const means = new Float64Array(width)
  const spreads = new Float64Array(width)
  const overAll = (add: (sign: number, column: number) => void) => {
    for (const table of tables) for (let i = 0; i < table.length; i++) add(table[i]!, i % width)
  }
  overAll((sign, column) => (means[column]! += sign / rows))
  overAll((sign, column) => (spreads[column]! += (sign - means[column]!) ** 2 / rows))
  return { means, spreads: spreads.map((square) => Math.sqrt(square) + 1e-6) }
}

/** The same net for signs as they come. */
export function unfolded(inner: Float64Array, means: Float64Array, spreads: Float64Array): Float64Array {
  const width = means.length
  const out = inner.slice()
  for (let unit = 0; unit < UNITS; unit++)
    for (let i = 0; i < width; i++) {
      const at = unit * (width + 1) + i
      out[at] = inner[at]! / spreads[i]!
      out[unit * (width + 1) + width]! -= out[at]! * means[i]!
    }
  return out
}

export function shuffle(order: Uint32Array, random: () => number): void {
  for (let i = order.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    ;[order[i], order[j]] = [order[j]!, order[i]!]
  }
}
