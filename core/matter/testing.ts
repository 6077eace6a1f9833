import { createDraws, normalDraw } from './random'

export const RATE = 48000

interface Strike {
  readonly hz: number
  readonly seconds: number
  /** Level of the noise that begins it. */
  readonly noise: number
  readonly seed: number
  /** Silence before it, frames. */
  readonly lead?: number
}

/** A strike of a few tones that are no multiples of each other, with a burst of noise. */
export function madeStrike({ hz, seconds, noise, seed, lead = 0 }: Strike): Float32Array {
  const random = createDraws(seed)
  const samples = new Float32Array(lead + Math.round(2.2 * seconds * RATE))
  const tones = [1, 1.59, 2.76, 4.1].map((ratio, i) => ({
    hz: hz * ratio,
    level: 0.4 / (1 + i),
    seconds: seconds / (3 + i),
    phase: 6.28 * random(),
  }))
  for (let i = lead; i < samples.length; i++) {
    const t = (i - lead) / RATE
    for (const tone of tones)
      samples[i]! += tone.level * Math.exp(-t / tone.seconds) * Math.sin(2 * Math.PI * tone.hz * t + tone.phase) * Math.min(1, t / 0.0004)
    samples[i]! += noise * normalDraw(random) * Math.exp(-t / 0.004)
  }
  return samples
}

/** Noise of deviation 1, or deep noise below `hz`. */
export function noiseOf(length: number, seed: number, hz?: number): Float32Array {
  const random = createDraws(seed)
  const share = hz === undefined ? 1 : 1 - Math.exp((-2 * Math.PI * hz) / RATE)
  let [one, two] = [0, 0]
  return Float32Array.from({ length }, () => {
    one += share * (normalDraw(random) - one)
    two += share * (one - two)
    return hz === undefined ? one : two
  })
}

/** How far the difference of two sounds lies under the first, dB. */
export function differenceDb(wanted: Float32Array, got: Float32Array): number {
  let [power, error] = [1e-30, 1e-30]
  for (let i = 0; i < wanted.length; i++) {
    power += wanted[i]! ** 2
    error += (wanted[i]! - (got[i] ?? 0)) ** 2
  }
  return 10 * Math.log10(error / power)
}

/** The level of a noise around a frequency (a third of an octave), dB, summed from single frequencies. */
export function bandLevelDb(samples: Float32Array, hz: number): number {
  let sum = 0
  const count = 9
  for (let k = 0; k < count; k++) {
    const turn = (2 * Math.PI * hz * 2 ** ((k / (count - 1) - 0.5) / 3)) / RATE
    let [re, im] = [0, 0]
    for (let i = 0; i < samples.length; i++) {
      const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / samples.length)
      re += window * samples[i]! * Math.cos(turn * i)
      im += window * samples[i]! * Math.sin(turn * i)
    }
    sum += (re * re + im * im) / samples.length
  }
  return 10 * Math.log10(sum / count)
}
