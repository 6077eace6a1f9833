import { createRandom, gaussian } from '../../demo/random'
import { REAL_RATE } from './material'
import type { RealStrike } from './material'

/** A recording composed of recorded impacts: where each begins, and which thing was struck. */
export interface RealScene {
  readonly samples: Float32Array
  readonly sampleRateHz: number
  /** The first frame of each strike that reaches 1 % (-40 dB) of that strike's own peak and the level of the noise. */
  readonly truth: readonly number[]
  /** The first frame of each that also stands over what sounds there of the strikes before it. */
  readonly told: readonly number[]
  readonly things: readonly string[]
}

/** How a recording is played. */
export interface Manner {
  readonly strikes: number
  readonly gapSeconds: readonly [number, number]
  /** Levels of the peaks, dBFS, drawn at random or rising from the first to the last. */
  readonly levelDb: readonly [number, number]
  readonly isRising?: boolean
  readonly noiseDb: number
  /** Only what goes by this name, if there is any. */
  readonly only?: RegExp
  /** Strikes that are over in this time, s. */
  readonly longest: number
}

export const manners: Record<string, Manner> = {
  sparse: { strikes: 40, gapSeconds: [0.8, 2.4], levelDb: [-14, -2], noiseDb: -66, longest: 1.5 },
  'soft to loud': { strikes: 40, gapSeconds: [0.7, 1.3], levelDb: [-38, -1], isRising: true, noiseDb: -70, longest: 1.2 },
  walking: { strikes: 60, gapSeconds: [0.45, 0.65], levelDb: [-12, -4], noiseDb: -62, only: /foot|step|fs_|land/, longest: 0.6 },
  dense: { strikes: 80, gapSeconds: [0.09, 0.25], levelDb: [-14, -2], noiseDb: -66, longest: 0.5 },
  noisy: { strikes: 50, gapSeconds: [0.5, 1.5], levelDb: [-6, -1], noiseDb: -40, longest: 1.2 },
}

const THINGS = 5
/** A file counts as one strike if nothing later in it comes near its peak again. */
const SECOND_SHARE = 0.5
const RISE_SECONDS = 0.02

/** A recording of a manner, made of a few of the things that a package holds. */
export function realScene(manner: Manner, strikes: readonly RealStrike[], seed: number): RealScene {
  const { strikes: count, gapSeconds, levelDb, isRising, noiseDb, only, longest } = manner
  const random = createRandom(seed)
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random()
  const usable = strikes.filter(({ samples }) => usableSeconds(samples) <= longest)
  const chosen = usable.filter(({ name }) => only?.test(name))
  const things = drawThings(chosen.length > 0 ? chosen : usable, random)
  const placed: { at: number; strike: RealStrike; gain: number }[] = []
  let at = 0.7
  let thing = 0
  for (let i = 0; i < count; i++) {
    if (i % Math.ceil(count / THINGS) === 0 || random() < 0.15) thing = Math.floor(random() * things.length)
    const strike = things[thing][Math.floor(random() * things[thing].length)]
    const level = isRising ? levelDb[0] + ((levelDb[1] - levelDb[0]) * i) / (count - 1) : between(levelDb)
    placed.push({ at, strike, gain: 10 ** (level / 20) / peak(strike.samples) })
    at += between(gapSeconds)
  }
  const samples = roomNoise(Math.round((at + 1) * REAL_RATE), noiseDb, random)
  const { truth, told } = mixed(samples, placed, noiseDb)
  const most = peak(samples)
  return {
    sampleRateHz: REAL_RATE,
    truth,
    told,
    things: placed.map(({ strike }) => strike.thing),
    samples: most > 0.99 ? samples.map((sample) => (sample * 0.99) / most) : samples,
  }
}

interface PlacedStrike {
  readonly at: number
  readonly strike: RealStrike
  readonly gain: number
}

/** Adds strikes to the noise of a room; where each begins, and where it stands over what sounds there already. */
function mixed(samples: Float32Array, placed: readonly PlacedStrike[], noiseDb: number): { truth: number[]; told: number[] } {
  const truth: number[] = []
  const told: number[] = []
  for (const { at, strike, gain } of placed) {
    const from = Math.round(at * REAL_RATE)
    const until = Math.round(lengthOf(strike.samples) * REAL_RATE)
    const begin = beginOf(strike.samples)
    const least = Math.max(0.01 * peak(strike.samples), 10 ** (noiseDb / 20) / gain)
    const before = peak(samples.subarray(Math.max(0, from - LOOK_FRAMES), from)) / gain
    truth.push(from + Math.max(0, firstAt(strike.samples, least) - begin))
    told.push(from + Math.max(0, firstAt(strike.samples, Math.max(least, before)) - begin))
    for (let i = 0; i < until && from + i < samples.length; i++) samples[from + i] += strike.samples[begin + i] * gain * faded(i, until)
  }
  return { truth, told }
}

/** Strikes at given times, s, each a take of its thing at a share of full level. */
export function placedScene(
  given: readonly { readonly at: number; readonly level: number; readonly takes: readonly RealStrike[] }[],
  noiseDb: number,
  random: () => number,
): Pick<RealScene, 'samples' | 'truth' | 'told'> {
  const placed = given.map(({ at, level, takes }) => {
    const strike = takes[Math.floor(random() * takes.length)]
    return { at, strike, gain: (0.5 * level) / peak(strike.samples) }
  })
  const samples = roomNoise(Math.round((Math.max(...given.map(({ at }) => at)) + 1) * REAL_RATE), noiseDb, random)
  const { truth, told } = mixed(samples, placed, noiseDb)
  const most = peak(samples)
  return { truth, told, samples: most > 0.99 ? samples.map((sample) => (sample * 0.99) / most) : samples }
}

/** The things of a package of which every take is one strike that is over in time, each with two takes or more. */
export function usableThings(strikes: readonly RealStrike[], longest: number): RealStrike[][] {
  const usable = strikes.filter(({ samples }) => usableSeconds(samples) <= longest)
  const names = [...new Set(usable.map(({ thing }) => thing))]
  return names.map((name) => usable.filter(({ thing }) => thing === name)).filter((takes) => takes.length > 1)
}

function drawThings(strikes: readonly RealStrike[], random: () => number): RealStrike[][] {
  const names = [...new Set(strikes.map(({ thing }) => thing))]
  return Array.from({ length: Math.min(THINGS, names.length) }, () => {
    const [name] = names.splice(Math.floor(random() * names.length), 1)
    return strikes.filter(({ thing }) => thing === name)
  })
}

const peak = (samples: Float32Array) => samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
const beginOf = (samples: Float32Array) => firstAt(samples, 0.01 * peak(samples))
const firstAt = (samples: Float32Array, level: number) => samples.findIndex((sample) => Math.abs(sample) >= level)
const FADE_FRAMES = 480
const faded = (i: number, until: number) => Math.min(1, (until - i) / FADE_FRAMES)

/** From the begin of the strike until it stays 46 dB under its peak, s. */
function lengthOf(samples: Float32Array): number {
  const level = 0.005 * peak(samples)
  let last = samples.length - 1
  while (last > 0 && Math.abs(samples[last]) < level) last--
  return (last - beginOf(samples)) / REAL_RATE
}

const LOOK_FRAMES = 480

const known = new WeakMap<Float32Array, number>()

/** How long a file sounds that is one strike, s; endless for all others. */
function usableSeconds(samples: Float32Array): number {
  let seconds = known.get(samples)
  if (seconds === undefined) known.set(samples, (seconds = isOneStrike(samples) ? lengthOf(samples) : Infinity))
  return seconds
}

/** Whether a file is one strike: it begins at once, and nothing 80 ms later rises near its peak again. Judged by its levels alone. */
function isOneStrike(samples: Float32Array): boolean {
  const top = peak(samples)
  if (top < 0.01 || lengthOf(samples) < 0.02) return false
  const begin = beginOf(samples)
  if (firstAt(samples, 0.5 * top) - begin > RISE_SECONDS * REAL_RATE) return false
  const levels: number[] = []
  for (let from = begin; from < samples.length; from += LOOK_FRAMES) levels.push(peak(samples.subarray(from, from + LOOK_FRAMES)))
  const highest = levels.indexOf(Math.max(...levels))
  let least = levels[highest]
  for (let i = highest; i < levels.length; i++) {
    least = Math.min(least, levels[i])
    if (i >= highest + 8 && levels[i] > SECOND_SHARE * top && levels[i] > 3 * least) return false
  }
  return highest < 8
}

/** Noise that falls by 3 dB an octave (after P. Kellet's filter of 1999), its level wandering by 1 dB or so. */
function roomNoise(frames: number, levelDb: number, random: () => number): Float32Array {
  const gain = 10 ** (levelDb / 20)
  const poles = [0.99886, 0.99332, 0.969, 0.8665, 0.55, -0.7616]
  const gains = [0.0555179, 0.0750759, 0.153852, 0.3104856, 0.5329522, -0.016898]
  const state = poles.map(() => 0)
  let wander = 0
  return Float32Array.from({ length: frames }, () => {
    const white = gaussian(random)
    let sum = 0.5362 * white
    for (let k = 0; k < poles.length; k++) {
      state[k] = poles[k] * state[k] + gains[k] * white
      sum += state[k]
    }
    wander += 0.002 * gaussian(random) - 4e-5 * wander
    return sum * PINK_RMS * gain * 10 ** (wander / 20)
  })
}

/** Brings that noise to an RMS of 1. */
const PINK_RMS = 0.325
