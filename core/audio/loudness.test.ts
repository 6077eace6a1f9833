import { aTone } from '../kit/builders'
import { momentaryLoudness, strikeLoudness } from './loudness'

const RATE = 48000

test('a hit is as loud as its loudest 100 ms, however long it rings and wherever that lies', () => {
  const [tone] = aTone(RATE / 10, 0.5, RATE, 1000).channels
  const alone = strikeLoudness([tone], RATE)
  expect(alone).toBeCloseTo(momentaryLoudness([tone], RATE) + 10 * Math.log10(4), 6)
  for (const from of [0, 333, 20000]) {
    const long = new Float32Array(2 * RATE)
    long.set(tone, from)
    for (let i = from + tone.length; i < long.length; i++) long[i] = 0.02 * tone[i % tone.length]
    expect(Math.abs(strikeLoudness([long], RATE) - alone)).toBeLessThan(0.1)
  }
})

test('half as loud is 6 dB less, twice the channels 3 dB more, and silence is silence', () => {
  const [tone] = aTone(RATE / 2, 0.5, RATE, 1000).channels
  const loud = strikeLoudness([tone], RATE)
  expect(strikeLoudness([tone.map((sample) => sample / 2)], RATE)).toBeCloseTo(loud - 20 * Math.log10(2), 4)
  expect(strikeLoudness([tone, tone], RATE)).toBeCloseTo(loud + 10 * Math.log10(2), 6)
  expect(strikeLoudness([new Float32Array(100)], RATE)).toBe(-Infinity)
})
