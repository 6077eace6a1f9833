import { magnitudes } from '../cut/spectrum'
import { BANDS, bandsFor, energiesIn, LEAST_OWN, LEVEL_SHARE, portraitFromSums, sumsOf, WEIGHTS } from './portrait'
import type { Portrait } from './portrait'

/** What a hit is like that was struck amid others. */
export interface HitPortrait {
  readonly portrait: Portrait
  /** How far each number of it is the hit's own, 0..1: less where what was struck before rings in it, nothing where the next strike cut it off. */
  readonly trust: Float32Array
}

/** What rings before a strike is listened to until so long before it: strikes are placed a little late. */
const GUARD_SECONDS = 0.002
/** Windows before the strike, half a window apart; how fast a band falls from one to the next at most. */
const WINDOWS = 3
const FASTEST_FALL = 0.5
/** Energies waver: so many times what is left is taken off. */
const TAKEN_OFF = 2
/** What rings over a hit hides it, but not wholly. */
const LEAST_TRUST = 0.15
/** A hit whose end lies so near before the next strike, s, was cut off by it. */
const CUT_OFF_SECONDS = 0.031

/** The portraits of hits of one recording; places in frames. Each without what was struck before it, and without what the next one took away. */
export function hitPortraitsOf(
  mono: Float32Array,
  sampleRateHz: number,
  hits: readonly { readonly onsetFrame: number; readonly endFrame: number }[],
): HitPortrait[] {
  const onsets = hits.map(({ onsetFrame }) => onsetFrame).sort((a, b) => a - b)
  return hits.map(({ onsetFrame, endFrame }) => {
    const next = onsets[firstAfter(onsets, onsetFrame)]
    const isCutOff = next !== undefined && endFrame > next - CUT_OFF_SECONDS * sampleRateHz
    const sums = sumsOf(mono, sampleRateHz, onsetFrame, endFrame, ringingBefore(mono, sampleRateHz, onsetFrame))
    const trust = Float32Array.from(sums.all, (all, i) => {
      if (isCutOff && sums.counts[Math.floor(i / BANDS)] === 0) return 0
      return all > 0 ? Math.max(LEAST_TRUST, (sums.own[i] / all - LEAST_OWN) / (1 - LEAST_OWN)) : 1
    })
    return { portrait: portraitFromSums(sums), trust }
  })
}

function firstAfter(sorted: readonly number[], value: number): number {
  let [low, high] = [0, sorted.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (sorted[middle] > value) high = middle
    else low = middle + 1
  }
  return low
}

/** What is left in each band of what rang before a strike, so long after it, should it go on to fall as it fell. */
function ringingBefore(mono: Float32Array, sampleRateHz: number, onsetFrame: number): (band: number, seconds: number) => number {
  const { size, edges } = bandsFor(sampleRateHz)
  const hop = size / 2
  const guard = Math.round(GUARD_SECONDS * sampleRateHz)
  const before = Array.from({ length: WINDOWS }, (_, window) => {
    const from = onsetFrame - guard - size - window * hop
    return from < 0 ? new Array<number>(BANDS).fill(0) : energiesIn(magnitudes(mono.subarray(from, from + size), 0, size), edges)
  })
  const [last, first] = [before[0], before[WINDOWS - 1]]
  const falls = last.map((energy, band) => {
    const perHop = ((energy + TINY) / (first[band] + TINY)) ** (1 / (WINDOWS - 1))
    return Math.min(1, Math.max(FASTEST_FALL, perHop))
  })
  return (band, seconds) => TAKEN_OFF * last[band] * falls[band] ** ((seconds * sampleRateHz + guard + size) / hop)
}
const TINY = 1e-15

/** How unlike two hits are, as `unlikeness` of what both show; a stretch that neither shows counts as little as it shows. */
export function hitUnlikeness(a: HitPortrait, b: HitPortrait): number {
  let [total, weights] = [0, 0]
  for (let stretch = 0; stretch < WEIGHTS.length; stretch++) {
    const [from, to] = [stretch * BANDS, (stretch + 1) * BANDS]
    let [mean, shown] = [0, 0]
    for (let i = from; i < to; i++) {
      const trust = a.trust[i] * b.trust[i]
      mean += trust * (a.portrait[i] - b.portrait[i])
      shown += trust
    }
    if (shown < 1e-9) continue
    mean *= LEVEL_SHARE / shown
    let sum = 0
    for (let i = from; i < to; i++) sum += a.trust[i] * b.trust[i] * Math.abs(a.portrait[i] - b.portrait[i] - mean)
    const weight = WEIGHTS[stretch] * Math.min(1, (ENOUGH_SHOWN * shown) / BANDS)
    total += (weight * sum) / shown
    weights += weight
  }
  return weights > 0 ? total / weights : 0
}
/** Half of a stretch says as much as all of it. */
const ENOUGH_SHOWN = 2
