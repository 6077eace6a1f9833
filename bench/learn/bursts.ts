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

const TONE_RATES = [8000, 16000, 44100, 48000, 96000] as const

/** Plain damped tones, soft and loud, in a quiet room or in none at all, as what was synthesized comes; at rates low and high. */
export function toneScene(which: number, random: () => number): KnownRecording {
  const between = (low: number, high: number) => low + (high - low) * random()
  const rate = TONE_RATES[which % TONE_RATES.length]!
  const noise = random() < 0.5 ? 0 : 10 ** (between(-90, -55) / 20)
  const range = between(3, 32)
  const gap = between(0.12, 0.7)
  const pitches = Array.from({ length: 1 + Math.floor(random() * 6) }, () => Math.min(0.35 * rate, 90 * 2 ** between(0, 6)))
  const ring = between(0.02, 0.2)
  const truth: number[] = []
  for (let at = 0.4; truth.length < 30; at += gap * between(0.8, 1.6)) truth.push(at)
  const samples = Float32Array.from({ length: Math.round((truth[truth.length - 1]! + 1) * rate) }, () => noise * (2 * random() - 1))
  for (const at of truth) {
    const level = 0.8 * 10 ** (-between(0, range) / 20)
    const hz = pitches[Math.floor(random() * pitches.length)]!
    const from = Math.round(at * rate)
    for (let i = 0; i < 8 * ring * rate && from + i < samples.length; i++)
      samples[from + i]! += level * Math.exp(-i / (ring * rate)) * Math.sin((2 * Math.PI * hz * (i + 1)) / rate)
  }
  return { samples, sampleRateHz: rate, truth }
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
