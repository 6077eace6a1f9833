import { excitationsOf, filterHz, FILTERS, quietDb } from './excitation'

/** One sound that hides another: in which range, Hz, by how many dB, and how much of what is heard of it is hidden, 0..1. */
export interface Hiding {
  /** Places in the list of sounds. */
  readonly by: number
  readonly whom: number
  readonly fromHz: number
  readonly toHz: number
  readonly byDb: number
  readonly share: number
}

/** How far above (or below) another excitation one has to be to be heard beside it, dB (B. C. J. Moore, B. R. Glasberg, T. Baer, "A model for the prediction of thresholds, loudness, and partial loudness", JAES 1997, figure 9). */
const HEARD_FROM: readonly (readonly [hz: number, db: number])[] = [[50, 13], [100, 7], [200, 2], [500, -2], [1000, -3]] // prettier-ignore

/** The level against another excitation from which a tone at a frequency in Hz is heard, dB. */
export function heardFromDb(hz: number): number {
  const after = HEARD_FROM.findIndex(([at]) => at >= hz)
  if (after < 0) return HEARD_FROM[HEARD_FROM.length - 1][1]
  if (after === 0) return HEARD_FROM[0][1]
  const [low, high] = [HEARD_FROM[after - 1], HEARD_FROM[after]]
  return low[1] + ((high[1] - low[1]) * Math.log2(hz / low[0])) / Math.log2(high[0] / low[0])
}

const heardFrom = filterHz.map(heardFromDb)
const quiet = filterHz.map(quietDb)
/** What is so far below a sound's own highest is no part of what it is known by, dB. */
const OWN_RANGE_DB = 30
/** Less hidden than this is not worth a word: a share of what is heard, and dB. */
const LEAST_SHARE = 0.12
const LEAST_DB = 3
const MOST_DB = 40

/**
 * Who hides whom among sounds that play together (one channel each, 48 kHz, of one length): the worst first. A sound is
 * hidden where another's excitation leaves it unheard while it sounds itself.
 */
export function hidesAmong(sounds: readonly Float32Array[]): Hiding[] {
  const patterns = sounds.map(excitationsOf)
  const found: Hiding[] = []
  for (let by = 0; by < sounds.length; by++)
    for (let whom = 0; whom < sounds.length; whom++) {
      const one = by === whom ? undefined : hidingOf(patterns[by], patterns[whom])
      if (one) found.push({ by, whom, ...one })
    }
  return found.sort((a, b) => b.share * b.byDb - a.share * a.byDb)
}

function hidingOf(by: readonly Float64Array[], whom: readonly Float64Array[]): Omit<Hiding, 'by' | 'whom'> | undefined {
  const highest = whom.reduce((most, pattern) => pattern.reduce((top, db) => Math.max(top, db), most), -Infinity)
  const own = new Float64Array(FILTERS)
  const hidden = new Float64Array(FILTERS)
  const under = new Float64Array(FILTERS)
  let all = 0
  for (let frame = 0; frame < whom.length; frame++)
    for (let filter = 0; filter < FILTERS; filter++) {
      const db = whom[frame][filter]
      if (db < quiet[filter] || db < highest - OWN_RANGE_DB) continue
      const weight = db - (highest - OWN_RANGE_DB)
      own[filter] += weight
      all += weight
      const below = by[frame][filter] + heardFrom[filter] - db
      if (below <= 0) continue
      hidden[filter] += weight
      under[filter] += weight * Math.min(MOST_DB, below)
    }
  if (all === 0) return undefined
  return worstRange(own, hidden, under, all)
}

/** The stretch of neighbouring filters in which most is hidden: each of them hides more than half of what is there. */
function worstRange(own: Float64Array, hidden: Float64Array, under: Float64Array, all: number): Omit<Hiding, 'by' | 'whom'> | undefined {
  let best: { from: number; to: number; sum: number } | undefined
  for (let from = 0; from < FILTERS; from++) {
    if (!(hidden[from] > 0.5 * own[from])) continue
    let [to, sum] = [from, 0]
    for (; to < FILTERS && hidden[to] > 0.5 * own[to]; to++) sum += hidden[to]
    if (!best || sum > best.sum) best = { from, to: to - 1, sum }
    from = to
  }
  if (!best) return undefined
  let depth = 0
  for (let filter = best.from; filter <= best.to; filter++) depth += under[filter]
  const [share, byDb] = [best.sum / all, depth / best.sum]
  if (share < LEAST_SHARE || byDb < LEAST_DB) return undefined
  return { fromHz: filterHz[best.from], toHz: filterHz[best.to], byDb, share }
}
