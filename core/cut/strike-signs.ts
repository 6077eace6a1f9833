import { FLUX_SIGNS, fluxSigns } from './flux-signs'

/** A rise of the sound as it is compared with others. Times in seconds, levels in dB over the noise of the room. */
export interface Sound {
  readonly hop: number
  readonly seconds: number
  /** How suddenly the sound rises here, 0..1. */
  readonly strength: number
  /** Level of each band in the loudest 5 ms after it. */
  readonly levels: readonly number[]
  /** Level of each band just before it. */
  readonly before: readonly number[]
  /** How far it stands over the room, mean of all bands. */
  readonly loudness: number
}

/** Times after which, or before which, another rise is looked at, s. */
const WINDOWS = [
  [0.012, 0.04],
  [0.04, 0.08],
  [0.08, 0.15],
  [0.15, 0.3],
  [0.3, 0.6],
] as const
/** So far ahead is looked as well: what follows within it may be the strike that this one only leads to. */
const WINDOWS_AHEAD = 4
/** Differences of level count up to here, dB; of strength, where there is nothing, as much as this. */
const MOST_DB = 30
const NO_STRENGTH = -0.6
const OVER_ROOM_DB = 3
const LEAST_BEFORE_DB = -3
const CLEAR_RISE_DB = 6
const CLEAR_STRENGTH = 0.3
/** What comes after a strike is in its wake: 5 dB above it at once, falling by 18 dB within a usual interval. */
const WAKE_DB = 5
const WAKE_FALL_DB = 18

export const SIGNS = 34 + FLUX_SIGNS

/**
 * What is told of each rise, `SIGNS` numbers about 0 for each, one rise after another: how sudden and how loud it is by
 * itself and beside all of this recording, what came before it and comes after it in several windows of time, and how
 * the recording is played. Levels are over the noise of the room, and all else differences and shares, so that neither the
 * gain of a recording nor its sample rate is told. Last comes what `flux`, the recording's own, says of it.
 */
export function signsOf(sounds: readonly Sound[], flux: Float32Array): Float64Array {
  const signs = new Float64Array(sounds.length * SIGNS)
  if (sounds.length === 0) return signs
  const whole = wholeOf(sounds)
  const signsOfFlux = fluxSigns(flux)
  for (let i = 0; i < sounds.length; i++) {
    const rises = risesIn(sounds[i])
    const band = Math.max(0, rises.indexOf(Math.max(Number.MIN_VALUE, ...rises))) // that rises most, or the lowest
    const own = ownSigns(sounds[i], rises, whole)
    const before = WINDOWS.flatMap(([from, to]) => windowSigns(sounds, i, band, -to, -from, true))
    const after = WINDOWS.slice(0, WINDOWS_AHEAD).flatMap(([from, to]) => windowSigns(sounds, i, band, from, to, false))
    signs.set(
      [
        ...own,
        ...before,
        ...after,
        whole.density,
        whole.clearDensity,
        Math.log(whole.interval / 0.4),
        wakeSign(sounds, i, whole.interval),
        ...signsOfFlux(sounds[i].seconds),
      ],
      i * SIGNS,
    )
  }
  return signs
}

/** What is the same for all rises of a recording. */
interface Whole {
  readonly loud: number
  readonly strong: number
  readonly density: number
  readonly clearDensity: number
  readonly interval: number
}

function wholeOf(sounds: readonly Sound[]): Whole {
  const seconds = Math.max(1, sounds[sounds.length - 1].seconds - sounds[0].seconds)
  const clear = sounds.filter(({ strength }) => strength >= CLEAR_STRENGTH)
  return {
    loud: quantileOf(sounds.map(({ loudness }) => loudness), 0.9), // prettier-ignore
    strong: quantileOf(sounds.map(({ strength }) => strength), 0.8), // prettier-ignore
    density: Math.log(sounds.length / seconds) - 1.5,
    clearDensity: Math.log((clear.length + 1) / seconds) - 1,
    interval: usualInterval(clear),
  }
}

/** Between two values in order, straight. */
function quantileOf(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  const at = (sorted.length - 1) * share
  const low = sorted[Math.floor(at)]
  return low + (sorted[Math.ceil(at)] - low) * (at - Math.floor(at))
}

/** By how much each band rises, dB; 0 where it does not stand over the room. */
function risesIn({ levels, before }: Sound): number[] {
  return levels.map((level, band) => (level > OVER_ROOM_DB ? level - Math.max(LEAST_BEFORE_DB, before[band]) : 0))
}

function ownSigns({ strength, loudness }: Sound, rises: readonly number[], { loud, strong }: Whole): number[] {
  const mean = rises.reduce((sum, rise) => sum + rise, 0) / rises.length
  const clear = rises.filter((rise) => rise > CLEAR_RISE_DB).length / rises.length
  return [strength - 0.4, loudness / 20 - 1, Math.max(...rises) / 20 - 1, mean / 10 - 1, clear - 0.5, (loudness - loud) / 15 + 0.7, (strength - strong) / 0.2 + 0.7]
} // prettier-ignore

/** By how much the loudest and the most sudden of a window outdo a rise; of windows before it, also in the band that it rises in most. */
function windowSigns(sounds: readonly Sound[], at: number, band: number, from: number, to: number, isBefore: boolean): number[] {
  const here = sounds[at]
  const step = isBefore ? -1 : 1
  let louder = -MOST_DB
  let louderInBand = -MOST_DB
  let stronger = NO_STRENGTH
  for (let j = at + step; j >= 0 && j < sounds.length; j += step) {
    const apart = sounds[j].seconds - here.seconds
    if (isBefore ? apart <= from : apart >= to) break
    if (isBefore ? apart > to : apart < from) continue
    louder = Math.max(louder, sounds[j].loudness - here.loudness)
    louderInBand = Math.max(louderInBand, Math.max(0, sounds[j].levels[band]) - Math.max(0, here.levels[band]))
    stronger = Math.max(stronger, sounds[j].strength - here.strength)
  }
  const signs = [Math.min(MOST_DB, louder) / 15 + 0.5, stronger / 0.3 + 0.3]
  return isBefore ? [...signs, Math.min(MOST_DB, louderInBand) / 15 + 0.5] : signs
}

/** How far it lies under the wake of what came before it. */
function wakeSign(sounds: readonly Sound[], at: number, interval: number): number {
  const { seconds, loudness } = sounds[at]
  let wake = -MOST_DB
  for (let j = at - 1; j >= 0 && seconds - sounds[j].seconds < interval; j--)
    wake = Math.max(wake, sounds[j].loudness + WAKE_DB - (WAKE_FALL_DB * (seconds - sounds[j].seconds)) / interval - loudness)
  return Math.min(MOST_DB, wake) / 15 + 0.3
}

/** A rise is prominent that no other within this time outdoes by this much. */
const PROMINENT_SECONDS = 0.3
const PROMINENT_DB = 6
/** Gestures of two loud strikes make half of the times between short. */
const INTERVAL_SHARE = 0.65
const INTERVAL_SECONDS = [0.08, 1.2] as const

/** The usual time between prominent ones of those that are clear. */
function usualInterval(clear: readonly Sound[]): number {
  const prominent = clear.filter(({ seconds, loudness }, i) => {
    for (const step of [-1, 1])
      for (let j = i + step; j >= 0 && j < clear.length && Math.abs(clear[j].seconds - seconds) < PROMINENT_SECONDS; j += step)
        if (clear[j].loudness > loudness + PROMINENT_DB) return false
    return true
  })
  const between = prominent.slice(1).map(({ seconds }, i) => seconds - prominent[i].seconds).sort((a, b) => a - b) // prettier-ignore
  const usual = between[Math.floor(between.length * INTERVAL_SHARE)] ?? INTERVAL_SECONDS[1] / 2
  return Math.min(INTERVAL_SECONDS[1], Math.max(INTERVAL_SECONDS[0], usual))
}
