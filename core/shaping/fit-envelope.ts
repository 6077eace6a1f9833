import { bendToK, bent } from '../engine'
import type { EnvelopePoint } from '../kit'

/** A curve that an envelope is laid along: values at times that run forward, s. */
export interface Measured {
  readonly seconds: ArrayLike<number>
  readonly values: ArrayLike<number>
  /** How wrong a value is at a place of the curve; 1 is just good enough. */
  readonly wrong: (value: number, place: number) => number
}

interface Way {
  readonly from: number
  readonly to: number
  readonly bend: number
  /** Where it is furthest off, and by how much. */
  readonly worst: number
  readonly wrong: number
}

const BENDS = Array.from({ length: 41 }, (_, i) => (i - 20) / 20)

/** The bent way between two places of a curve that is least wrong where it is most wrong. */
function wayBetween({ seconds, values, wrong }: Measured, from: number, to: number): Way {
  let best: Way = { from, to, bend: 0, worst: from, wrong: Infinity }
  const span = seconds[to]! - seconds[from]!
  for (const bend of BENDS) {
    const k = bendToK(bend)
    let worst = from
    let most = 0
    for (let i = from + 1; i < to && most < best.wrong; i++) {
      const off = wrong(bent(values[from]!, values[to]!, (seconds[i]! - seconds[from]!) / span, k), i)
      if (off > most) [most, worst] = [off, i]
    }
    if (most < best.wrong) best = { from, to, bend, worst, wrong: most }
  }
  return best
}

/** Points of an envelope along a curve, each way bent: as few as are good enough, at most `most`. */
export function fitEnvelope(measured: Measured, most: number): EnvelopePoint[] {
  const ways = [wayBetween(measured, 0, measured.seconds.length - 1)]
  while (ways.length + 1 < most) {
    const at = ways.reduce((worst, way, i) => (way.wrong > ways[worst]!.wrong ? i : worst), 0)
    const { from, to, worst, wrong } = ways[at]!
    if (wrong <= 1 || worst === from) break
    ways.splice(at, 1, wayBetween(measured, from, worst), wayBetween(measured, worst, to))
  }
  const point = (place: number, bend: number) => ({ seconds: measured.seconds[place]!, value: measured.values[place]!, bend })
  return [point(0, 0), ...ways.map(({ to, bend }) => point(to, bend))]
}
