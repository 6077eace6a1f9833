import type { KnownRecording } from './lessons'

const RATE = 48000
const KINDS = ['toes', 'roll', 'flam', 'loud and soft'] as const

/** Bursts of damped noise in a quiet room: steps with heel and toe, rolls, flams, or loud and soft ones by turns. */
export function burstScene(which: number, random: () => number): KnownRecording {
  const between = (low: number, high: number) => low + (high - low) * random()
  const kind = KINDS[which % KINDS.length]!
  const noise = 10 ** (between(-74, -46) / 20)
  const ring = between(0.008, 0.05)
  const dull = between(0.05, 1)
  const gap = kind === 'roll' ? between(0.085, 0.3) : between(0.45, 1.1)
  const truth: number[] = []
  const hits: [at: number, level: number][] = []
  for (let i = 0; i < (kind === 'roll' ? 50 : 24); i++) {
    const at = 0.5 + gap * i + between(0, 0.06 * gap)
    const level = between(0.3, 0.8)
    truth.push(at)
    if (kind === 'flam') hits.push([at, level * between(0.45, 0.8)], [at + between(0.02, 0.045), level])
    else hits.push([at, kind === 'loud and soft' && i % 2 === 0 ? level * between(0.02, 0.06) : level])
    if (kind === 'toes') hits.push([at + between(0.06, 0.13), level * between(0.12, 0.4)])
    if (kind === 'toes' && random() < 0.3) hits.push([at + between(0.15, 0.2), level * between(0.05, 0.12)])
  }
  const samples = Float32Array.from({ length: Math.round((truth[truth.length - 1]! + 1.2) * RATE) }, () => noise * (2 * random() - 1))
  for (const [at, level] of hits) {
    const from = Math.round(at * RATE)
    let low = 0
    for (let i = 0; i < 8 * ring * RATE && from + i < samples.length; i++) {
      low += dull * (2 * random() - 1 - low)
      samples[from + i]! += (level * Math.exp(-i / (ring * RATE)) * low) / Math.sqrt(dull)
    }
  }
  return { samples, sampleRateHz: RATE, truth }
}

const COMB_SECONDS = [0.0297, 0.0371, 0.0411, 0.0437, 0.0533, 0.0617]

/** A room of parallel combs, each with a low pass in its way back (J. A. Moorer, 1979), 16 to 34 dB under the sound. */
export function inCombRoom(dry: Float32Array, sampleRateHz: number, random: () => number): Float32Array {
  const wet = 10 ** (-(16 + 18 * random()) / 20)
  const fall = 0.15 + 0.75 * random()
  const out = dry.slice()
  for (const seconds of COMB_SECONDS) {
    const line = new Float32Array(Math.round(seconds * sampleRateHz))
    const back = 10 ** ((-3 * seconds) / fall)
    let low = 0
    let at = 0
    for (let i = 0; i < dry.length; i++) {
      const heard = line[at]!
      low += 0.5 * (heard - low)
      line[at] = dry[i]! + back * low
      at = at + 1 === line.length ? 0 : at + 1
      out[i]! += wet * heard
    }
  }
  return out
}
