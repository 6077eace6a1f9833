import { beginIn, edgeNear } from './edge'
import { oddsOf } from './net'
import type { Net } from './net'
import { afterEdgeMs, START_PLACES, START_SIGNS, startSigns } from './start-signs'
import { learned } from './start-weights'

/** Places this near to each other count as one, ms. */
const NEAR_MS = 2.5
const NEAR_PLACES = Math.round(NEAR_MS / (afterEdgeMs(1) - afterEdgeMs(0)))
const EDGE = (START_PLACES - 1) / 2
/** An edge is left only for what is so many times as likely. */
const SURER = 3

/**
 * The first frame of the strike near a peak of the curve: the edge that stands out there, or, where a small net finds it
 * likelier, a place before or after it, as where something soft leads to it or another rings over it. Told from
 * `startSigns`; bench/learn-starts.ts made the weights from recordings whose strikes are known.
 */
export function startNear(mono: Float32Array, sampleRateHz: number, near: number, net: Net = learned): number {
  const edge = edgeNear(mono, sampleRateHz, near)
  const chances = startChances(mono, sampleRateHz, edge, net)
  const place = likeliest(chances)
  const offMs = afterEdgeMs(place)
  if (Math.abs(offMs) <= NEAR_MS || chanceAbout(chances, place) < SURER * chanceAbout(chances, EDGE)) return edge
  const ms = sampleRateHz / 1000
  return beginIn(mono, Math.round(edge + (offMs - NEAR_MS) * ms), Math.round(edge + (offMs + NEAR_MS) * ms), ms)
}

/** How likely the strike begins at each of `START_PLACES` about an edge; together 1. */
export function startChances(mono: Float32Array, sampleRateHz: number, edge: number, net: Net = learned): Float64Array {
  const signs = startSigns(mono, sampleRateHz, edge)
  const odds = Float64Array.from({ length: START_PLACES }, (_, place) => oddsOf(net, signs, place * START_SIGNS, START_SIGNS))
  const most = odds.reduce((a, b) => Math.max(a, b))
  const shares = odds.map((each) => Math.exp(each - most))
  const all = shares.reduce((sum, share) => sum + share, 0)
  return shares.map((share) => share / all)
}

/** The place about which the chances are highest. */
function likeliest(chances: Float64Array): number {
  let best = 0
  for (let place = 1; place < chances.length; place++) if (chanceAbout(chances, place) > chanceAbout(chances, best)) best = place
  return best
}

function chanceAbout(chances: Float64Array, place: number): number {
  let sum = 0
  for (let near = Math.max(0, place - NEAR_PLACES); near <= Math.min(chances.length - 1, place + NEAR_PLACES); near++) sum += chances[near]
  return sum
}
