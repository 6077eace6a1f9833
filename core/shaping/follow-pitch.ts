import type { Envelope } from '../kit'
import { rounded } from './envelope-edits'
import { fitEnvelope } from './fit-envelope'
import type { RecordedHit } from './follow-level'

/** How the pitch of a hit falls, or rises, to where it settles. */
export interface FollowedPitch {
  /** Cents over where it settles. */
  readonly envelope: Envelope
  readonly settlesHz: number
  /** Cents from its beginning to where it settles. */
  readonly fallCents: number
  /** How much of the hit is this one tone, 0 to 1. */
  readonly share: number
}

const RATE_HZ = 12000
const LONGEST_SECONDS = 0.6
const SOUNDING = 10 ** (-30 / 20)
const LEAST_SHARE = 0.4
const GOOD_CENTS = 25
const MOST = 12
const PLACES = 96
/** The tone is listened to over so many of its periods at a time. */
const PERIODS = 1.5
const LISTENED = [1, 1.5]
/** A fall is believed where it gathers so much more of the sound than a steady tone does. */
const BELIEVED = 0.015

/** A fall f(t) = settles (1 + over exp(-t / tau)), Hz. */
interface Fall {
  readonly settlesHz: number
  readonly over: number
  readonly tau: number
}
const OVERS = [-0.3, 0.15, 0.4, 0.8, 1.5, 3, 6, 12]
const TAUS = [0.003, 0.006, 0.012, 0.024, 0.048, 0.1]
const LOWEST_HZ = 28
const HIGHEST_HZ = 900
const STEPS_PER_OCTAVE = 8
/** So many of the grid's best are looked at closely. */
const REFINED = 5

/** Fewer samples, each the mean of those it stands for, up to where the hit has died away. */
function listened({ mono, sampleRateHz }: RecordedHit): { samples: Float64Array; rateHz: number } {
  const step = Math.max(1, Math.floor(sampleRateHz / RATE_HZ))
  const count = Math.floor(Math.min(mono.length, LONGEST_SECONDS * sampleRateHz) / step)
  const samples = new Float64Array(count)
  let highest = 0
  for (let i = 0; i < count; i++) {
    for (let j = 0; j < step; j++) samples[i]! += mono[i * step + j]! / step
    highest = Math.max(highest, Math.abs(samples[i]!))
  }
  const last = samples.findLastIndex((sample) => Math.abs(sample) >= highest * SOUNDING)
  return { samples: samples.subarray(0, last + 1), rateHz: sampleRateHz / step }
}

/** The sums of samples turned back by a phase that runs at `hzOf`: what runs with it stands still. */
function turnedBack(samples: Float64Array, rateHz: number, hz: Float64Array): { re: Float64Array; im: Float64Array } {
  const re = new Float64Array(samples.length + 1)
  const im = new Float64Array(samples.length + 1)
  let phase = 0
  for (let i = 0; i < samples.length; i++) {
    re[i + 1] = re[i]! + samples[i]! * Math.cos(phase)
    im[i + 1] = im[i]! - samples[i]! * Math.sin(phase)
    phase += (2 * Math.PI * hz[i]!) / rateHz
  }
  return { re, im }
}

function hzOf({ settlesHz, over, tau }: Fall, count: number, rateHz: number): Float64Array {
  const fade = Math.exp(-1 / (tau * rateHz))
  const hz = new Float64Array(count)
  for (let i = 0, above = over; i < count; i++, above *= fade) hz[i] = settlesHz * (1 + above)
  return hz
}

const TURN = 4096
/** A cosine by the share of a turn, in 4096 steps; a quarter of a turn earlier it is the sine. */
const cosines = Float64Array.from({ length: TURN }, (_, i) => Math.cos((2 * Math.PI * i) / TURN))

/** How much of the sound runs along a fall, 0 to 1. */
function shareAlong(samples: Float64Array, rateHz: number, { settlesHz, over, tau }: Fall, energy: number): number {
  const fade = Math.exp(-1 / (tau * rateHz))
  const perHz = TURN / rateHz
  let [along, re, im, phase, above, from] = [0, 0, 0, 0, over, 0]
  let to = Math.max(8, (PERIODS * rateHz) / (settlesHz * (1 + over)))
  for (let i = 0; i < samples.length; i++) {
    const place = phase & (TURN - 1)
    re += samples[i]! * cosines[place]!
    im += samples[i]! * cosines[(place - TURN / 4) & (TURN - 1)]!
    const hz = settlesHz * (1 + above)
    phase += hz * perHz
    above *= fade
    if (i + 1 < to && i + 1 < samples.length) continue
    along += (re * re + im * im) / (i + 1 - from)
    re = im = 0
    from = i + 1
    to = from + Math.max(8, (PERIODS * rateHz) / hz)
  }
  return (2 * along) / energy
}

interface Found {
  readonly fall: Fall
  readonly share: number
}

/** Step by finer step from a fall to the best one near it. */
function refined(found: Found, isFalling: boolean, shareOf: (fall: Fall) => number): Found {
  let best = found
  const ways = [-1, 1].flatMap((way) => [[way, 0, 0], ...(isFalling ? [[0, way, 0], [0, 0, way]] : [])]) // prettier-ignore
  for (let step = 0.06; step > 0.001; step /= 1.7)
    for (let isMoving = true, rounds = 0; isMoving && rounds < 12; rounds++) {
      isMoving = false
      for (const [deep, high, long] of ways) {
        const { settlesHz, over, tau } = best.fall
        const fall = {
          settlesHz: Math.max(LOWEST_HZ, settlesHz * (1 + deep! * step)),
          over: over + high! * step * (0.3 + Math.abs(over)),
          tau: Math.max(0.001, tau * (1 + 2 * long! * step)),
        }
        const share = shareOf(fall)
        if (share <= best.share) continue
        best = { fall, share }
        isMoving = true
      }
    }
  return best
}

/** The fall that most of the sound runs along: the best few of a grid, each refined. */
function bestFall(samples: Float64Array, rateHz: number): Found {
  let energy = 1e-12
  for (const sample of samples) energy += sample * sample
  const shareOf = (fall: Fall) => shareAlong(samples, rateHz, fall, energy)
  const better = (a: Found, b: Found) => (b.share > a.share ? b : a)
  const found = (fall: Fall): Found => ({ fall, share: shareOf(fall) })
  const count = Math.floor(Math.log2(HIGHEST_HZ / LOWEST_HZ) * STEPS_PER_OCTAVE) + 1
  const settling = Array.from({ length: count }, (_, i) => LOWEST_HZ * 2 ** (i / STEPS_PER_OCTAVE))
  const steady = refined(settling.map((settlesHz) => found({ settlesHz, over: 0, tau: 0.03 })).reduce(better), false, shareOf)
  const falling = settling
    .map((settlesHz) => OVERS.flatMap((over) => TAUS.map((tau) => found({ settlesHz, over, tau }))).reduce(better))
    .sort((a, b) => b.share - a.share)
    .slice(0, REFINED)
    .map((one) => refined(one, true, shareOf))
    .reduce(better)
  return falling.share - steady.share > BELIEVED ? falling : steady
}

/** The frequency along time that is near a fall: by how its phase turns against it, over more of its periods each time. */
function trackNear(samples: Float64Array, rateHz: number, fall: Fall): Float64Array {
  let hz = hzOf(fall, samples.length, rateHz)
  for (const periods of LISTENED) {
    const { re, im } = turnedBack(samples, rateHz, hz)
    const now = hz
    hz = now.map((at, i) => {
      const half = Math.max(4, Math.round((periods * rateHz) / at))
      const [from, to] = [Math.max(0, i - half), Math.min(samples.length, i + half)]
      if (to - from < 1.5 * half) return at
      const middle = (from + to) >> 1
      const [a, b] = [re[middle]! - re[from]!, im[middle]! - im[from]!]
      const [c, d] = [re[to]! - re[middle]!, im[to]! - im[middle]!]
      const turn = Math.atan2(a * d - b * c, a * c + b * d)
      const believed = Math.min(1, (i / half) ** 2)
      return Math.max(at / 2, at + (believed * turn * rateHz) / (2 * Math.PI * ((to - from) / 2)))
    })
  }
  return hz
}

/**
 * How the pitch of a struck sound moves, as a pitch envelope. The strongest falling tone f(t) = a (1 + b exp(-t / tau)) is
 * found by turning the sound back along it and measuring what then stands still over a period and a half (a chirp matched in
 * short pieces: Mann and Haykin, "The chirplet transform", 1995); its phase then corrects it where it falls otherwise.
 * Undefined where no single tone carries 40 % of the sound.
 */
export function followPitch(hit: RecordedHit): FollowedPitch | undefined {
  const { samples, rateHz } = listened(hit)
  if (samples.length < 0.02 * rateHz) return undefined
  const { fall, share } = bestFall(samples, rateHz)
  if (share < LEAST_SHARE) return undefined
  const track = trackNear(samples, rateHz, fall)
  const settlesHz = settledHz(track, samples)
  const seconds = samples.length / rateHz
  const first = 0.001
  const times = Float64Array.from({ length: PLACES }, (_, i) => (i === 0 ? 0 : first * (seconds / first) ** ((i - 1) / (PLACES - 1))))
  const values = times.map((at) => 1200 * Math.log2(track[Math.min(track.length - 1, Math.round(at * rateHz))]! / settlesHz))
  values[PLACES - 1] = 0
  const points = fitEnvelope({ seconds: times, values, wrong: (value, i) => Math.abs(value - values[i]!) / GOOD_CENTS }, MOST)
  const made = points.map(({ seconds: at, value, bend }) => ({ seconds: rounded(at, 5), value: Math.round(value) || 0, bend }))
  return { envelope: { points: made }, settlesHz, fallCents: made[0]!.value, share }
}

/** Where a track settles: the middle of its last third, heard as loud as it is. */
function settledHz(track: Float64Array, samples: Float64Array): number {
  let [sum, weight] = [0, 1e-12]
  for (let i = Math.floor((2 * track.length) / 3); i < track.length; i++) {
    const power = samples[i]! * samples[i]!
    sum += power * track[i]!
    weight += power
  }
  return sum / weight
}
