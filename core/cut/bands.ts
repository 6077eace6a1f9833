import { passSection } from '../audio/biquad'
import type { Biquad } from '../audio/biquad'

/** Mean energy per hop of one frequency band. */
export type BandEnergy = Float32Array

/** Bands an octave and a half wide or more; rings of low modes hardly reach into the high ones. */
export const BAND_EDGES_HZ = [40, 160, 500, 1500, 4500, 9000] as const
/** A band is looked at on a signal whose rate is at least this many times its upper edge. */
const OVERSAMPLING = 2.5
/** A band that begins above this share of the rate cannot be told apart. */
const HIGHEST_SHARE = 0.42

/** Samples that go through all bands at a time, so that an hour needs no more memory than a minute. */
const PIECE_SAMPLES = 1 << 15

/** The energies of each band of `BAND_EDGES_HZ` that the sample rate can hold, in hops of `hopFrames`. */
export function bandEnergies(mono: Float32Array, sampleRateHz: number, hopFrames: number): BandEnergy[] {
  const dc = beginsAt(mono, sampleRateHz)
  const stages = stagesOf(sampleRateHz, hopFrames, Math.floor(mono.length / hopFrames), dc)
  for (let from = 0; from < mono.length; from += PIECE_SAMPLES) {
    let samples = mono.subarray(from, Math.min(mono.length, from + PIECE_SAMPLES))
    for (const stage of stages) {
      for (const half of stage.halves) samples = halved(samples, half)
      for (const meter of stage.meters) measure(meter, samples)
    }
  }
  return stages
    .flatMap(({ meters }) => meters)
    .map(({ energy }) => energy)
    .reverse()
}

/** A rate at which some bands are measured, and the halvings that lead to it from the rate before. */
interface Stage {
  readonly halves: Half[]
  readonly meters: Meter[]
}

/** Bands from high to low, each at the lowest rate that holds it. */
function stagesOf(sampleRateHz: number, hopFrames: number, hops: number, dc: number): Stage[] {
  const stages: Stage[] = []
  let rate = sampleRateHz
  for (let band = BAND_EDGES_HZ.length - 1; band >= 0; band--) {
    const lowHz = BAND_EDGES_HZ[band]
    if (lowHz > sampleRateHz * HIGHEST_SHARE) continue
    const highHz: number | undefined = BAND_EDGES_HZ[band + 1]
    const halves: Half[] = []
    while (highHz !== undefined && rate >= 2 * OVERSAMPLING * highHz) {
      rate /= 2
      halves.push({ before: dc, out: new Float32Array(PIECE_SAMPLES) })
    }
    const meter = { filter: passSection('high', lowHz, rate), hopSamples: (hopFrames * rate) / sampleRateHz, energy: new Float32Array(hops), dc, ...AT_REST } // prettier-ignore
    stages.push({ halves, meters: [meter] })
  }
  return stages
}

interface Half {
  /** The last sample of the piece before. */
  before: number
  readonly out: Float32Array
}

/** Every second sample of the means of neighbours' means, which has a zero where the fold lies. */
function halved(samples: Float32Array, half: Half): Float32Array {
  const count = samples.length >> 1
  const { out } = half
  let before = half.before
  for (let i = 0, at = 0; i < count; i++, at += 2) {
    const next = samples[at + 1]
    out[i] = 0.25 * (before + 2 * samples[at] + next)
    before = next
  }
  half.before = before
  return out.subarray(0, count)
}

/** Keeps what rings out in a filter from becoming numbers so small that processors grow slow. */
const HUSH = 1e-18

/** Mean square, hop by hop, of what a high pass leaves; what is above the band has gone with the rate. */
interface Meter {
  readonly filter: Biquad
  readonly hopSamples: number
  readonly energy: BandEnergy
  /** What the wave stands off the middle: that it begins there is no strike. */
  readonly dc: number
  y1: number
  y2: number
  /** The hop that is being summed, its sum, where it began, and how many samples there were. */
  hop: number
  sum: number
  from: number
  seen: number
}

const AT_REST = { y1: 0, y2: 0, hop: 0, sum: 0, from: 0, seen: 0 }

function measure(meter: Meter, samples: Float32Array): void {
  const { filter, hopSamples, energy } = meter
  const offset = HUSH - meter.dc
  const { b0, b1, b2, a1, a2 } = filter
  let { y1, y2, hop, sum } = meter
  let i = 0
  while (hop < energy.length) {
    const end = Math.round((hop + 1) * hopSamples) - meter.seen
    const until = Math.min(samples.length, end)
    for (; i < until; i++) {
      const x = samples[i] + offset
      const y = b0 * x + y1
      y1 = b1 * x - a1 * y + y2
      y2 = b2 * x - a2 * y
      sum += y * y
    }
    if (end > samples.length) break
    const count = meter.seen + end - meter.from
    energy[hop] = count > 0 ? sum / count : (energy[hop - 1] ?? 0)
    meter.from = meter.seen + end
    sum = 0
    hop++
  }
  meter.seen += samples.length
  Object.assign(meter, { y1, y2, hop, sum })
}

/** A beginning is looked at for so long, and is quiet while it moves by less than this share of what the whole does. */
const BEGIN_SECONDS = [0.005, 0.05] as const
const QUIET_SHARE = 0.1

/**
 * Where the wave stands as a recording begins: the mean of its quiet beginning, or, where it begins with a strike, of all.
 * A recording that begins with silence, or with the hiss of a room, begins with no step.
 */
function beginsAt(mono: Float32Array, sampleRateHz: number): number {
  const whole = rangeOf(mono, 0, mono.length, MEAN_STEP)
  const [least, most] = BEGIN_SECONDS.map((seconds) => Math.round(seconds * sampleRateHz))
  let end = Math.min(mono.length, most)
  while (end >= least && rangeOf(mono, 0, end, 1) > QUIET_SHARE * whole) end = Math.floor(end / 2)
  return end >= least ? meanOf(mono.subarray(0, end), 1) : meanOf(mono)
}

function rangeOf(mono: Float32Array, from: number, to: number, step: number): number {
  let low = Infinity
  let high = -Infinity
  for (let i = from; i < to; i += step) {
    if (mono[i] < low) low = mono[i]
    if (mono[i] > high) high = mono[i]
  }
  return Math.max(0, high - low)
}

const MEAN_STEP = 7

/** The mean of every few samples: DC does not change from one to the next. */
export function meanOf(mono: Float32Array, step = MEAN_STEP): number {
  let sum = 0
  let count = 0
  for (let i = 0; i < mono.length; i += step, count++) sum += mono[i]
  return count > 0 ? sum / count : 0
}
