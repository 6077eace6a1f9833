import { createRandom, gaussian } from '../../demo/random'
import type { StartLesson } from './starts'
import { adam, BLUR, DECAY, shuffle, spreadOf, unfolded } from './train-net'
import type { TrainedNet } from './train-net'

const UNITS = 16
const ROUNDS = 25
const BATCH = 64
const STEP = 0.004

/** Learns which place of each strike it begins at, by the cross entropy of the places' shares, as `trainNet` does of single rows. */
export function trainPlaces(lessons: readonly StartLesson[], width: number, seed: number): TrainedNet {
  const random = createRandom(seed)
  const { means, spreads } = spreadOf(lessons.map(({ signs }) => signs), width) // prettier-ignore
  const normal = lessons.map(({ signs }) => signs.map((sign, i) => (sign - means[i % width]!) / spreads[i % width]!))
  const inner = Float64Array.from({ length: UNITS * (width + 1) }, (_, i) => (i % (width + 1) === width ? 0 : gaussian(random) / Math.sqrt(width)))
  const outer = Float64Array.from({ length: UNITS + 1 }, (_, i) => (i === UNITS ? 0 : gaussian(random) / Math.sqrt(UNITS)))
  const [stepInner, stepOuter] = [adam(inner), adam(outer)]
  const slopes = { inner: new Float64Array(inner.length), outer: new Float64Array(outer.length) }
  const order = Uint32Array.from({ length: lessons.length }, (_, i) => i)
  for (let round = 0; round < ROUNDS; round++) {
    shuffle(order, random)
    const size = STEP * 0.5 * (1 + Math.cos((Math.PI * round) / ROUNDS)) + 1e-5
    for (let from = 0; from < order.length; from += BATCH) {
      const batch = order.subarray(from, from + BATCH)
      inner.forEach((weight, i) => (slopes.inner[i] = i % (width + 1) === width ? 0 : DECAY * weight))
      slopes.outer.fill(0)
      for (const which of batch) addSlopes(normal[which]!.map((sign) => sign + BLUR * gaussian(random)), lessons[which]!.counts, { inner, outer }, slopes, 1 / batch.length) // prettier-ignore
      stepInner(slopes.inner, size)
      stepOuter(slopes.outer, size)
    }
  }
  return { units: UNITS, inner: unfolded(inner, means, spreads), outer }
} // prettier-ignore

interface Weights {
  readonly inner: Float64Array
  readonly outer: Float64Array
}

function addSlopes(signs: Float32Array, counts: Float32Array, { inner, outer }: Weights, slopes: Weights, share: number): void {
  const places = counts.length
  const width = signs.length / places
  const hidden = new Float64Array(places * UNITS)
  const odds = new Float64Array(places)
  for (let place = 0; place < places; place++)
    for (let unit = 0; unit < UNITS; unit++) {
      let sum = inner[unit * (width + 1) + width]!
      for (let i = 0; i < width; i++) sum += inner[unit * (width + 1) + i]! * signs[place * width + i]!
      odds[place]! += outer[unit]! * (hidden[place * UNITS + unit] = Math.tanh(sum))
    }
  const most = odds.reduce((a, b) => Math.max(a, b))
  const all = odds.reduce((sum, each) => sum + Math.exp(each - most), 0)
  for (let place = 0; place < places; place++) {
    const slope = (Math.exp(odds[place]! - most) / all - counts[place]!) * share
    for (let unit = 0; unit < UNITS; unit++) {
      const bent = hidden[place * UNITS + unit]!
      slopes.outer[unit]! += slope * bent
      const under = slope * outer[unit]! * (1 - bent * bent)
      for (let i = 0; i < width; i++) slopes.inner[unit * (width + 1) + i]! += under * signs[place * width + i]!
      slopes.inner[unit * (width + 1) + width]! += under
    }
  }
}
