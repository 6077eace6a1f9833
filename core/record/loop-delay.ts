import FFT from 'fft.js'

/** A sound that is found again in any recording of it. */
export const CHIRP_SECONDS = 0.02
const FROM_HZ = 1500
const TO_HZ = 7500

/** How often the chirp is sent, and how long is waited between. */
export const CHIRPS = 5
export const CHIRP_EVERY_SECONDS = 0.6

/** A linear chirp under a Hann window, -1..1, at a rate in Hz. */
export function chirp(rateHz: number): Float32Array {
  const frames = Math.round(CHIRP_SECONDS * rateHz)
  const samples = new Float32Array(frames)
  for (let i = 0; i < frames; i++) {
    const t = i / rateHz
    const phase = 2 * Math.PI * (FROM_HZ * t + ((TO_HZ - FROM_HZ) * t * t) / (2 * CHIRP_SECONDS))
    samples[i] = Math.sin(phase) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / frames))
  }
  return samples
}

export interface LoopDelay {
  /** From sending a frame to recording it again, seconds. */
  readonly seconds: number
  /** How far the single chirps differ, seconds. */
  readonly spreadSeconds: number
}

/** No chain of speaker and microphone takes longer. */
const MOST_SECONDS = 0.55
/** A room's first sound may be weaker than what comes back from its walls. */
const FIRST_SHARE = 0.5
/** How far the best place must stand out above what is found by chance. */
const CLEAR = 6
/** How like the chirp it must be, 0..1. */
const LIKE = 0.15

/**
 * How long sound takes from the output to the input, by the chirps in a recording of them: `sentFrames` count from the
 * recording's first frame and may lie before it. Each frame of delay is compared with all chirps together (a matched filter,
 * after G. Turin, "An introduction to matched filters", IRE Trans. Inf. Theory 6, 1960); a sentence where none stands out.
 */
export function loopDelay(recorded: Float32Array, rateHz: number, sentFrames: readonly number[]): LoopDelay | string {
  const shape = chirp(rateHz)
  const most = Math.round(MOST_SECONDS * rateHz)
  const single = sentFrames.map((sent) => likeness(recorded, shape, sent, most))
  const all = new Float64Array(most)
  for (let lag = 0; lag < most; lag++) all[lag] = single.reduce((sum, one) => sum + one[lag]!, 0) / sentFrames.length
  const best = firstPeak(all, rateHz)
  const middle = Float64Array.from(all, Math.abs).sort()[most >> 1]!
  if (Math.abs(all[best]!) < Math.max(LIKE, CLEAR * middle))
    return 'The microphone did not hear the chirps. Turn the speaker up, use no headphones, and try again.'
  const near = Math.round(0.002 * rateHz)
  const places = single.map((one) => strongest(one, Math.max(0, best - near), Math.min(most, best + near)))
  return { seconds: best / rateHz, spreadSeconds: (Math.max(...places) - Math.min(...places)) / rateHz }
}

/** Below this share of the energy of the loudest place nothing is compared: what rounding leaves would be. */
const LEAST_ENERGY = 1e-10

/** How alike a recording is to a shape at each frame after `from`, -1..1: all products at once by spectra, energies by running sums. */
function likeness(recorded: Float32Array, shape: Float32Array, from: number, count: number): Float64Array {
  const heard = new Float64Array(count + shape.length)
  for (let i = 0; i < heard.length; i++) heard[i] = recorded[from + i] ?? 0
  const products = correlation(heard, shape)
  const energies = runningEnergy(heard, shape.length)
  const shapeEnergy = shape.reduce((sum, x) => sum + x * x, 0)
  const least = LEAST_ENERGY * energies.reduce((most, energy) => Math.max(most, energy), 0)
  const isWhole = (lag: number) => from + lag >= 0 && from + lag + shape.length <= recorded.length
  return Float64Array.from({ length: count }, (_, lag) =>
    isWhole(lag) && energies[lag]! > least ? products[lag]! / Math.sqrt(energies[lag]! * shapeEnergy) : 0,
  )
}

/** The sum of products of the shape and what is heard from each place on. */
function correlation(heard: Float64Array, shape: Float32Array): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(heard.length + shape.length))
  const fft = new FFT(size)
  const spectrumOf = (samples: ArrayLike<number>) => {
    const padded = new Float64Array(size)
    padded.set(samples)
    const spectrum = fft.createComplexArray()
    fft.realTransform(spectrum, padded)
    fft.completeSpectrum(spectrum)
    return spectrum
  }
  const [one, other] = [spectrumOf(heard), spectrumOf(shape)]
  for (let i = 0; i < 2 * size; i += 2) {
    const real = one[i]! * other[i]! + one[i + 1]! * other[i + 1]!
    one[i + 1] = one[i + 1]! * other[i]! - one[i]! * other[i + 1]!
    one[i] = real
  }
  const back = fft.createComplexArray()
  fft.inverseTransform(back, one)
  return Float64Array.from({ length: heard.length }, (_, i) => back[2 * i]!)
}

/** The energy of so many frames from each place on. */
function runningEnergy(heard: Float64Array, length: number): Float64Array {
  const sums = new Float64Array(heard.length + 1)
  for (let i = 0; i < heard.length; i++) sums[i + 1] = sums[i]! + heard[i]! * heard[i]!
  return Float64Array.from({ length: heard.length - length }, (_, i) => sums[i + length]! - sums[i]!)
}

function strongest(values: Float64Array, from: number, to: number): number {
  let best = from
  for (let i = from; i < to; i++) if (Math.abs(values[i]!) > Math.abs(values[best]!)) best = i
  return best
}

/** The first place that is nearly as like as the best one, at its own top. */
function firstPeak(values: Float64Array, rateHz: number): number {
  const top = Math.abs(values[strongest(values, 0, values.length)]!)
  const first = values.findIndex((value) => Math.abs(value) >= FIRST_SHARE * top)
  return strongest(values, first, Math.min(values.length, first + Math.round(0.001 * rateHz)))
}
