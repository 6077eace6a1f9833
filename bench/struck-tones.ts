import { createRandom, gaussian } from '../demo/random'

export interface StruckTone {
  readonly samples: Float32Array
  /** What the lowest partial settles to. */
  readonly hz: number
}

/** Ratios of partials: harmonic, a membrane, a bar, a bell; none of them exact. */
const SERIES = [[1, 2, 3, 4, 5], [1, 1.59, 2.14, 2.3, 2.65], [1, 2.76, 5.4, 8.93], [1, 1.52, 2.37, 2.98, 4.12]] // prettier-ignore

/** A struck tone with inharmonic partials, a pitch that falls after the strike, a burst of noise and the noise of a room. */
export function struckTone(seed: number, rate = 48000): StruckTone {
  const random = createRandom(seed)
  const between = (low: number, high: number) => low + (high - low) * random()
  const hz = 45 * 2 ** between(0, 4.5)
  const series = SERIES[Math.floor(random() * SERIES.length)]
  const ring = Math.max(0.12, between(0.15, 1.2) * (hz < 200 ? 1 : (200 / hz) ** 0.4))
  const fall = random() < 0.3 ? 0 : between(0.01, 0.5)
  const tau = between(0.006, 0.04)
  const samples = new Float32Array(Math.round(Math.min(1.6, ring * 1.3) * rate))
  for (const [index, ratio] of series.entries()) {
    const stretch = ratio * (1 + 0.01 * gaussian(random))
    const own = index === 0 ? 1 : stretch
    const level = (index === 0 ? between(0.5, 1) : between(0.15, 0.9) / (1 + 0.3 * index)) / 2
    const decay = Math.exp(-6.9078 / ((ring / (1 + 0.5 * index)) * rate))
    let phase = 2 * Math.PI * random()
    let now = level
    for (let i = 0; i < samples.length; i++) {
      phase += (2 * Math.PI * hz * own * (1 + fall * Math.exp(-i / (tau * rate)))) / rate
      samples[i] += now * Math.min(1, (i + 1) / (0.0005 * rate)) * Math.sin(phase)
      now *= decay
    }
  }
  const burst = between(0, 0.6)
  const burstFall = Math.exp(-6.9078 / (between(0.01, 0.06) * rate))
  let level = burst
  const room = 10 ** (between(-70, -55) / 20)
  for (let i = 0; i < samples.length; i++) {
    samples[i] += level * (random() * 2 - 1) + room * gaussian(random)
    level *= burstFall
  }
  return { samples, hz }
}
