import { createRandom, gaussian } from '../demo/random'

/** A recording of impacts and the first frame of each that reaches 1 % (-40 dB) of that strike's own peak, before room and noise. */
export interface ImpactScene {
  readonly name: string
  readonly sampleRateHz: number
  readonly samples: Float32Array
  readonly truth: number[]
  /** For each strike, the frame from which on it is under the room, noise and hum. */
  readonly audibleUntil: number[]
}

export interface SceneWish {
  readonly name: string
  readonly seed: number
  readonly seconds: number
  /** Silence between the beginnings of two strikes, s. */
  readonly gapSeconds: readonly [number, number]
  /** Level of the strikes' peaks, dBFS. */
  readonly levelDb: readonly [number, number]
  readonly noiseDb: number
  readonly humDb?: number
  readonly humHz?: 50 | 60
  /** Time for the room to fall by 60 dB, s, and its level against the strike, dB. */
  readonly room?: { readonly seconds: number; readonly levelDb: number }
  /** Longest ring of what is struck, s. */
  readonly longestRing: number
  readonly sampleRateHz?: number
  readonly things?: number
}

interface Body {
  readonly modes: { hz: number; level: number; seconds: number }[]
  readonly contactSeconds: number
  readonly noise: number
  readonly noiseSeconds: number
  readonly noiseHz: number
}

/** Struck bodies made up at random (damped modes, a contact of some length, a burst of noise), in a room, with noise and hum. */
export function impactScene(wish: SceneWish): ImpactScene {
  const rate = wish.sampleRateHz ?? 48000
  const random = createRandom(wish.seed)
  const between = (low: number, high: number) => low + (high - low) * random()
  const frames = Math.round(wish.seconds * rate)
  const dry = new Float64Array(frames)
  const bodies = Array.from({ length: wish.things ?? 5 }, () => body(between, wish.longestRing))
  const truth: number[] = []
  const audibleUntil: number[] = []
  let at = 0.6
  let run = 0
  let which = 0
  while (at < wish.seconds - 0.6) {
    if (run-- <= 0) {
      run = 3 + Math.floor(random() * 8)
      which = Math.floor(random() * bodies.length)
    }
    const sound = strike(bodies[which], rate, random)
    const peak = sound.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
    const level = 10 ** (between(...wish.levelDb) / 20) / peak
    const from = Math.round(at * rate)
    for (let i = 0; i < sound.length && from + i < frames; i++) dry[from + i] += sound[i] * level
    truth.push(from + sound.findIndex((sample) => Math.abs(sample) >= 0.01 * peak))
    audibleUntil.push(from + lastAbove(sound, 10 ** (wish.noiseDb / 20) / level, rate))
    at += between(...wish.gapSeconds)
  }
  const samples = wish.room ? inRoom(dry, rate, wish.room, random) : dry
  addBackground(samples, rate, wish, random)
  const most = samples.reduce((high, sample) => Math.max(high, Math.abs(sample)), 0)
  return {
    name: wish.name,
    sampleRateHz: rate,
    truth,
    audibleUntil,
    samples: Float32Array.from(samples, (sample) => (most > 1 ? sample / most : sample)),
  }
}

const LEVEL_SECONDS = 0.01

/** The end of the last 10 ms whose RMS is above a level. */
function lastAbove(sound: Float64Array, level: number, rate: number): number {
  const length = Math.round(LEVEL_SECONDS * rate)
  for (let from = sound.length - length; from > 0; from -= length) {
    let power = 0
    for (let i = from; i < from + length; i++) power += sound[i] * sound[i]
    if (power / length > level * level) return from + length
  }
  return 0
}

function body(between: (low: number, high: number) => number, longestRing: number): Body {
  const lowest = 60 * 2 ** between(0, 5.5)
  const count = Math.round(between(3, 12))
  const ring = 0.04 * (longestRing / 0.04) ** between(0, 1)
  const modes = Array.from({ length: count }, (_, i) => ({
    hz: Math.min(15000, lowest * (1 + i * between(0.4, 1.1))),
    level: between(0.3, 1) / (1 + 0.4 * i),
    seconds: ring / (1 + 0.35 * i),
  }))
  return {
    modes,
    contactSeconds: 0.0002 * 15 ** between(0, 1),
    noise: between(0, 0.8),
    noiseSeconds: between(0.01, 0.15),
    noiseHz: 800 * 2 ** between(0, 3.5),
  }
}

/** The modes struck by a half sine of the contact's length: a mode faster than the contact hardly speaks. */
function strike(given: Body, rate: number, random: () => number): Float64Array {
  const longest = Math.max(given.noiseSeconds, ...given.modes.map((mode) => mode.seconds))
  const out = new Float64Array(Math.ceil(Math.min(4, longest + 0.02) * rate))
  const contact = Math.max(2, Math.round(given.contactSeconds * (0.8 + 0.4 * random()) * rate))
  for (const { hz, level, seconds } of given.modes) {
    if (hz > rate * 0.45) continue
    // A resonator driven by the contact pulse.
    const radius = Math.exp(-6.9078 / (seconds * rate))
    const turn = (2 * Math.PI * hz * (1 + 0.003 * gaussian(random))) / rate
    const [a1, a2] = [2 * radius * Math.cos(turn), -radius * radius]
    const drive = (level * Math.sin(turn) * (0.7 + 0.6 * random())) / contact
    let y1 = 0
    let y2 = 0
    for (let i = 0; i < out.length; i++) {
      const push = i < contact ? Math.sin((Math.PI * (i + 0.5)) / contact) * drive : 0
      const y = push + a1 * y1 + a2 * y2
      y2 = y1
      y1 = y
      out[i] += y
    }
  }
  const step = 1 - Math.exp((-2 * Math.PI * given.noiseHz) / rate)
  const fall = Math.exp(-6.9078 / (given.noiseSeconds * rate))
  let level = given.noise * out.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
  let low = 0
  for (let i = 0; i < out.length; i++) {
    low += step * (2 * random() - 1 - low)
    out[i] += (i < contact ? (i + 1) / contact : 1) * level * low
    level *= fall
  }
  return out
}

/** A few early reflections and a tail of decaying noise (as velvet noise: B. Holm-Rasmussen, H.-M. Lehtonen, V. Välimäki, 2013). */
function inRoom(dry: Float64Array, rate: number, room: NonNullable<SceneWish['room']>, random: () => number): Float64Array {
  const out = dry.slice()
  const gain = 10 ** (room.levelDb / 20)
  const taps: [number, number][] = []
  for (let i = 0; i < 5; i++)
    taps.push([Math.round((0.002 + 0.02 * random()) * rate), gain * (0.4 + 0.6 * random()) * (random() < 0.5 ? -1 : 1)])
  for (let at = 0.012 * rate; at < room.seconds * rate; at += rate / 900) {
    const fall = 10 ** ((-60 * at) / (room.seconds * rate) / 20)
    taps.push([Math.round(at + (rate / 900) * random()), 0.25 * gain * fall * (random() < 0.5 ? -1 : 1)])
  }
  for (const [delay, level] of taps) for (let i = delay; i < out.length; i++) out[i] += level * dry[i - delay]
  return out
}

function addBackground(samples: Float64Array, rate: number, wish: SceneWish, random: () => number): void {
  const level = 10 ** (wish.noiseDb / 20)
  const hum = 10 ** ((wish.humDb ?? -200) / 20)
  const hz = wish.humHz ?? 50
  let low = 0
  for (let i = 0; i < samples.length; i++) {
    const white = gaussian(random)
    low += 0.02 * (white - low)
    const t = (2 * Math.PI * hz * i) / rate
    samples[i] += level * (0.5 * white + 5 * low) + hum * (Math.sin(t) + 0.5 * Math.sin(2 * t + 1) + 0.3 * Math.sin(3 * t + 2))
  }
}

/** Rooms, levels, hum and pace as they come; `seed` decides what is struck and when. */
export function sceneWishes(seed: number, seconds = 40): SceneWish[] {
  const shed = { seconds: 0.35, levelDb: -16 }
  const hall = { seconds: 0.9, levelDb: -20 }
  return [
    { name: 'walk, dry', seed, seconds, gapSeconds: [0.35, 0.9], levelDb: [-30, 0], noiseDb: -66, longestRing: 0.6 },
    { name: 'walk, shed', seed: seed + 1, seconds, gapSeconds: [0.3, 0.8], levelDb: [-30, 0], noiseDb: -62, humDb: -62, room: shed, longestRing: 0.8 },
    { name: 'walk, hall', seed: seed + 2, seconds, gapSeconds: [0.5, 1.1], levelDb: [-24, 0], noiseDb: -60, room: hall, longestRing: 1.2 },
    { name: 'hum', seed: seed + 3, seconds, gapSeconds: [0.3, 0.8], levelDb: [-24, 0], noiseDb: -64, humDb: -46, humHz: 60, longestRing: 0.6 },
    { name: 'dense, dry', seed: seed + 4, seconds, gapSeconds: [0.09, 0.25], levelDb: [-18, 0], noiseDb: -64, longestRing: 0.3 },
    { name: 'dense, shed', seed: seed + 5, seconds, gapSeconds: [0.09, 0.3], levelDb: [-20, 0], noiseDb: -60, room: shed, longestRing: 0.35 },
    { name: 'soft', seed: seed + 6, seconds, gapSeconds: [0.3, 0.8], levelDb: [-30, -18], noiseDb: -70, longestRing: 0.5, room: shed },
    { name: '44.1 kHz, mixed', seed: seed + 7, seconds, gapSeconds: [0.12, 1.2], levelDb: [-30, 0], noiseDb: -64, longestRing: 0.5, sampleRateHz: 44100 },
  ] // prettier-ignore
}
