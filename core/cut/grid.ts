import type { Source } from '../kit/source'
import type { Onset } from './onsets'

export type Grid = NonNullable<Source['cut']['grid']>

const MOST_PLACES = 2000

/** The frames at which a grid cuts a recording of `frames`: equal parts, a number of beats from the first beat on, or nowhere of itself. */
export function gridFrames(grid: Grid, frames: number, sampleRateHz: number): number[] {
  if (grid.kind === 'marks') return []
  if (grid.kind === 'parts') return Array.from({ length: grid.count }, (_, i) => Math.round((i * frames) / grid.count))
  const step = (60 / grid.tempoBpm) * grid.beats * sampleRateHz
  const places: number[] = []
  for (let n = 0; places.length < MOST_PLACES; n++) {
    const frame = Math.round(grid.firstSeconds * sampleRateHz + n * step)
    if (frame >= frames) break
    places.push(frame)
  }
  return places
}

/** A mark looks for an attack this far to each side, and no farther than this share of the way to the next mark. */
const REACH_SECONDS = 0.06
const REACH_SHARE = 1 / 3

/**
 * The marks of a grid, each moved to the attack near it: the strongest within reach, a near one before a far one. A mark
 * without one stays. `strikes` are those of the recording; without them all marks stay where the grid has them.
 */
export function gridMarks(grid: Grid, frames: number, sampleRateHz: number, strikes: readonly Onset[] = []): Onset[] {
  const places = gridFrames(grid, frames, sampleRateHz)
  const step = places.length > 1 ? (places[places.length - 1] - places[0]) / (places.length - 1) : frames
  const reach = Math.min(REACH_SECONDS * sampleRateHz, REACH_SHARE * step)
  return places.map((gridFrame) => {
    let best: Onset | undefined
    let most = 0
    for (const strike of strikes) {
      const away = Math.abs(strike.frame - gridFrame)
      const worth = away < reach ? strike.strength * (1 - (0.5 * away) / reach) : 0
      if (worth > most) [best, most] = [strike, worth]
    }
    return { frame: best?.frame ?? gridFrame, strength: 1, gridFrame }
  })
}

/** How many marks have moved, and the farthest of them, s; nothing where none has. */
export function gridMoves(
  marks: readonly { readonly frame: number; readonly gridFrame?: number }[],
  sampleRateHz: number,
): { count: number; mostSeconds: number } | undefined {
  const moves = marks.flatMap(({ frame, gridFrame = frame }) => (frame === gridFrame ? [] : [Math.abs(frame - gridFrame)]))
  return moves.length === 0 ? undefined : { count: moves.length, mostSeconds: Math.max(...moves) / sampleRateHz }
}

export interface Tempo {
  readonly bpm: number
  /** Where a beat falls, s; the first one of the recording. */
  readonly firstSeconds: number
  /** 0..1: how much of the strikes falls on the grid. */
  readonly confidence: number
}

const SLOWEST_BPM = 60
const FASTEST_BPM = 200
const STEP_BPM = 0.2
const FINE_BPM = 0.02
/** Between two that fit alike, the one nearer to a middling pace. */
const MIDDLING_BPM = 115
const FEWEST = 6

/**
 * The tempo of strikes, from how well they fall together on half beats: the length of the sum of their places on a
 * circle of half a beat (the first circular moment), by a preference for a middling pace. Undefined for few strikes or
 * where no pace gathers them.
 */
export function tempoOf(strikes: readonly { readonly seconds: number; readonly strength: number }[]): Tempo | undefined {
  if (strikes.length < FEWEST) return undefined
  const total = strikes.reduce((sum, strike) => sum + strike.strength, 0)
  const fit = (bpm: number) => {
    const [re, im] = momentOf(strikes, (2 * bpm) / 60)
    const confidence = Math.hypot(re, im) / total
    return { bpm, confidence, angle: Math.atan2(im, re), score: confidence * Math.exp(-0.5 * (Math.log2(bpm / MIDDLING_BPM) / 0.7) ** 2) }
  }
  const bestOf = (from: number, to: number, step: number) => {
    let best = fit(from)
    for (let bpm = from + step; bpm <= to; bpm += step) {
      const here = fit(bpm)
      if (here.score > best.score) best = here
    }
    return best
  }
  const near = bestOf(SLOWEST_BPM, FASTEST_BPM, STEP_BPM)
  const best = bestOf(near.bpm - STEP_BPM, near.bpm + STEP_BPM, FINE_BPM)
  if (best.confidence < 0.6) return undefined
  return { bpm: Math.round(best.bpm * 100) / 100, firstSeconds: firstBeat(strikes, best.bpm, best.angle), confidence: best.confidence }
}

function momentOf(strikes: readonly { readonly seconds: number; readonly strength: number }[], perSecond: number): [number, number] {
  let re = 0
  let im = 0
  for (const { seconds, strength } of strikes) {
    re += strength * Math.cos(2 * Math.PI * seconds * perSecond)
    im += strength * Math.sin(2 * Math.PI * seconds * perSecond)
  }
  return [re, im]
}

/** Of the two half beats, the one that more strength falls on is the beat. */
function firstBeat(strikes: readonly { readonly seconds: number; readonly strength: number }[], bpm: number, angle: number): number {
  const beat = 60 / bpm
  const offset = (((angle / (2 * Math.PI)) * beat) / 2 + beat) % (beat / 2)
  const weight = (first: number) =>
    strikes.reduce((sum, { seconds, strength }) => {
      const place = ((((seconds - first) / beat) % 1) + 1) % 1
      return sum + (place < 0.15 || place > 0.85 ? strength : 0)
    }, 0)
  const first = weight(offset) >= weight(offset + beat / 2) ? offset : offset + beat / 2
  return beat - first < 0.01 ? 0 : first // a beat on the very first frames
}

/** A tempo written in a name, such as "96bpm" or "tarps 120.5 BPM". */
export function tempoInName(name: string): number | undefined {
  const match = /(?:^|[^\d.])(\d{2,3}(?:\.\d{1,2})?)\s*bpm/i.exec(name)
  const bpm = match ? Number(match[1]) : NaN
  return bpm >= 20 && bpm <= 400 ? bpm : undefined
}

/** The tempo that a file tells, BPM: written as such, or as a number of beats over its length. */
export function toldTempo({ tempoBpm, beats }: NonNullable<Source['told']>, seconds: number): number | undefined {
  if (tempoBpm !== undefined) return tempoBpm
  const bpm = beats === undefined || seconds <= 0 ? NaN : (60 * beats) / seconds
  return bpm >= 20 && bpm <= 400 ? Math.round(bpm * 100) / 100 : undefined
}
