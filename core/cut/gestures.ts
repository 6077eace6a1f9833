import type { BandEnergy } from './bands'
import { pickPeaks } from './onsets'
import { noiseFloor, ROOM_SHARE } from './strength'
import type { Listening, StrengthCurve } from './strength'

/**
 * A place where the sound rises. What is struck rarely sounds once: a foot has heel and toe, glass has splinters. So a
 * strike counts by its `height`: its strength, less what it loses because it follows a stronger one and is weaker.
 */
export interface Strike {
  readonly hop: number
  /** Where its gesture begins: at a strike just before that is nearly as loud, as in a flam, or at itself. */
  readonly beginHop: number
  /** How suddenly the sound rises here, 0..1. */
  readonly strength: number
  /** Where the water line would have to stand to hide it, above 0 and at most its strength. */
  readonly height: number
}

/** All strikes of a recording, and where the water line stands by itself. */
export interface Strikes {
  readonly hopFrames: number
  readonly strikes: readonly Strike[]
  /** The line where this recording divides: the widest gap between the heights, near what is usual. */
  readonly line: number
}

/** Strikes weaker than this are none, and of two closer than this the stronger counts. */
const LEAST_STRENGTH = 0.15
const APART_SECONDS = 0.015
/** The usual time between two strikes is found by cutting, looking and cutting again. */
const ROUNDS = 3
const INTERVAL_SECONDS = [0.08, 1.2] as const

export function strikesOf({ curve, bands }: Listening, sampleRateHz: number): Strikes {
  const { hopFrames } = curve
  const hopsPerSecond = sampleRateHz / hopFrames
  const peaks = pickPeaks(curve, LEAST_STRENGTH, APART_SECONDS * sampleRateHz)
  const sounds = soundsAt(peaks, bands, hopsPerSecond)
  const first = firstInterval(sounds)
  let interval = first
  let heights: Float64Array = new Float64Array(0)
  let line = USUAL_LINE
  for (let round = 0; round < ROUNDS; round++) {
    heights = heightsOf(sounds, interval)
    line = dividingLine(standing(sounds, heights, GAP_SECONDS).map((i) => heights[i]))
    const between = intervals(standing(sounds, heights, GAP_SECONDS).filter((i) => heights[i] >= line).map((i) => sounds[i].seconds)) // prettier-ignore
    if (between.length < 2) break
    interval = usual(Math.max(between[between.length >> 1], LEAST_OF_FIRST * first))
  }
  const strikes = sounds.map(({ hop, strength }, i) => ({ hop, strength, height: above0(heights[i]), beginHop: beginOf(sounds, i) }))
  return { hopFrames, strikes, line: above0(line) }
}

const usual = (seconds: number) => Math.min(INTERVAL_SECONDS[1], Math.max(INTERVAL_SECONDS[0], seconds))

/** A strike is prominent that no other within this time outdoes by this much. */
const PROMINENT_SECONDS = 0.3
const PROMINENT_DB = 6
const PROMINENT_STRENGTH = 0.3
/** Gestures of two loud strikes make half of the times between short. */
const FIRST_SHARE = 0.65
/** And it is never taken for much less afterwards. */
const LEAST_OF_FIRST = 0.75

/** What the time between two strikes is taken for at first: that between prominent ones. */
function firstInterval(sounds: readonly Sound[]): number {
  const clear = sounds.filter(({ strength }) => strength >= PROMINENT_STRENGTH)
  const prominent = clear.filter(({ seconds, loudness }, i) => {
    for (const step of [-1, 1])
      for (let j = i + step; j >= 0 && j < clear.length && Math.abs(clear[j].seconds - seconds) < PROMINENT_SECONDS; j += step)
        if (clear[j].loudness > loudness + PROMINENT_DB) return false
    return true
  })
  const between = intervals(prominent.map(({ seconds }) => seconds))
  return usual(between[Math.floor(between.length * FIRST_SHARE)] ?? INTERVAL_SECONDS[1] / 2)
}

/** Strikes of a gesture are this close. */
const GAP_SECONDS = 0.06

/** One strike as it is compared with others. */
interface Sound {
  readonly hop: number
  readonly seconds: number
  readonly strength: number
  /** Level of each band in the loudest 5 ms after it, dB. */
  readonly levels: readonly number[]
  /** How far it stands over the room, mean of all bands, dB. */
  readonly loudness: number
  /** The band that rises most. */
  readonly band: number
}

const LOUDEST_SECONDS = 0.03
const BEFORE_SECONDS = 0.012
const LOOK_HOPS = 4
const OVER_ROOM_DB = 3

function soundsAt(peaks: readonly { hop: number; strength: number }[], bands: readonly BandEnergy[], hopsPerSecond: number): Sound[] {
  const rooms = bands.map((band) => toDb(noiseFloor(band) * ROOM_SHARE))
  const after = Math.round(LOUDEST_SECONDS * hopsPerSecond)
  const before = Math.round(BEFORE_SECONDS * hopsPerSecond)
  return peaks.map(({ hop, strength }) => {
    const levels = bands.map((band) => toDb(loudest(band, hop, after)))
    const rises = bands.map((band, i) => (levels[i] > rooms[i] + OVER_ROOM_DB ? levels[i] - toDb(meanOf(band, hop - 2 - before, hop - 2)) : -Infinity))
    const over = levels.reduce((sum, level, i) => sum + Math.max(0, level - rooms[i]), 0)
    return { hop, seconds: hop / hopsPerSecond, strength, levels, loudness: over / Math.max(1, bands.length), band: Math.max(...rises) > -Infinity ? rises.indexOf(Math.max(...rises)) : -1 }
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

/** What comes after a strike is in its wake: 5 dB above it at once, falling by 18 dB within a usual interval. */
const WAKE_DB = 5
const WAKE_FALL_DB = 18
/** How much height each dB under the wake costs, and how much of that is judged in the band that rises most. */
const COST_PER_DB = 0.035
const BAND_SHARE = 0.3
/** What rises very suddenly in a wake is a strike all the same. */
const SUDDEN_FROM = 0.78
const SUDDEN_RANGE = 0.3
const LEAST_COST_SHARE = 0.3
/** Within this share of a usual interval, what is no more sudden than a strike before it belongs to it. */
const SAME_GESTURE = 0.25
const SAME_GESTURE_SECONDS = 0.15
const NO_MORE_SUDDEN = 0.08
const SAME_GESTURE_COST = 0.4

function heightsOf(sounds: readonly Sound[], interval: number): Float64Array {
  const heights = new Float64Array(sounds.length)
  let first = 0
  for (const [i, sound] of sounds.entries()) {
    while (sounds[first].seconds <= sound.seconds - interval) first++
    let wake = -Infinity
    let wakeInBand = -Infinity
    let isSame = false
    for (let j = first; j < i; j++) {
      const after = sound.seconds - sounds[j].seconds
      const change = WAKE_DB - (WAKE_FALL_DB * after) / interval
      wake = Math.max(wake, sounds[j].loudness + change)
      if (sound.band >= 0) wakeInBand = Math.max(wakeInBand, sounds[j].levels[sound.band] + change)
      if (after < Math.min(SAME_GESTURE_SECONDS, SAME_GESTURE * interval) && sounds[j].strength + NO_MORE_SUDDEN >= sound.strength) isSame = true
    } // prettier-ignore
    const under = Math.max(0, wake - sound.loudness)
    const underInBand = sound.band < 0 ? under : Math.max(0, Math.min(under, wakeInBand - sound.levels[sound.band]))
    const share = Math.min(1, Math.max(LEAST_COST_SHARE, (SUDDEN_FROM - sound.strength) / SUDDEN_RANGE))
    heights[i] = sound.strength - COST_PER_DB * share * ((1 - BAND_SHARE) * under + BAND_SHARE * underInBand)
    if (isSame) heights[i] = Math.min(heights[i], sound.strength - SAME_GESTURE_COST)
  }
  return heights
}

const FLAM_SECONDS = 0.06
const FLAM_DB = 8
const FLAM_STRENGTH = 0.3

/** The first of those just before a strike that are nearly as loud: a flam begins with its first stroke. */
function beginOf(sounds: readonly Sound[], at: number): number {
  let begin = at
  for (let i = at - 1; i >= 0 && sounds[at].seconds - sounds[i].seconds <= FLAM_SECONDS; i--)
    if (sounds[i].strength >= FLAM_STRENGTH && sounds[i].loudness >= sounds[at].loudness - FLAM_DB) begin = i
  return sounds[begin].hop
}

/** Those that no higher one within the gap hides. */
function standing(sounds: readonly { readonly seconds: number }[], heights: ArrayLike<number>, gapSeconds: number): number[] {
  const order = sounds.map((_, i) => i).sort((a, b) => heights[b] - heights[a])
  const hidden = new Uint8Array(sounds.length)
  const kept: number[] = []
  for (const i of order) {
    if (hidden[i]) continue
    kept.push(i)
    for (const step of [-1, 1])
      for (let j = i + step; j >= 0 && j < sounds.length && Math.abs(sounds[j].seconds - sounds[i].seconds) <= gapSeconds; j += step) hidden[j] = 1
  } // prettier-ignore
  return kept.sort((a, b) => a - b)
}

function intervals(seconds: readonly number[]): number[] {
  return seconds
    .slice(1)
    .map((at, i) => at - seconds[i])
    .sort((a, b) => a - b)
}

/** Where a line usually divides well; a gap counts less the further from here it lies, upwards sooner than downwards. */
const USUAL_LINE = 0.3
const FAR_BELOW = 0.25
const FAR_ABOVE = 0.14
const LINES = [0.12, 0.66] as const
const LOWEST = 0.09

function dividingLine(heights: readonly number[]): number {
  const sorted = [...heights.map((height) => Math.max(LOWEST, height)).sort((a, b) => b - a), LOWEST]
  let best = { worth: 0, line: USUAL_LINE }
  for (let k = 0; k + 1 < sorted.length; k++) {
    const [top, bottom] = [sorted[k], sorted[k + 1]]
    const line = Math.min(LINES[1], Math.max(LINES[0], (top + bottom) / 2))
    if (line < bottom || line > top) continue
    const away = (line - USUAL_LINE) / (line > USUAL_LINE ? FAR_ABOVE : FAR_BELOW)
    const worth = (top - bottom) * Math.exp(-0.5 * away * away)
    if (worth > best.worth) best = { worth, line }
  }
  return best.line
}

const BENT_BELOW = 0.15
const BEND_RANGE = 0.3

/** Bends what lies low so that all of it stays above 0, in its order: a line at the very bottom shows everything. */
function above0(height: number): number {
  return height >= BENT_BELOW ? height : BENT_BELOW * Math.exp((height - BENT_BELOW) / BEND_RANGE)
}

/** A level at which a recording divides, and how many hits stand over it. */
export interface Level {
  readonly line: number
  readonly count: number
}

const LEAST_STEP = 0.012
const LEVELS_APART = 0.15

/** The strikes that stand at or above the line, none closer to a higher one than the gap, in their order. */
export function strikesOver({ strikes, hopFrames }: Strikes, waterLine: number, minGapFrames: number): Strike[] {
  const placed = strikes.map(({ hop }) => ({ seconds: hop * hopFrames }))
  return standing(placed, strikes.map(({ height }) => height), minGapFrames).map((i) => strikes[i]).filter(({ height }) => height >= waterLine) // prettier-ignore
}

/** Levels at which this recording divides, from few hits to many: the wider gaps between its heights. */
export function levelsOf(found: Strikes, minGapFrames: number): Level[] {
  const heights = strikesOver(found, 0, minGapFrames).map(({ height }) => height).sort((a, b) => b - a) // prettier-ignore
  const steps = heights
    .map((top, k) => ({ count: k + 1, step: top - (heights[k + 1] ?? 0), line: (top + (heights[k + 1] ?? 0)) / 2 }))
    .filter(({ step }) => step >= LEAST_STEP)
    .sort((a, b) => b.step - a.step)
  const chosen: Level[] = []
  for (const { count, line } of steps)
    if (!chosen.some((other) => Math.abs(other.count - count) < Math.max(2, LEVELS_APART * Math.max(count, other.count)))) chosen.push({ count, line }) // prettier-ignore
  return chosen.sort((a, b) => a.count - b.count)
}

/** The curve as the line sees it: each rise as high as its strike counts. */
export function curveOverLine({ strength, hopFrames }: StrengthCurve, { strikes }: Strikes): StrengthCurve {
  const shown = strength.slice()
  for (const [i, { hop, strength: own, height }] of strikes.entries()) {
    if (height >= own) continue
    const from = lowestBetween(strength, strikes[i - 1]?.hop ?? 0, hop)
    const to = lowestBetween(strength, hop, strikes[i + 1]?.hop ?? strength.length - 1)
    for (let at = from; at <= to; at++) shown[at] = Math.min(shown[at], (strength[at] * height) / own)
  }
  return { hopFrames, strength: shown }
}

function lowestBetween(strength: Float32Array, from: number, to: number): number {
  let lowest = from
  for (let hop = from; hop <= to; hop++) if (strength[hop] < strength[lowest] || (strength[hop] === strength[lowest] && hop < to)) lowest = hop
  return lowest
} // prettier-ignore
