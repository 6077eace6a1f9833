import { writeWav } from '@heliaster/core/audio'
import { seeded } from '@heliaster/core/kit/testing'

const RATE = 48000
const BPM = 97
const ROWS = { low: '8......5..8.....', middle: '....8.......8...', high: '..6...6.6...4.6.' }

/** Eight bars that a hand drums on three things of a table, at 97 beats a minute, straying by about 10 ms; and where each strike is, s. */
export function tableRhythm(seed: number): { readonly bytes: Buffer; readonly strikes: number[] } {
  const random = seeded(seed)
  for (let i = 0; i < 6; i++) random()
  const samples = new Float32Array(RATE * 22).map(() => 0.0005 * (random() - 0.5))
  const strikes: number[] = []
  for (let at = 0; at < 128; at++) {
    const kind = (['middle', 'low', 'high'] as const).find((row) => ROWS[row][at % 16] !== '.')
    if (!kind) continue
    const seconds = 0.8 + (at / 4) * (60 / BPM) + 0.01 * (random() + random() + random() - 1.5)
    strikes.push(seconds)
    const level = 0.5 * (0.8 + 0.4 * random())
    const [hz, length] = { low: [90, 0.18], middle: [430, 0.1], high: [0, 0.05] }[kind]
    let last = 0
    for (let i = 0; i < length * RATE; i++) {
      const noise = random() - 0.5
      const tone = hz > 0 ? Math.sin((2 * Math.PI * hz * i) / RATE) : noise - last
      last = noise
      samples[Math.round(seconds * RATE) + i] += level * Math.exp((-5 * i) / (length * RATE)) * (tone + (kind === 'middle' ? noise : 0))
    }
  }
  return { bytes: Buffer.from(writeWav({ sampleRateHz: RATE, channels: [samples] }, { bits: 16 })), strikes }
}
