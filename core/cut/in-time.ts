import { strikesOver } from './gestures'
import type { Strike, Strikes } from './gestures'
import { MIN_GAP_SECONDS } from './onsets'
import { pulseOf, secondsOfPlace } from './pulse'
import type { Pulse } from './pulse'
import { likelier } from './strikes'

/** Hands stray by no less and no more than so much about the pulse, s; and so many of their strikes belong to no place of it. */
const STRAY_SECONDS = [0.018, 0.04] as const
const OUTSIDE = 0.1
/** What the pulse alone says of a rise, as log odds. */
const MOST_ON = 1.2
const MOST_OFF = -2.5
/** How much what other bars have on the same place weighs, and how much it says at most, as log odds. */
const AGAIN = 0.8
const MOST_AGAIN = 2
/** The pulse is told by what is surely struck: chances count by this power. */
const SURER = 3

/**
 * The strikes of someone who plays in time: what rises on a place of the pulse, and where other bars have a strike too, is likelier a
 * strike; what rises between, as echoes and rattles do, less. The pulse is that of the strikes which are likely without it, and is
 * followed where hands drift. Where none gathers them, they are as they were.
 */
export function inTime(found: Strikes, sampleRateHz: number): Strikes {
  const secondsOf = ({ hop }: Pick<Strike, 'hop'>) => (hop * found.hopFrames) / sampleRateHz
  const sure = strikesOver(found, found.line, MIN_GAP_SECONDS * sampleRateHz)
  const pulse = pulseOf(sure.map((strike) => ({ seconds: secondsOf(strike), strength: chanceOf(strike.odds) ** SURER })))
  if (!pulse) return found
  const drift = driftOf(sure.map((strike) => ({ seconds: secondsOf(strike), weight: chanceOf(strike.odds) })), pulse) // prettier-ignore
  const falls = found.strikes.map((strike) => fallOf(pulse, secondsOf(strike), drift))
  const stray = strayOf(sure.map((strike) => fallOf(pulse, secondsOf(strike), drift).offSeconds))
  const onPulse = falls.map(({ offSeconds }) => between(MOST_OFF, MOST_ON, surprise(offSeconds, stray, pulse.pairSeconds / 2)))
  const chances = found.strikes.map(({ odds }, i) => chanceOf(odds + onPulse[i]!))
  const places = falls.map(({ place }) => place)
  const again = againOf(places, chances)
  return likelier(
    found,
    sampleRateHz,
    onPulse.map((by, i) => by + AGAIN * between(-MOST_AGAIN, MOST_AGAIN, again[i]!)),
  )
}

const chanceOf = (odds: number) => 1 / (1 + Math.exp(-odds))
const between = (least: number, most: number, value: number) => Math.max(least, Math.min(most, value))

/** By how much these hands stray, s: from the middle one of what their strikes miss, as of a normal distribution. */
function strayOf(offs: readonly number[]): number {
  const sorted = offs.map(Math.abs).sort((a, b) => a - b)
  return between(STRAY_SECONDS[0], STRAY_SECONDS[1], 1.483 * sorted[sorted.length >> 1]!)
}

/** How much likelier than by chance hands that stray so much strike so far off a place, where places are so far apart; natural logarithm. */
function surprise(offSeconds: number, stray: number, apartSeconds: number): number {
  const bell = Math.exp(-0.5 * (offSeconds / stray) ** 2) / (stray * Math.sqrt(2 * Math.PI))
  return Math.log((1 - OUTSIDE) * bell * apartSeconds + OUTSIDE)
}

interface Fall {
  /** Which place of the pulse is nearest, and by how much it is missed. */
  readonly place: number
  readonly offSeconds: number
}

function fallOf(pulse: Pulse, seconds: number, drift: (seconds: number) => number): Fall {
  const at = seconds - drift(seconds)
  const first = 2 * Math.floor((at - pulse.firstSeconds) / pulse.pairSeconds)
  const near = [first - 1, first, first + 1, first + 2].map((place) => ({ place, offSeconds: at - secondsOfPlace(pulse, place) }))
  return near.reduce((best, one) => (Math.abs(one.offSeconds) < Math.abs(best.offSeconds) ? one : best))
}

/** Hands drift over seconds; what strays further than this drifts with nobody. */
const DRIFT_SECONDS = 2
const FOLLOWED_SECONDS = 0.05
const STILL_WEIGHT = 0.6

interface Late {
  readonly seconds: number
  readonly weight: number
  /** How much later than its place on an even pulse, s. */
  readonly late: number
}

/** How late the pulse is at a time, by the strikes about it, each by its weight; without those that stray far from the others. */
function driftOf(strikes: readonly Omit<Late, 'late'>[], pulse: Pulse): (seconds: number) => number {
  const rows = strikes.map((strike, i) => ({ ...strike, late: strike.seconds - secondsOfPlace(pulse, pulse.places[i]!) }))
  const roughly = smoothed(rows)
  return smoothed(rows.filter(({ seconds, late }) => Math.abs(late - roughly(seconds)) < FOLLOWED_SECONDS))
}

function smoothed(rows: readonly Late[]): (seconds: number) => number {
  let first = 0
  return (seconds) => {
    while (first > 0 && rows[first - 1]!.seconds > seconds - 3 * DRIFT_SECONDS) first--
    while (first < rows.length && rows[first]!.seconds < seconds - 3 * DRIFT_SECONDS) first++
    let [sum, all] = [0, STILL_WEIGHT]
    for (let i = first; i < rows.length && rows[i]!.seconds < seconds + 3 * DRIFT_SECONDS; i++) {
      const share = rows[i]!.weight * Math.exp(-0.5 * ((rows[i]!.seconds - seconds) / DRIFT_SECONDS) ** 2)
      sum += share * rows[i]!.late
      all += share
    }
    return sum / all
  }
}

/** Places that a bar, or a part of it that comes again, may have; and how alike bars have to be that it counts. */
const BARS = [4, 6, 8, 12, 16, 24, 32]
const LEAST_BARS = 2.5
const LEAST_ALIKE = 0.15
const CLEARER = 0.02
/** So many bars in which the place is struck as often as any are taken for granted. */
const UNKNOWN_BARS = 2

/** How much more often than any place each one's own is struck in the other bars, as log odds; 0 where nothing comes again. */
function againOf(places: readonly number[], chances: readonly number[]): number[] {
  const [first, last] = places.reduce(([least, most], place) => [Math.min(least, place), Math.max(most, place)], [Infinity, -Infinity])
  const row = new Float64Array(last - first + 1)
  places.forEach((place, i) => (row[place - first] = Math.max(row[place - first]!, chances[i]!)))
  const usual = row.reduce((sum, chance) => sum + chance, 0) / row.length
  const bar = barOf(row, usual)
  if (bar === undefined || usual <= 0 || usual >= 1) return places.map(() => 0)
  const sums = new Float64Array(bar)
  const counts = new Float64Array(bar)
  row.forEach((chance, i) => {
    sums[i % bar] += chance
    counts[i % bar]++
  })
  const oddsOf = (share: number) => Math.log(share / (1 - share))
  return places.map((place) => {
    const i = place - first
    const share = (sums[i % bar]! - row[i]! + UNKNOWN_BARS * usual) / (counts[i % bar]! - 1 + UNKNOWN_BARS)
    return oddsOf(between(0.001, 0.999, share)) - oddsOf(usual)
  })
}

/** After how many places the strikes come again, by how they go with themselves (autocorrelation); the shortest of those about as good. */
function barOf(row: Float64Array, usual: number): number | undefined {
  const spread = row.reduce((sum, chance) => sum + (chance - usual) ** 2, 0) / row.length
  let best = { bar: 0, alike: -Infinity }
  for (const bar of BARS) {
    if (row.length < LEAST_BARS * bar || spread === 0) continue
    let sum = 0
    for (let i = bar; i < row.length; i++) sum += (row[i]! - usual) * (row[i - bar]! - usual)
    const alike = sum / (row.length - bar) / spread
    if (alike > best.alike + CLEARER) best = { bar, alike }
  }
  return best.alike > LEAST_ALIKE ? best.bar : undefined
}
