import type { BandEnergy } from './bands'
import { spectralFlux } from './flux'
import { standing } from './gestures'
import type { Strike, Strikes } from './gestures'
import { pickPeaks } from './onsets'
import { strikeOdds } from './strike-odds'
import type { Sound } from './strike-signs'
import { noiseFloor, ROOM_SHARE } from './strength'
import type { Listening } from './strength'

/** Strikes weaker than this are none, and of two closer than this the stronger counts. */
const LEAST_STRENGTH = 0.15
const APART_SECONDS = 0.015

/** The strikes of a recording that was listened to, and the line that it divides at. */
export function strikesOf(mono: Float32Array, sampleRateHz: number, listening: Listening): Strikes {
  const { hopFrames } = listening.curve
  const sounds = risesOf(listening, sampleRateHz)
  const odds = strikeOdds(sounds, spectralFlux(mono, sampleRateHz))
  const strikes = sounds.map(({ hop, strength }, i) => ({ hop, strength, odds: odds[i], beginHop: beginOf(sounds, odds, i) }))
  return withHeights(strikes, hopFrames, sampleRateHz)
}

/** The same strikes, each likelier one of its own by so much, as log odds; and the line that they divide at then. */
export function likelier({ strikes, hopFrames }: Strikes, sampleRateHz: number, by: readonly number[]): Strikes {
  const changed = strikes.map((strike, i) => ({ ...strike, odds: strike.odds + by[i] }))
  return withHeights(changed, hopFrames, sampleRateHz)
}

function withHeights(given: readonly Omit<Strike, 'height'>[], hopFrames: number, sampleRateHz: number): Strikes {
  const strikes = given.map((strike) => ({ ...strike, height: heightOf(strike.strength, strike.odds) }))
  return { hopFrames, strikes, line: likelyLine(strikes, sampleRateHz / hopFrames) }
}

/** All rises of a recording that may be strikes. */
export function risesOf({ curve, bands }: Listening, sampleRateHz: number): Sound[] {
  const peaks = pickPeaks(curve, LEAST_STRENGTH, APART_SECONDS * sampleRateHz)
  return soundsAt(peaks, bands, sampleRateHz / curve.hopFrames)
}

/** Where the height of a rise stands that is as likely a strike as not, and how much each step of the odds (e times) adds. */
const EVEN_HEIGHT = 0.3
const HEIGHT_PER_STEP = 0.08

/** As high as it is likely a strike, and at most as high as the sound rises suddenly. */
function heightOf(strength: number, odds: number): number {
  return Math.min(strength, above0(EVEN_HEIGHT + HEIGHT_PER_STEP * odds))
}

const LOUDEST_SECONDS = 0.03
const BEFORE_SECONDS = 0.012
const LOOK_HOPS = 4

function soundsAt(peaks: readonly { hop: number; strength: number }[], bands: readonly BandEnergy[], hopsPerSecond: number): Sound[] {
  const rooms = bands.map((band) => toDb(noiseFloor(band) * ROOM_SHARE))
  const after = Math.round(LOUDEST_SECONDS * hopsPerSecond)
  const before = Math.round(BEFORE_SECONDS * hopsPerSecond)
  return peaks.map(({ hop, strength }) => {
    const levels = bands.map((band, i) => toDb(loudest(band, hop, after)) - rooms[i])
    const loudness = levels.reduce((sum, level) => sum + Math.max(0, level), 0) / Math.max(1, bands.length)
    return { hop, seconds: hop / hopsPerSecond, strength, levels, loudness, before: bands.map((band, i) => toDb(meanOf(band, hop - 2 - before, hop - 2)) - rooms[i]) }
  }) // prettier-ignore
}

function loudest(band: BandEnergy, from: number, count: number): number {
  let most = 0
  for (let hop = Math.max(0, from); hop < Math.min(band.length - LOOK_HOPS, from + count); hop++)
    most = Math.max(most, meanOf(band, hop, hop + LOOK_HOPS))
  return most
}

function meanOf(band: BandEnergy, from: number, to: number): number {
  let sum = 0
  const first = Math.max(0, from)
  for (let hop = first; hop < to; hop++) sum += band[hop]
  return to > first ? sum / (to - first) : 0
}

const toDb = (energy: number) => 10 * Math.log10(energy + 1e-12)

const BENT_BELOW = 0.15
const BEND_RANGE = 0.3

/** Bends what lies low so that all of it stays above 0, in its order: a line at the very bottom shows everything. */
function above0(height: number): number {
  return height >= BENT_BELOW ? height : BENT_BELOW * Math.exp((height - BENT_BELOW) / BEND_RANGE)
}

/** Rises this close are of one gesture: the higher one stands for it. */
const GAP_SECONDS = 0.06

/**
 * The line over which the F-measure is likely to be best, from how likely each rise is a strike: with the k highest over
 * it, twice those that are expected to be right among them over k and all that are expected (the plug-in rule of
 * D. D. Lewis, "Evaluating and optimizing autonomous text classification systems", SIGIR 1995). Where many lines are about as
 * good, it is the wide gap between heights that divides. It lies in the middle of the gap below the k highest.
 */
function likelyLine(strikes: readonly Strike[], hopsPerSecond: number): number {
  const sounds = strikes.map(({ hop }) => ({ seconds: hop / hopsPerSecond }))
  const heights = strikes.map(({ height }) => height)
  const order = standing(sounds, heights, GAP_SECONDS).sort((a, b) => heights[b] - heights[a])
  const chances = order.map((i) => 1 / (1 + Math.exp(-strikes[i].odds)))
  const all = chances.reduce((sum, chance) => sum + chance, 0)
  let right = 0
  let best = { worth: 0, line: USUAL_LINE }
  chances.forEach((chance, k) => {
    right += chance
    const [top, below] = [heights[order[k]], k + 1 < order.length ? heights[order[k + 1]] : Math.min(LOWEST, heights[order[k]])]
    const likely = (2 * right) / (k + 1 + all)
    const worth = likely + GAP_WORTH * (top - below)
    if (likely >= LEAST_LIKELY && worth > best.worth) best = { worth, line: (top + below) / 2 }
  })
  return best.line
}

const GAP_WORTH = 0.5
const LOWEST = 0.05
/** Where nothing is likely a strike, nothing is found by a line far down. */
const LEAST_LIKELY = 0.3
const USUAL_LINE = 0.3

const FLAM_SECONDS = 0.06
const FLAM_DB = 8
const FLAM_STRENGTH = 0.3
/** A first stroke is a strike of its own, and no grain of the one before: not much less likely one than not. */
const FLAM_ODDS = -1.5

/** The first of those just before a strike that are strikes too and nearly as loud: a flam begins with its first stroke. */
function beginOf(sounds: readonly Sound[], odds: readonly number[], at: number): number {
  let begin = at
  for (let i = at - 1; i >= 0 && sounds[at].seconds - sounds[i].seconds <= FLAM_SECONDS; i--)
    if (sounds[i].strength >= FLAM_STRENGTH && odds[i] >= FLAM_ODDS && sounds[i].loudness >= sounds[at].loudness - FLAM_DB) begin = i
  return sounds[begin].hop
}
