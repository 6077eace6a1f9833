import FFT from 'fft.js'

import type { Envelope } from '../kit'
import { rounded } from './envelope-edits'
import { fitEnvelope } from './fit-envelope'

/** A recorded hit, from its strike on: samples of one channel. */
export interface RecordedHit {
  readonly mono: Float32Array
  readonly sampleRateHz: number
}

const LONGEST_SECONDS = 5
const PLACES = 240
/** The level is smoothed over a share of the time that has passed, within these bounds, s. */
const SMOOTHED = { share: 0.15, least: 0.001, most: 0.04 } as const
/** What is softer, under the highest, is nothing. */
const FLOOR = 10 ** (-60 / 20)
/** Wrong by so much is good enough, dB; near nothing more. */
const GOOD_DB = 1
const HARDLY = 0.004
const MOST = 24

/** The squared length of the analytic signal: the power of a hit along time, with no ripple of its own waves. */
function powerOf(mono: Float32Array): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(mono.length + 1024))
  const fft = new FFT(size)
  const padded = new Float64Array(size)
  padded.set(mono)
  const bins = new Float64Array(2 * size)
  fft.realTransform(bins as unknown as number[], padded)
  bins.fill(0, size + 2)
  for (let i = 2; i < size; i++) bins[i]! *= 2
  const analytic = new Float64Array(2 * size)
  fft.inverseTransform(analytic as unknown as number[], bins)
  return Float64Array.from(mono, (_, i) => analytic[2 * i]! ** 2 + analytic[2 * i + 1]! ** 2)
}

/** Times that lie closer at the strike than later, from 0 to the end. */
function timesOf(seconds: number): Float64Array {
  const first = 0.0004
  return Float64Array.from({ length: PLACES }, (_, i) => (i === 0 ? 0 : first * (seconds / first) ** ((i - 1) / (PLACES - 2))))
}

/** The level of a hit at times, 1 at its highest. */
function levelsAt({ mono, sampleRateHz }: RecordedHit, times: Float64Array): Float64Array {
  const power = powerOf(mono.subarray(0, Math.round(LONGEST_SECONDS * sampleRateHz)))
  const sums = new Float64Array(power.length + 1)
  for (let i = 0; i < power.length; i++) sums[i + 1] = sums[i]! + power[i]!
  const levels = times.map((at) => {
    const half = Math.min(SMOOTHED.most, Math.max(SMOOTHED.least, SMOOTHED.share * at)) / 2
    const from = Math.min(power.length, Math.max(0, Math.round((at - half) * sampleRateHz)))
    const to = Math.min(power.length, Math.max(from + 1, Math.round((at + half) * sampleRateHz)))
    return to > from ? Math.sqrt((sums[to]! - sums[from]!) / (to - from)) : 0
  })
  const highest = Math.max(1e-9, ...levels)
  return levels.map((level) => level / highest)
}

/**
 * The level envelope that lets one hit rise and fall as another does: the other's level over its own, both 1 at their
 * highest. An envelope only takes away: where the hit is softer than the other, it stays as it is. Undefined where either is
 * silent. Within 1 dB where 24 points are enough for that.
 */
export function followLevel(other: RecordedHit, own: RecordedHit): Envelope | undefined {
  const seconds = Math.min(LONGEST_SECONDS, other.mono.length / other.sampleRateHz)
  if (seconds < 0.002 || !sounds(other.mono) || !sounds(own.mono)) return undefined
  const times = timesOf(seconds)
  const [wanted, had] = [levelsAt(other, times), levelsAt(own, times)]
  const values = wanted.map((level, i) => (level < FLOOR ? 0 : Math.min(1, level / Math.max(FLOOR, had[i]!))))
  values[PLACES - 1] = 0
  const wrong = (value: number, place: number) => Math.abs(20 * Math.log10((value + HARDLY) / (values[place]! + HARDLY))) / GOOD_DB
  const last = Math.min(PLACES - 1, values.findLastIndex((value) => value > 0) + 1)
  const points = fitEnvelope({ seconds: times.subarray(0, last + 1), values, wrong }, MOST)
  return { points: points.map(({ seconds: at, value, bend }) => ({ seconds: rounded(at, 5), value: rounded(value, 4), bend })) }
}

const sounds = (mono: Float32Array) => mono.some((sample) => Math.abs(sample) > 1e-6)
