import { findHits, heardStrikes } from '../../core/cut'
import { edgeNear } from '../../core/cut/edge'
import { afterEdgeMs, START_PLACES, startSigns } from '../../core/cut/start-signs'
import { manners, realScene } from '../real/compose'
import type { RealStrike } from '../real/material'
import { recordingsMade } from './lessons'

/** Strikes and the places about each: signs, and how much each place counts as where it begins; together 1. */
export interface StartLesson {
  readonly signs: Float32Array
  readonly counts: Float32Array
}

interface StartRecording {
  readonly samples: Float32Array
  readonly sampleRateHz: number
  /** Where each strike begins, and where it can be told from what sounds before, in frames. */
  readonly truth: readonly number[]
  readonly told: readonly number[]
}

const DENSE = 14
const OTHERS = 4

/** Recordings composed of what a package holds, most of them dense. */
export function* startRecordings(strikes: readonly RealStrike[], seed: number): Generator<StartRecording> {
  for (const [name, manner] of Object.entries(manners))
    for (let i = 0; i < (name === 'dense' ? DENSE : OTHERS); i++) yield realScene(manner, strikes, seed + 17 * i + name.length)
}

export function* startRecordingsMade(seed: number): Generator<StartRecording> {
  for (const { samples, sampleRateHz, truth } of recordingsMade(seed)) {
    const frames = truth.map((seconds) => Math.round(seconds * sampleRateHz))
    yield { samples, sampleRateHz, truth: frames, told: frames }
  }
}

const FOUND_SECONDS = 0.05

/** What is to be learned of the strikes of a recording that are found. */
export function* startLessons({ samples, sampleRateHz, truth, told }: StartRecording): Generator<StartLesson> {
  const { strikes } = heardStrikes(samples, sampleRateHz)
  const places = new Map<number, number>()
  findHits(samples, sampleRateHz, strikes, strikes.line, undefined, places)
  const edges = [...places.keys()].map((hop) => edgeNear(samples, sampleRateHz, hop * strikes.hopFrames))
  for (const [i, at] of told.entries()) {
    const edge = edges.reduce((best, one) => (Math.abs(one - at) < Math.abs(best - at) ? one : best), Infinity)
    const ms = sampleRateHz / 1000
    if (Math.abs(edge - at) > FOUND_SECONDS * sampleRateHz) continue
    const counts = countsOf((truth[i]! - edge) / ms, (at - edge) / ms)
    if (counts) yield { signs: startSigns(samples, sampleRateHz, edge), counts }
  }
}

const WIDE_MS = 0.5
const TOLD_WIDE_MS = 0.7
const LEAST = 1e-3

/** Whatever lies between where it begins and where it can be told is right, the latter twice. */
function countsOf(truthMs: number, toldMs: number): Float32Array | undefined {
  const counts = Float32Array.from({ length: START_PLACES }, (_, place) => {
    const at = afterEdgeMs(place)
    const within = Math.exp(-Math.max(0, truthMs - at, at - toldMs) / WIDE_MS)
    const told = Math.exp(-Math.abs(at - toldMs) / TOLD_WIDE_MS)
    return (within < LEAST ? 0 : within) + (told < LEAST ? 0 : told)
  })
  const all = counts.reduce((sum, count) => sum + count, 0)
  return all > 0 ? counts.map((count) => count / all) : undefined
}
