import { createRandom, gaussian } from './random'
import { RATE, strikeSound } from './strike-sound'
import { things } from './things'
import type { Thing, ThingName } from './things'

/** A strike in a recording. `frame` is the first frame above 1 % (-40 dB) of the strike's own peak. */
export interface TrueStrike {
  readonly frame: number
  readonly thing: ThingName
  readonly strength: number
  /** The whole sound, from its very first frame. */
  readonly startFrame: number
  readonly endFrame: number
}

export interface DemoRecording {
  readonly samples: Float32Array
  readonly strikes: TrueStrike[]
}

export interface Scene {
  readonly seed: number
  /** What is struck when; `strength` 0..1, `gainDb` how far off it stands. */
  readonly plan: readonly { readonly seconds: number; readonly thing: ThingName; readonly strength: number; readonly gainDb: number }[]
  readonly seconds: number
  /** Level of the harbour behind it: wind and water, and mains hum, in dBFS RMS. */
  readonly noiseDb: number
  readonly humDb: number
}

/** Renders a scene with the exact place of each strike. */
export function renderScene(scene: Scene): DemoRecording {
  const samples = new Float32Array(Math.round(scene.seconds * RATE))
  addHarbour(samples, scene)
  const strikes = scene.plan.map((entry, index): TrueStrike => {
    const sound = strikeSound(things[entry.thing] as Thing, entry.strength, scene.seed * 1009 + index)
    const startFrame = Math.round(entry.seconds * RATE)
    const gain = 10 ** (entry.gainDb / 20)
    let peak = 0
    for (let i = 0; i < sound.length; i++) {
      if (startFrame + i < samples.length) samples[startFrame + i] += sound[i] * gain
      peak = Math.max(peak, Math.abs(sound[i]))
    }
    const first = sound.findIndex((sample) => Math.abs(sample) >= 0.01 * peak)
    return {
      frame: startFrame + first,
      thing: entry.thing,
      strength: entry.strength,
      startFrame,
      endFrame: Math.min(samples.length, startFrame + sound.length),
    }
  })
  return { samples, strikes }
}

/** Wind in the rigging (band noise that swells), water (low noise) and a little mains hum. */
function addHarbour(samples: Float32Array, { seed, noiseDb, humDb }: Scene): void {
  const random = createRandom(seed ^ 0x5eaf00d)
  const noise = 10 ** (noiseDb / 20)
  const hum = 10 ** (humDb / 20)
  let low = 0
  let wind = 0
  for (let i = 0; i < samples.length; i++) {
    const white = gaussian(random)
    low += 0.004 * (white - low)
    wind += 0.12 * (white - wind)
    const swell = 0.75 + 0.25 * Math.sin((2 * Math.PI * i) / (RATE * 5.3))
    const t = i / RATE
    const mains = Math.sin(2 * Math.PI * 50 * t) + 0.5 * Math.sin(2 * Math.PI * 100 * t + 1) + 0.25 * Math.sin(2 * Math.PI * 150 * t + 2)
    samples[i] += noise * (low * 9 + wind * 1.6 * swell + white * 0.25) + hum * mains
  }
}

/** A minute of walking through the yard, striking whatever is there, soft and loud, near and far. */
export function walkAround(seed = 11): DemoRecording {
  const random = createRandom(seed)
  const yard: ThingName[] = ['hullThump', 'oarLow', 'oarHigh', 'halyardClink', 'tarpSlap', 'hatchTick', 'buoyBell', 'winchRatchet']
  const plan: Scene['plan'][number][] = []
  let at = 1.2
  for (const thing of [...yard, 'oarLow', 'tarpSlap', 'hullThump'] as ThingName[]) {
    const strikes = thing === 'buoyBell' ? 3 : 5 + Math.floor(random() * 4)
    for (let i = 0; i < strikes; i++) {
      plan.push({ seconds: at, thing, strength: 0.25 + 0.75 * random(), gainDb: -3 - 12 * random() })
      at += thing === 'buoyBell' ? 1.5 + random() : 0.28 + 0.5 * random()
    }
    at += 0.8 + random()
  }
  return renderScene({ seed, plan, seconds: at + 2.5, noiseDb: -58, humDb: -68 })
}

/** The tarp, forty times from soft to loud. */
export function tarpSlaps(seed = 23): DemoRecording {
  const random = createRandom(seed)
  const plan = Array.from({ length: 40 }, (_, i) => ({
    seconds: 0.8 + i * 0.62 + 0.08 * random(),
    thing: 'tarpSlap' as const,
    strength: Math.min(1, 0.08 + 0.92 * (i / 39) ** 1.3 + 0.015 * gaussian(random)),
    gainDb: -2,
  }))
  return renderScene({ seed, plan, seconds: 26.6, noiseDb: -66, humDb: -80 })
}

/** Odds and ends on a bench, close and dry: what the kit 'Low Tide' plays besides hull and tarp. */
export function benchTakes(seed = 37): DemoRecording {
  const random = createRandom(seed)
  const rows: [ThingName, number, number][] = [
    ['oarLow', 6, 0.6], ['oarHigh', 6, 0.6], ['halyardClink', 4, 1.1], ['winchRatchet', 4, 0.5], ['buoyBell', 2, 4.3],
    ['bilgeHiss', 4, 1.5], ['hatchTick', 6, 0.4], ['chainDrop', 3, 1.1],
  ] // prettier-ignore
  const plan: Scene['plan'][number][] = []
  let at = 0.3
  for (const [thing, count, gap] of rows)
    for (let i = 0; i < count; i++) {
      plan.push({ seconds: at, thing, strength: 0.35 + (0.6 * (i + 1)) / count, gainDb: -6 })
      at += gap + 0.05 * random()
    }
  return renderScene({ seed, plan, seconds: at + 0.4, noiseDb: -78, humDb: -110 })
}

/** What the practice microphone hears: someone at work in the yard, at a walking pace, for as long as is asked. */
export function practiceScene(seed: number, seconds = 20): DemoRecording {
  const random = createRandom(seed)
  const yard: ThingName[] = ['oarLow', 'tarpSlap', 'oarHigh', 'hullThump', 'halyardClink', 'hatchTick']
  const plan: Scene['plan'][number][] = []
  let turn = 0
  for (let at = 0.5; at < seconds - 0.6; at += 0.45 + 0.25 * random()) {
    plan.push({ seconds: at, thing: yard[Math.floor(turn / 3) % yard.length], strength: 0.35 + 0.6 * random(), gainDb: -3 })
    turn++
  }
  return renderScene({ seed, plan, seconds, noiseDb: -64, humDb: -84 })
}
