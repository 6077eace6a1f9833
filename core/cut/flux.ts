import FFT from 'fft.js'

import { quantile } from './strength'

/** Values of the flux in a second. */
export const FLUX_PER_SECOND = 100
const FRAME_SECONDS = 2048 / 44100
const BANDS_PER_OCTAVE = 24
const LOWEST_HZ = 27.5
const HIGHEST_HZ = 10500
/** A recording of so high a rate is read at half of it. */
const HALVED_FROM_HZ = 40000
/** A band is heard over so much of its own room, and over so much of all of what is loud. */
const OVER_ROOM = 3
const OVER_LOUD = 0.001
const ROOM_QUANTILE = 0.2
const LOUD_QUANTILE = 0.95
/** Rooms are told from at most so many spectra, spread evenly. */
const SPECTRA_FOR_ROOM = 300

/**
 * How much the spectrum rises at each moment, `FLUX_PER_SECOND` values a second, 0 and up: the mean rise of logarithmic
 * magnitudes in quarter tones from 27.5 Hz to 10.5 kHz over the highest of the neighbouring bands 10 ms before, so that what
 * only wavers does not rise (S. Böck and G. Widmer, "Maximum filter vibrato suppression for onset detection", DAFx 2013).
 * Each band counts over what the room sounds like in it, so that neither the gain of a recording nor its hiss is told.
 */
export function spectralFlux(mono: Float32Array, sampleRateHz: number): Float32Array {
  const { frames, bands, readTwo } = spectraOf(mono, sampleRateHz)
  const { rooms, gains } = roomsOf(frames, bands, readTwo)
  const flux = new Float32Array(frames)
  const two = [new Float32Array(bands), new Float32Array(bands)] as const
  let [before, now] = [new Float32Array(bands), new Float32Array(bands)]
  overRoom(rooms, gains, before)
  for (let frame = 0; frame < frames; frame += 2) {
    readTwo(frame, frame + 1, ...two)
    for (let i = 0; i < 2 && frame + i < frames; i++) {
      overRoom(two[i], gains, now)
      flux[frame + i] = riseOver(before, now)
      ;[before, now] = [now, before]
    }
  }
  return flux
}

function overRoom(magnitudes: Float32Array, gains: Float32Array, into: Float32Array): void {
  for (let band = 0; band < gains.length; band++) into[band] = Math.log10(1 + magnitudes[band] * gains[band])
}

function riseOver(before: Float32Array, now: Float32Array): number {
  let sum = 0
  for (let band = 0; band < now.length; band++) {
    let most = before[band]
    if (band > 0 && before[band - 1] > most) most = before[band - 1]
    if (band + 1 < now.length && before[band + 1] > most) most = before[band + 1]
    if (now[band] > most) sum += now[band] - most
  }
  return now.length > 0 ? (100 * sum) / now.length : 0
}

/** Reads the magnitudes of each band at two moments: one transform gives both. */
type ReadTwo = (one: number, other: number, intoOne: Float32Array, intoOther: Float32Array) => void

/** What the room sounds like in each band, and what its magnitudes are multiplied by. */
function roomsOf(frames: number, bands: number, readTwo: ReadTwo): { rooms: Float32Array; gains: Float32Array } {
  const count = 2 * Math.floor(Math.min(frames, SPECTRA_FOR_ROOM) / 2)
  const some = Array.from({ length: count }, () => new Float32Array(bands))
  const frameOf = (i: number) => Math.floor((i * frames) / count)
  for (let i = 0; i < count; i += 2) readTwo(frameOf(i), frameOf(i + 1), some[i], some[i + 1])
  const rooms = Float32Array.from({ length: bands }, (_, band) => quantile(Float32Array.from(some, (spectrum) => spectrum[band]), ROOM_QUANTILE))
  const means = Float32Array.from(some, (spectrum) => spectrum.reduce((sum, magnitude) => sum + magnitude, 0) / bands)
  const least = OVER_LOUD * quantile(means, LOUD_QUANTILE) + 1e-9
  return { rooms, gains: rooms.map((room) => 1 / (OVER_ROOM * room + least)) }
} // prettier-ignore

/** The spectra of a recording, of frames of about 46 ms that have their moment in their middle. */
function spectraOf(mono: Float32Array, sampleRateHz: number): { frames: number; bands: number; readTwo: ReadTwo } {
  const every = sampleRateHz >= HALVED_FROM_HZ ? 2 : 1
  const rateHz = sampleRateHz / every
  const length = Math.floor(mono.length / every)
  const size = 2 ** Math.round(Math.log2(FRAME_SECONDS * rateHz))
  const hop = rateHz / FLUX_PER_SECOND
  const fft = new FFT(size)
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
  const filters = quarterTones(size, rateHz)
  const input = new Float64Array(2 * size)
  const out = new Float64Array(2 * size)
  const [ones, others] = [new Float64Array(size / 2), new Float64Array(size / 2)]
  const sampleAt = every === 2 ? (at: number) => halvedAt(mono, 2 * at) : (at: number) => mono[at]
  const put = (frame: number, part: number) => {
    const from = Math.round(frame * hop) - size / 2
    const end = Math.min(size, length - from)
    let i = 0
    for (; i < -from; i++) input[2 * i + part] = 0
    for (; i < end; i++) input[2 * i + part] = sampleAt(from + i) * window[i]
    for (; i < size; i++) input[2 * i + part] = 0
  }
  const readTwo: ReadTwo = (one, other, intoOne, intoOther) => {
    put(one, 0)
    put(other, 1)
    fft.transform(out as unknown as number[], input as unknown as number[])
    partTwo(out, ones, others)
    sumBands(filters, ones, intoOne)
    sumBands(filters, others, intoOther)
  }
  return { frames: Math.ceil(length / hop), bands: filters.length, readTwo }
} // prettier-ignore

/** A sample and its neighbours, where every second one is read: a mean of their means. */
function halvedAt(mono: Float32Array, at: number): number {
  return 0.25 * ((at > 0 ? mono[at - 1] : 0) + 2 * mono[at] + mono[at + 1])
}

/** The magnitudes of two real signals of which one was put into the transform as its real part, the other as the imaginary. */
function partTwo(out: Float64Array, ones: Float64Array, others: Float64Array): void {
  const size = 2 * ones.length
  for (let bin = 1; bin < ones.length; bin++) {
    const [re, im, mirroredRe, mirroredIm] = [out[2 * bin], out[2 * bin + 1], out[2 * (size - bin)], out[2 * (size - bin) + 1]]
    ones[bin] = 0.5 * Math.sqrt((re + mirroredRe) * (re + mirroredRe) + (im - mirroredIm) * (im - mirroredIm))
    others[bin] = 0.5 * Math.sqrt((im + mirroredIm) * (im + mirroredIm) + (mirroredRe - re) * (mirroredRe - re))
  }
}

function sumBands(filters: readonly BandFilter[], magnitudes: Float64Array, into: Float32Array): void {
  for (let band = 0; band < filters.length; band++) {
    const { from, weights } = filters[band]
    let sum = 0
    for (let i = 0; i < weights.length; i++) sum += weights[i] * magnitudes[from + i]
    into[band] = sum
  }
}

interface BandFilter {
  readonly from: number
  readonly weights: Float64Array
}

/** Triangles a quarter tone apart; where bins are wider than that, each bin once. */
function quarterTones(size: number, sampleRateHz: number): BandFilter[] {
  const middles: number[] = []
  for (let hz = LOWEST_HZ; hz <= Math.min(HIGHEST_HZ, sampleRateHz / 2); hz *= 2 ** (1 / BANDS_PER_OCTAVE)) {
    const bin = Math.round((hz * size) / sampleRateHz)
    if (bin > (middles[middles.length - 1] ?? 0)) middles.push(bin)
  }
  return middles.slice(1, -1).map((middle, i) => {
    const [low, high] = [middles[i], middles[i + 2]]
    const weights = Float64Array.from({ length: high - low - 1 }, (_, k) => Math.min((k + 1) / (middle - low), (high - low - 1 - k) / (high - middle)))
    return { from: low + 1, weights }
  })
} // prettier-ignore
