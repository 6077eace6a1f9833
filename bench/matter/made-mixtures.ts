import { createRandom, gaussian } from '../../demo/random'
import { RATE } from './made-hits'

export interface Mixture {
  readonly ringing: Float32Array
  readonly noise: Float32Array
  readonly both: Float32Array
}

/** Struck tones (some of them falling) and noise in two or three bands with a decay of their own and a click, of which both are known. */
export function madeMixture(seed: number): Mixture {
  const random = createRandom(seed)
  const between = (low: number, high: number) => low + (high - low) * random()
  const length = Math.round(between(0.5, 1.5) * RATE)
  const from = Math.round(0.02 * RATE)
  const ringing = new Float32Array(length)
  const lowest = 60 * 2 ** between(0, 4)
  const fall = random() < 0.3 ? between(0, 0.2) : 0
  const ring = between(0.08, 0.5)
  for (let i = 0, modes = 3 + Math.floor(12 * random()); i < modes; i++) {
    const hz = lowest * (i === 0 ? 1 : 1 + i * between(0.4, 0.9))
    const [level, own, start] = [between(0.2, 1) / (1 + 0.4 * i), (ring * between(0.4, 1.2)) / (1 + 0.2 * i), 2 * Math.PI * random()]
    if (hz > 15_000) continue
    for (let frame = from, phase = start; frame < length; frame++) {
      const t = (frame - from) / RATE
      phase += (2 * Math.PI * hz * (1 + fall * Math.exp(-t / 0.02))) / RATE
      ringing[frame]! += 0.2 * level * Math.exp(-t / own) * Math.sin(phase) * Math.min(1, t / 0.0005)
    }
  }
  const noise = new Float32Array(length)
  const db = between(-15, 5)
  for (let band = 0, bands = 1 + Math.floor(3 * random()); band < bands; band++) {
    const [hz, seconds, share] = [200 * 2 ** between(0, 5.5), between(0.02, 0.3), between(0.3, 1)]
    const width = between(0.3, 1.2)
    let [low, mid] = [0, 0]
    const f = 2 * Math.sin((Math.PI * Math.min(hz, 8000)) / RATE)
    for (let frame = from; frame < length; frame++) {
      const input = gaussian(random)
      low += f * mid
      mid += f * (input - low - width * mid)
      noise[frame]! += share * mid * Math.exp(-(frame - from) / RATE / seconds)
    }
  }
  for (let frame = from; frame < from + 300; frame++) noise[frame]! += 0.8 * gaussian(random) * Math.exp(-(frame - from) / 60)
  const powerOf = (samples: Float32Array) => samples.reduce((sum, sample) => sum + sample * sample, 1e-12)
  const gain = Math.sqrt(powerOf(ringing) / powerOf(noise)) * 10 ** (db / 20)
  for (let frame = 0; frame < length; frame++) noise[frame]! *= gain
  return { ringing, noise, both: ringing.map((sample, frame) => sample + noise[frame]!) }
}

/** How far the difference lies under what was wanted, dB. */
export function closenessDb(wanted: Float32Array, got: Float32Array): number {
  let [power, error] = [1e-12, 1e-12]
  wanted.forEach((sample, i) => {
    power += sample * sample
    error += (sample - got[i]!) ** 2
  })
  return 10 * Math.log10(power / error)
}
