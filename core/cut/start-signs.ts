import { surprises } from './predict'

/** Places that a strike may begin at, about the edge that was found: so far on either side, so close to each other, ms. */
const AROUND_MS = 26
const STEP_MS = 0.5
export const START_PLACES = (2 * AROUND_MS) / STEP_MS + 1
/** How far a place lies after the edge, ms. */
export const afterEdgeMs = (place: number): number => place * STEP_MS - AROUND_MS

/** It is looked at as coarsely as this at least, whatever the rate: what is higher helps little. */
const COARSE_HZ = 22_000
/** So much is heard before the first place and after the last, ms. */
const HEARD_BEFORE_MS = 44
const HEARD_AFTER_MS = 24
/** What could be foretold is learned from so much before the first place, ms, with so many samples. */
const FORETOLD_BY_MS = [22, 1] as const
const FORETOLD_FROM = 16
/** What comes after a place is compared with what is before it, ms and ms. */
const WINDOWS_MS = [
  [1, 3],
  [2, 8],
  [5, 10],
  [10, 20],
  [3, 40],
] as const
const PEAK_MS = 2
const QUIET_MS = 5
const VIEWS = 3
const SIGNS_OF_VIEW = WINDOWS_MS.length + 2
const SIGNS_OF_PLACE = 4
export const START_SIGNS = VIEWS * SIGNS_OF_VIEW + SIGNS_OF_PLACE

/**
 * What is told of each place about the edge of a strike, `START_SIGNS` numbers for each of `START_PLACES`: by how much the
 * sound rises there within several windows and how it stands to its loudest, seen as it is, in its slopes (which see what
 * is bright) and in what of it could not be foretold (which does not see what rings from before), all as base-10 logarithms
 * of energies; and how far it lies from the edge. Neither the gain of a recording nor its sample rate is told.
 */
export function startSigns(mono: Float32Array, sampleRateHz: number, edge: number): Float32Array {
  const factor = Math.max(1, Math.floor(sampleRateHz / COARSE_HZ))
  const ms = sampleRateHz / factor / 1000
  const from = Math.round(edge - (AROUND_MS + HEARD_BEFORE_MS) * ms * factor)
  const heard = new Float32Array(Math.round((2 * AROUND_MS + HEARD_BEFORE_MS + HEARD_AFTER_MS) * ms))
  const first = Math.max(0, Math.ceil(-from / factor))
  const last = Math.min(heard.length, Math.floor((mono.length - from) / factor))
  for (let i = first; i < last; i++) heard[i] = meanOf(mono, from + i * factor, factor)
  const signs = new Float32Array(START_PLACES * START_SIGNS)
  for (const [i, view] of viewsOf(heard, ms).entries()) addView(signs, i * SIGNS_OF_VIEW, new Energies(view, [first, last], ms))
  for (let place = 0; place < START_PLACES; place++) {
    const off = afterEdgeMs(place) / 10
    signs.set([off, Math.abs(off), Math.max(0, 1 - Math.abs(off) * 10), off < 0 ? 1 : 0], (place + 1) * START_SIGNS - SIGNS_OF_PLACE)
  }
  return signs
}

function meanOf(mono: Float32Array, from: number, count: number): number {
  let sum = 0
  for (let i = from; i < from + count; i++) sum += mono[i]
  return sum / count
}

function viewsOf(heard: Float32Array, ms: number): Float32Array[] {
  const slopes = heard.map((sample, i) => (i > 0 ? sample - heard[i - 1] : 0))
  const [knownFrom, knownTo] = FORETOLD_BY_MS.map((before) => Math.round((HEARD_BEFORE_MS - before) * ms))
  const unforetold = new Float32Array(heard.length)
  unforetold.set(surprises(heard, knownFrom, knownTo, heard.length, FORETOLD_FROM), knownFrom)
  return [heard, slopes, unforetold]
}

function addView(signs: Float32Array, at: number, energies: Energies): void {
  let peak = 0
  for (let place = 0; place < START_PLACES; place += 2) peak = Math.max(peak, energies.after(place, PEAK_MS))
  for (const [i, [after, before]] of WINDOWS_MS.entries())
    for (let place = 0; place < START_PLACES; place++)
      signs[place * START_SIGNS + at + i] = LOG10 * Math.log(energies.after(place, after) / energies.before(place, before))
  for (let place = 0; place < START_PLACES; place++) {
    const row = place * START_SIGNS + at + WINDOWS_MS.length
    signs[row] = LOG10 * Math.log(energies.after(place, 1) / peak)
    signs[row + 1] = LOG10 * Math.log(energies.before(place, 2) / peak)
  }
}

const LOG10 = Math.LOG10E

/** Mean energies of stretches about the places, over the quietest of the view. */
class Energies {
  private readonly sums: Float64Array
  private readonly least: number
  private readonly frames: Int32Array

  constructor(
    view: Float32Array,
    [first, last]: readonly [number, number],
    private readonly ms: number,
  ) {
    this.sums = new Float64Array(view.length + 1)
    for (let i = 0; i < view.length; i++) this.sums[i + 1] = this.sums[i] + view[i] * view[i]
    const width = Math.round(QUIET_MS * ms)
    let quietest = Infinity
    for (let from = first; from + width <= last; from += width) quietest = Math.min(quietest, this.sums[from + width] - this.sums[from])
    this.least = (quietest < Infinity ? quietest / width : 0) + 1e-12
    this.frames = Int32Array.from({ length: START_PLACES }, (_, place) =>
      Math.round((AROUND_MS + HEARD_BEFORE_MS + afterEdgeMs(place)) * ms),
    )
  }

  after(place: number, lengthMs: number): number {
    const length = Math.max(1, Math.round(lengthMs * this.ms))
    const from = this.frames[place]
    return (this.sums[from + length] - this.sums[from]) / length + this.least
  }

  before(place: number, lengthMs: number): number {
    const length = Math.max(1, Math.round(lengthMs * this.ms))
    const to = this.frames[place]
    return (this.sums[to] - this.sums[to - length]) / length + this.least
  }
}
