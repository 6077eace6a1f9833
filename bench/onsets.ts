import { findOnsets, strengthCurve } from '@heliaster/core/cut'
import { benchTakes, RATE, tarpSlaps, walkAround } from '@heliaster/demo'
import type { DemoRecording } from '@heliaster/demo'

import type { Figure } from './figure'

/** The settings of a new recording. */
const WATER_LINE = 0.3
const MIN_GAP_SECONDS = 0.06

/**
 * F-measure of the onsets on the demo's recordings, default settings. The truth is the first frame of each strike that
 * reaches 1 % (-40 dB) of the strike's own peak; found and true are matched one to one, nearest first.
 */
export function figuresOfOnsets(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  const recordings: [string, DemoRecording][] = [['walk', walkAround()], ['slaps', tarpSlaps()], ['bench', benchTakes()]] // prettier-ignore
  for (const [name, recording] of recordings) {
    const found = findOnsets(recording.samples, RATE, strengthCurve(recording.samples, RATE), WATER_LINE, MIN_GAP_SECONDS).map(
      (onset) => onset.frame,
    )
    const truth = recording.strikes.map((strike) => strike.frame)
    for (const ms of [50, 5])
      figures[`onsets.${name}.fMeasure.${ms}ms`] = { value: fMeasure(found, truth, (ms * RATE) / 1000), unit: 'of 1' }
    figures[`onsets.${name}.medianErrorMs`] = { value: medianErrorMs(found, truth), unit: 'ms' }
  }
  return figures
}

function fMeasure(found: readonly number[], truth: readonly number[], toleranceFrames: number): number {
  const pairs = found
    .flatMap((f, i) => truth.map((t, j) => ({ i, j, away: Math.abs(f - t) })))
    .filter((pair) => pair.away <= toleranceFrames)
    .sort((a, b) => a.away - b.away)
  const takenFound = new Set<number>()
  const takenTruth = new Set<number>()
  for (const { i, j } of pairs) {
    if (takenFound.has(i) || takenTruth.has(j)) continue
    takenFound.add(i)
    takenTruth.add(j)
  }
  return (2 * takenFound.size) / (found.length + truth.length)
}

function medianErrorMs(found: readonly number[], truth: readonly number[]): number {
  const errors = truth.map((t) => Math.min(...found.map((f) => Math.abs(f - t)))).sort((a, b) => a - b)
  return (errors[errors.length >> 1] * 1000) / RATE
}
