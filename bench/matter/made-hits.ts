import { createRandom, gaussian } from '../../demo/random'

export const RATE = 48000
/** Quiet before the strike. */
export const LEAD_FRAMES = 4800

/** A hit made of modes and a click, of which it is known how it sounds at any length. */
export interface MadeHit {
  at(stretch: number): Float32Array
}

/** Modes as of membranes, bars, plates and bells, 5 to 24 of them, with a click of noise that keeps its length. */
export function madeHit(seed: number): MadeHit {
  const random = createRandom(seed)
  const between = (low: number, high: number) => low + (high - low) * random()
  const lowest = 50 * 2 ** between(0, 4.5)
  const ring = between(0.05, 0.6)
  const modes = Array.from({ length: 5 + Math.floor(20 * random()) }, (_, i) => {
    const hz = lowest * (i === 0 ? 1 : (1 + i * between(0.4, 0.9)) * (1 + 0.02 * gaussian(random)))
    return {
      hz,
      level: between(0.2, 1) / (1 + 0.4 * i),
      seconds: (ring * between(0.4, 1.2)) / (1 + 0.25 * i),
      phase: 2 * Math.PI * random(),
    }
  }).filter(({ hz }) => hz < 16_000)
  const click = { level: between(0, 0.7), seconds: between(0.001, 0.006) }
  const noise = Float32Array.from({ length: 4096 }, () => gaussian(random))
  const seconds = Math.min(2, 0.1 + 7 * Math.max(...modes.map((mode) => mode.seconds)))
  return {
    at(stretch) {
      const samples = new Float32Array(Math.round((LEAD_FRAMES + seconds * RATE) * stretch))
      const from = Math.round(LEAD_FRAMES * stretch)
      for (const { hz, level, seconds: own, phase } of modes)
        for (let i = from; i < samples.length; i++) {
          const t = (i - from) / RATE
          samples[i]! += 0.2 * level * Math.exp(-t / (own * stretch)) * Math.sin(2 * Math.PI * hz * t + phase) * Math.min(1, t / 0.0005)
        }
      for (let i = 0; i < noise.length && from + i < samples.length; i++)
        samples[from + i]! += 0.2 * click.level * noise[i]! * Math.exp(-i / (click.seconds * RATE))
      return samples
    },
  }
}
