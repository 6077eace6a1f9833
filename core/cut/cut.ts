import { frameCount, toDb, toMono } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { meanOf } from './bands'
import type { BandEnergy } from './bands'
import type { CutSettings } from '../kit/source'
import { alikeHits, oddHits } from './compare'
import { describeHit } from './describe'
import type { HitDescription } from './describe'
import { endFrameOf, startFrameOf, tailCurve } from './edges'
import { findHits, isAllStrike, placeOf } from './onsets'
import { gridMarks } from './grid'
import { inTime } from './in-time'
import { attacksOf, lineOf, placesOf } from './settings'
import type { EdgePlaces } from './settings'
import { zeroCrossing } from './snap'
import type { Strike, Strikes } from './gestures'
import { strikesOf } from './strikes'
import { listenForStrikes, noiseFloor } from './strength'
import type { Listening } from './strength'

/** One hit of a recording: [startFrame, endFrame) holds the strike at `onsetFrame` and all of its tail. */
export interface Hit extends HitDescription {
  readonly onsetFrame: number
  readonly startFrame: number
  readonly endFrame: number
  /** Strikes inside it that belong to it: a toe after a heel, the second of a flam, a rattle. They end nothing. */
  readonly secondFrames: readonly number[]
  /** Where a grid had it, before it was moved to the attack near it. */
  readonly gridFrame?: number
}

/** Cuts a whole recording: onsets or the places of a grid, edges and a description of each hit. */
export function cutRecording(audio: Audio, settings: CutSettings): Hit[] {
  const mono = toMono(audio)
  return cutHeard(audio, mono, heardStrikes(mono, audio.sampleRateHz, settings), settings)
}

/** The same of a recording that was heard before. */
export function cutHeard(audio: Audio, mono: Float32Array, heard: Heard, settings: CutSettings): Hit[] {
  const { grid, minGapSeconds } = settings
  const rate = audio.sampleRateHz
  const onsets = grid
    ? gridMarks(grid, mono.length, rate, settings.marksStay ? [] : attacksOf(mono, rate, heard))
    : findHits(mono, rate, heard.strikes, lineOf(settings, heard.strikes), minGapSeconds)
  const hits = hitsAt(audio, mono, onsets.map((onset) => onset.frame), [], heard, placesOf(settings)) // prettier-ignore
  return hits.map((hit, i) => (onsets[i].gridFrame === undefined ? hit : { ...hit, gridFrame: onsets[i].gridFrame }))
}

/** What is known of a recording before it is cut. */
export interface Heard extends Listening {
  readonly strikes: Strikes
}

/** What is listened for: also what swells, and what falls on the pulse of someone who plays in time; and whether a lossy codec was there before. */
export interface HeardAs extends Pick<CutSettings, 'attack' | 'inTime'> {
  readonly isCoded?: boolean
}

export function heardStrikes(mono: Float32Array, sampleRateHz: number, as: HeardAs = {}): Heard {
  const listening = listenForStrikes(mono, sampleRateHz, as.attack)
  const strikes = strikesOf(mono, sampleRateHz, listening)
  const told = as.inTime ? inTime(strikes, sampleRateHz) : strikes
  return { ...listening, strikes: as.isCoded ? { ...told, isCoded: true } : told }
}

function snapped(mono: Float32Array, frame: number, sampleRateHz: number, snap: EdgePlaces['snap']): number {
  if (snap === 'attack') return startFrameOf(frame, sampleRateHz)
  return snap === 'none' ? frame : zeroCrossing(mono, frame, sampleRateHz, snap)
}

/** Descriptions of a recording's hits by what they were made from, so that a change of one hit describes one. */
export type KnownHits = Map<string, HitDescription & Pick<Hit, 'secondFrames'>>

/**
 * The hits that begin at the given frames, which run forward. `endFrames` holds ends that were set by hand; `heard`
 * is what was found of the recording before, and `known` what was said of its hits, so that neither is found again.
 */
export function hitsAt(
  audio: Audio,
  mono: Float32Array,
  onsetFrames: readonly number[],
  endFrames: readonly (number | undefined)[] = [],
  heard: Heard = heardStrikes(mono, audio.sampleRateHz),
  places: EdgePlaces = { snap: 'attack', ends: 'tail' },
  known: KnownHits = new Map(),
): Hit[] {
  const rate = audio.sampleRateHz
  const tails = tailCurve(heard.bands, heard.curve.hopFrames)
  const isSlice = places.ends === 'next'
  const endOf = (frame: number, limit: number) => (isSlice ? limit : endFrameOf(tails, frame, limit, rate))
  const room = isAllStrike(mono, rate) ? { noiseDb: -Infinity, dc: 0 } : { noiseDb: noiseDbOf(heard.bands), dc: meanOf(mono) }
  const around = { isSlice, ...room }
  const startOf = (frame: number) => snapped(mono, frame, rate, places.snap)
  const over = new Set(places.over)
  const nextFrames = nextEnding(onsetFrames, over)
  const hits = onsetFrames.map((onsetFrame, i): Hit => {
    const startFrame = startOf(onsetFrame)
    const next = nextFrames[i]
    const limit = next === undefined ? frameCount(audio) : startOf(next)
    const endFrame = Math.max(startFrame + 1, Math.min(frameCount(audio), endFrames[i] ?? endOf(onsetFrame, limit)))
    const seconds = isSlice ? [] : secondsOf(heard.strikes, onsetFrame, endFrame, rate)
    const hasSecond = seconds.some(({ height }) => height >= SECOND_LINE)
    const key = `${startFrame} ${endFrame} ${hasSecond} ${isSlice} ${seconds.length}`
    let described = known.get(key)
    if (!described) {
      const region: Audio = { sampleRateHz: rate, channels: audio.channels.map((channel) => channel.subarray(startFrame, endFrame)) }
      const secondFrames = seconds.map(({ hop }) => placeOf(mono, rate, hop, heard.strikes))
      known.set(key, (described = { ...describeHit(region, { ...around, hasSecond }), secondFrames }))
    }
    return { onsetFrame, startFrame, endFrame, ...described }
  })
  return isSlice ? hits : compared(mono, rate, hits)
}

/** For each onset the next one that ends what rings before it. */
function nextEnding(onsetFrames: readonly number[], over: ReadonlySet<number>): (number | undefined)[] {
  const next: (number | undefined)[] = []
  let at: number | undefined
  for (let i = onsetFrames.length - 1; i >= 0; i--) {
    next[i] = at
    if (!over.has(onsetFrames[i])) at = onsetFrames[i]
  }
  return next
}

const SECOND_LINE = 0.385
const SECOND_FROM_SECONDS = 0.015
const SECOND_TO_SECONDS = 0.005

/** Strikes inside a hit that stand well out of what is around them. One that counts for itself is warned of. */
function secondsOf({ strikes, hopFrames }: Strikes, onsetFrame: number, endFrame: number, sampleRateHz: number): Strike[] {
  const from = (onsetFrame + SECOND_FROM_SECONDS * sampleRateHz) / hopFrames
  const to = (endFrame - SECOND_TO_SECONDS * sampleRateHz) / hopFrames
  const found: Strike[] = []
  for (let i = firstAfter(strikes, from); i < strikes.length && strikes[i].hop < to; i++)
    if (strikes[i].strength >= SECOND_LINE) found.push(strikes[i])
  return found
}

function firstAfter(strikes: readonly Strike[], hop: number): number {
  let low = 0
  let high = strikes.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (strikes[middle].hop <= hop) low = middle + 1
    else high = middle
  }
  return low
}

/** What is said of hits only when they are seen side by side. */
function compared(mono: Float32Array, sampleRateHz: number, hits: Hit[]): Hit[] {
  const alike = alikeHits(mono, sampleRateHz, hits)
  const odd = oddHits(hits)
  if (alike.size === 0 && odd.size === 0) return hits
  return hits.map((hit, i) => ({
    ...hit,
    warnings: [...hit.warnings, ...(alike.has(i) ? (['alike'] as const) : []), ...(odd.has(i) ? (['odd'] as const) : [])],
  }))
}

function noiseDbOf(bands: readonly BandEnergy[]): number {
  const sums = new Float64Array(bands[0]?.length ?? 0)
  for (const band of bands) for (let hop = 0; hop < sums.length; hop++) sums[hop] += band[hop]
  return toDb(Math.sqrt(noiseFloor(sums)))
}
