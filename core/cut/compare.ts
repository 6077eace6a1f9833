import type { HitDescription } from './describe'

const LOOK_SECONDS = 0.04
const LOOK_RATE_HZ = 6000
const ALIKE = 0.998
const ALIKE_DB = 1.5

/** Which hits are nearly the same sound as another, by the shape of their first 40 ms. Frames are onsets in `mono`. */
export function alikeHits(
  mono: Float32Array,
  sampleRateHz: number,
  hits: readonly (HitDescription & { readonly onsetFrame: number })[],
): Set<number> {
  const step = Math.max(1, Math.round(sampleRateHz / LOOK_RATE_HZ))
  const length = Math.round(LOOK_SECONDS * LOOK_RATE_HZ)
  const shapes = hits.map((hit) => shapeOf(mono, hit.onsetFrame, step, length))
  const order = hits.map((_, i) => i).sort((a, b) => hits[a].loudnessDb - hits[b].loudnessDb)
  const alike = new Set<number>()
  for (let i = 0; i < order.length; i++)
    for (let j = i + 1; j < order.length && hits[order[j]].loudnessDb - hits[order[i]].loudnessDb < ALIKE_DB; j++) {
      if (alike.has(order[i]) && alike.has(order[j])) continue
      if (dot(shapes[order[i]], shapes[order[j]]) > ALIKE) alike.add(order[i]).add(order[j])
    }
  return alike
}

/** Means of `step` samples, of unit length as a vector. */
function shapeOf(mono: Float32Array, from: number, step: number, length: number): Float32Array {
  const shape = new Float32Array(length)
  let power = 0
  for (let i = 0; i < length; i++) {
    for (let j = 0; j < step; j++) shape[i] += mono[from + i * step + j] ?? 0
    power += shape[i] * shape[i]
  }
  const scale = power > 0 ? 1 / Math.sqrt(power) : 0
  return shape.map((value) => value * scale)
}

function dot(a: Float32Array, b: Float32Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i]
  return sum
}

const FEWEST_TAKES = 4
const ODD_DEVIATIONS = 5
/** Octaves by which takes of one thing differ anyway. */
const LEAST_SPREAD = 0.12

/**
 * The odd ones out among takes of one thing: those whose brightness, length or pitch lies far from what the others share,
 * by median and median deviation. Level is no oddity: takes differ in strength on purpose.
 */
export function oddHits(hits: readonly HitDescription[]): Set<number> {
  if (hits.length < FEWEST_TAKES) return new Set()
  const features: ((hit: HitDescription) => number | undefined)[] = [
    (hit) => Math.log2(Math.max(20, hit.centreHz)),
    (hit) => Math.log2(Math.max(0.005, hit.seconds)),
    (hit) => hit.pitch && Math.log2(hit.pitch.hz),
  ]
  const odd = new Set<number>()
  for (const feature of features) {
    const values = hits.map(feature)
    const known = values.filter((value): value is number => value !== undefined)
    if (known.length < FEWEST_TAKES || known.length < 0.75 * hits.length) continue
    const middle = median(known)
    const spread = Math.max(LEAST_SPREAD, 1.4826 * median(known.map((value) => Math.abs(value - middle))))
    values.forEach((value, i) => value !== undefined && Math.abs(value - middle) > ODD_DEVIATIONS * spread && odd.add(i))
  }
  return odd
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[sorted.length >> 1]
}
