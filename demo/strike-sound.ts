import { createRandom, gaussian } from './random'
import type { NoiseBurst, Thing } from './things'

export const RATE = 48000

/** How one microphone hears a strike: what it takes from high modes, how far off it stands, how much room it hears. */
export interface Microphone {
  readonly name: string
  readonly brightness: number
  readonly delaySeconds: number
  readonly room: number
  readonly gain: number
}

export const closeMicrophone: Microphone = { name: 'close', brightness: 1, delaySeconds: 0, room: 0.06, gain: 1 }

/**
 * One strike of a thing, `strength` 0..1. Everything that differs between takes comes from `seed`, so that several
 * microphones hear the same strike. The first sample belongs to the strike unless the microphone is delayed.
 */
export function strikeSound(thing: Thing, strength: number, seed: number, microphone: Microphone = closeMicrophone): Float32Array {
  const random = createRandom(seed)
  const seconds = Math.min(4.2, longest(thing) * 1.15 + (thing.scatter?.seconds ?? 0) + 0.1)
  const out = new Float64Array(Math.ceil(seconds * RATE))
  const delay = Math.round(microphone.delaySeconds * RATE)
  for (const part of parts(thing, random)) {
    const hard = strength * part.level
    addModes(out, thing, hard, part.frame + delay, random, microphone)
    for (const burst of thing.bursts) addBurst(out, burst, thing.spread, hard, part.frame + delay, random, microphone)
  }
  if (microphone.room > 0) addRoom(out, microphone.room, random)
  const level = microphone.gain * strength ** 1.1
  return Float32Array.from(out, (sample) => sample * level * 0.75)
}

function longest(thing: Thing): number {
  return Math.max(...thing.modes.map((mode) => mode.seconds), ...thing.bursts.map((burst) => burst.seconds))
}

/** A chain falls link by link: the first at once, the others ever closer and softer. */
function parts(thing: Thing, random: () => number): { frame: number; level: number }[] {
  if (!thing.scatter) return [{ frame: 0, level: 1 }]
  const { count, seconds } = thing.scatter
  return Array.from({ length: count }, (_, i) => {
    if (i === 0) return { frame: 0, level: 1 }
    const place = (i / count) ** 0.8 + (random() - 0.5) * (0.6 / count)
    return { frame: Math.max(1, Math.round(place * seconds * RATE)), level: (1 - 0.75 * (i / count)) * (0.4 + 0.6 * random()) }
  })
}

function addModes(out: Float64Array, thing: Thing, strength: number, from: number, random: () => number, microphone: Microphone): void {
  const spot = random() // where the thing was hit decides which modes speak
  const contact = thing.contactSeconds * (1.6 - strength) * (1 + 0.2 * thing.spread * gaussian(random))
  for (const [index, mode] of thing.modes.entries()) {
    const hz = mode.hz * (1 + 0.004 * thing.spread * gaussian(random))
    const seconds = mode.seconds * (0.85 + 0.3 * random()) * (0.8 + 0.2 * strength)
    const touched = 1 / (1 + (hz * contact * 1.6) ** 2)
    const place = 0.55 + 0.45 * Math.abs(Math.sin(Math.PI * (index + 1) * (0.15 + 0.3 * spot)))
    const tilt = microphone.brightness ** Math.log2(1 + hz / 400)
    const amplitude = mode.level * touched * place * tilt * (1 + 0.15 * thing.spread * gaussian(random))
    ring(out, from, hz, amplitude, seconds, contact)
  }
}

/** A damped sine whose beginning is rounded by the time of contact. Harder and lower modes glide down a hair. */
function ring(out: Float64Array, from: number, hz: number, amplitude: number, seconds: number, contact: number): void {
  const decay = Math.exp(-6.9078 / (seconds * RATE))
  const rise = Math.max(1, contact * 0.5 * RATE)
  let level = amplitude
  let phase = 0
  for (let i = from; i < out.length && level > 1e-6; i++) {
    const n = i - from
    const onset = n < rise ? 0.5 - 0.5 * Math.cos((Math.PI * (n + 1)) / rise) : 1
    phase += (2 * Math.PI * hz * (1 + 0.025 * Math.exp(-n / (0.006 * RATE)))) / RATE
    out[i] += level * onset * Math.sin(phase)
    level *= decay
  }
}

function addBurst(
  out: Float64Array,
  burst: NoiseBurst,
  spread: number,
  strength: number,
  from: number,
  random: () => number,
  microphone: Microphone,
): void {
  const brighter = 0.55 + 0.45 * strength
  const highStep = 1 - Math.exp((-2 * Math.PI * burst.highHz * brighter * microphone.brightness) / RATE)
  const lowStep = 1 - Math.exp((-2 * Math.PI * burst.lowHz) / RATE)
  const seconds = burst.seconds * (0.8 + 0.4 * spread * random())
  const decay = Math.exp(-6.9078 / (seconds * RATE))
  const attack = Math.max(1, burst.attackSeconds * RATE)
  let level = burst.level * (0.85 + 0.3 * spread * random())
  let smooth = 0
  let smoother = 0
  let low = 0
  for (let i = from; i < out.length && level > 1e-6; i++) {
    smooth += highStep * ((random() * 2 - 1) * 1.4 - smooth)
    smoother += highStep * (smooth - smoother)
    low += lowStep * (smoother - low)
    const n = i - from
    out[i] += (n < attack ? (n + 1) / attack : 1) * level * (smoother - low)
    level *= decay
  }
}

/** A small boat shed: a handful of early reflections and a short diffuse tail (M. Schroeder's combs, 1962). */
function addRoom(out: Float64Array, amount: number, random: () => number): void {
  const dry = out.slice()
  for (const ms of [5.3, 8.1, 12.7, 17.9, 23.3]) {
    const delay = Math.round((ms * (0.97 + 0.06 * random()) * RATE) / 1000)
    for (let i = delay; i < out.length; i++) out[i] += amount * (5 / ms) * dry[i - delay] * 0.6
  }
  for (const ms of [29.7, 37.1, 41.1, 43.7]) {
    const delay = Math.round((ms * RATE) / 1000)
    const line = new Float64Array(delay)
    let damped = 0
    for (let i = 0, at = 0; i < out.length; i++, at = at + 1 === delay ? 0 : at + 1) {
      damped += 0.4 * (line[at] - damped)
      out[i] += amount * 0.25 * damped
      line[at] = dry[i] + damped * 0.72
    }
  }
}
