import { pulseOf } from '../../cut/pulse'
import type { Pulse, TimedStrike } from '../../cut/pulse'

/** A strike of someone who plays a rhythm. */
export interface PlayedHit extends TimedStrike {
  /** Which of the things that are struck it is, from 0. */
  readonly thing: number
  /** Where its sound balances, Hz: low things carry the one. */
  readonly centreHz: number
}

/** How a rhythm goes. */
export interface Pace {
  readonly tempoBpm: number
  /** Where a bar begins, s: at the first strike or before it. */
  readonly firstSeconds: number
  /** The steps of a beat that the strikes ask for, and where the second of a pair stands. */
  readonly stepsPerBeat: number
  readonly swing: number
  readonly beatsPerBar: number
  readonly confidence: number
}

/** People tap and play about this fast: two thirds of all within half an octave (the middle and the spread after L. van Noorden and D. Moelants 1999, drawn closer). */
const MIDDLING_BPM = 104
const SPREAD_OCTAVES = 0.42
const SLOWEST_BPM = 55
const FASTEST_BPM = 215
/** And so many strikes of all things together make a beat, give or take so many octaves. */
const USUAL_A_BEAT = 2.5
const SPREAD_BUSY = 0.7
/** How many places of the pulse make a beat. */
const PLACES_A_BEAT = [1, 2, 3, 4, 6, 8]
const BEATS_A_BAR = 4

/**
 * Tempo, swing and the first beat of a bar of a played rhythm. The pulse that the strikes fall on comes first; how many of its places
 * make a beat is judged by how fast people play, and by whether what is strong and what is low falls on beats rather than between.
 * Undefined where no pulse gathers the strikes.
 */
export function paceOf(hits: readonly PlayedHit[]): Pace | undefined {
  const pulse = pulseOf(hits)
  if (!pulse) return undefined
  const weighed = weighedHits(hits, pulse)
  const [firstPlace, lastPlace] = [Math.min(...pulse.places), Math.max(...pulse.places)]
  let best: (Metre & { readonly score: number }) | undefined
  for (const count of PLACES_A_BEAT) {
    const bpm = 60 / ((count / 2) * pulse.pairSeconds)
    if (bpm < SLOWEST_BPM || bpm > FASTEST_BPM || (pulse.swing !== 0.5 && count % 2 === 1 && count > 1)) continue
    const metre = bestMetre(weighed, count, pulse)
    const busy = hits.length / ((lastPlace - firstPlace + 1) / count)
    const pace = -0.5 * (Math.log2(bpm / MIDDLING_BPM) / SPREAD_OCTAVES) ** 2 - 0.13 * (Math.log2(busy / USUAL_A_BEAT) / SPREAD_BUSY) ** 2
    const score = metre.fits + pace - (count === 3 || count === 6 ? 0.25 : 0)
    if (!best || score > best.score) best = { ...metre, score }
  }
  return best && paceWith(pulse, best)
}

interface Metre {
  readonly count: number
  /** The place of the pulse on which a bar begins. */
  readonly begins: number
  readonly fits: number
}

interface WeighedHit {
  readonly place: number
  /** Among all strikes, and among those of the lowest thing and of the others; each sums to 1. */
  readonly all: number
  readonly low: number
  readonly high: number
}

/** Every thing counts alike by its strikes: many soft ones of a hat do not drown a kick. */
function weighedHits(hits: readonly PlayedHit[], pulse: Pulse): WeighedHit[] {
  const things = new Map<number, { centre: number; count: number; strength: number }>()
  for (const { thing, centreHz, strength } of hits) {
    const held = things.get(thing) ?? { centre: 0, count: 0, strength: 0 }
    things.set(thing, { centre: held.centre + Math.log2(centreHz), count: held.count + 1, strength: held.strength + strength })
  }
  // Of the things that are struck often the lowest one.
  const often = [...things].filter(([, { count }]) => count >= Math.max(2, 0.06 * hits.length))
  const lowest = often.sort(([, a], [, b]) => a.centre / a.count - b.centre / b.count)[0]?.[0] ?? hits[0]!.thing
  const total = hits.reduce((sum, { strength }) => sum + strength, 0)
  const lowTotal = things.get(lowest)!.strength
  // What is struck most is the filling; what is struck less often speaks louder about the beat.
  const others = often.filter(([thing]) => thing !== lowest)
  const rare = new Map(others.map(([thing, { count }]) => [thing, 1 / count]))
  const rareTotal = hits.reduce((sum, { thing }) => sum + (rare.get(thing) ?? 0), 0)
  return hits.map(({ strength, thing }, i) => ({
    place: pulse.places[i]!,
    all: strength / total,
    low: thing === lowest ? strength / lowTotal : 0,
    high: rareTotal > 0 ? (rare.get(thing) ?? 0) / rareTotal : 0,
  }))
}

/** How much what falls on beats, on halves and elsewhere speaks for a beat. */
const ON_BEAT = 1
const ON_HALF = 0.7
const ON_QUARTER = 0.35
/** In a bar of four the low thing carries the first and the third beat, the others the second and the fourth. */
const LOW_IN_BAR = [1, 0.15, 0.65, 0.15]
const HIGH_IN_BAR = [0.2, 0.7, 0.2, 0.7]
const FIRST_STRIKE = 0.5

function bestMetre(hits: readonly WeighedHit[], count: number, pulse: Pulse): Metre {
  const bar = count * BEATS_A_BAR
  const earliest = Math.min(...hits.map(({ place }) => place))
  let best: Metre = { count, begins: 0, fits: -Infinity }
  for (let begins = 0; begins < bar; begins++) {
    if (pulse.swing !== 0.5 && begins % 2 === 1) continue // a beat does not begin on the second of a pair
    let fits = (earliest - begins) % bar === 0 ? FIRST_STRIKE : 0
    for (const { place, all, low, high } of hits) {
      const inBar = (((place - begins) % bar) + bar) % bar
      const [beat, within] = [Math.floor(inBar / count), inBar % count]
      const onGrid = within === 0 ? ON_BEAT : 2 * within === count ? ON_HALF : (4 * within) % count === 0 ? ON_QUARTER : 0
      fits += 0.5 * all * onGrid
      if (within === 0) fits += 0.9 * low * LOW_IN_BAR[beat]! + 0.9 * high * HIGH_IN_BAR[beat]!
    }
    if (fits > best.fits) best = { count, begins, fits }
  }
  return best
}

function paceWith(pulse: Pulse, { count, begins }: Metre): Pace {
  const { pairSeconds, firstSeconds, swing, confidence } = pulse
  const bar = count * BEATS_A_BAR
  const earliest = Math.min(...pulse.places)
  // The bar in which the first strike lies, or the next where that strike only leads into it.
  let from = begins - bar * Math.ceil((begins - earliest) / bar)
  if (earliest - from >= bar - count && earliest - from > bar / 2) from += bar
  const start = firstSeconds + (Math.floor(from / 2) + (from % 2 === 0 ? 0 : swing)) * pairSeconds
  const tempoBpm = Math.round((60 / ((count / 2) * pairSeconds)) * 100) / 100
  const steps = count === 1 ? { stepsPerBeat: 4, swing: 0.5 } : count === 8 ? { stepsPerBeat: 8, swing } : { stepsPerBeat: count, swing }
  return { tempoBpm, firstSeconds: start, ...steps, beatsPerBar: BEATS_A_BAR, confidence }
}

/** On which place of its bar a strike falls, in twelfths of a beat, so that halves, thirds and quarters have places of their own. */
export function placeInBar({ tempoBpm, firstSeconds, beatsPerBar }: Pace, seconds: number): number {
  const places = 12 * beatsPerBar
  const at = Math.round((((seconds - firstSeconds) * tempoBpm) / 60) * 4) * 3
  return ((at % places) + places) % places
}
