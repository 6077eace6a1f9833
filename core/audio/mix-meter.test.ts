import { seeded } from '../kit/builders'
import { createMixMeter } from './mix-meter'
import type { MixMeter } from './mix-meter'

const RATE = 48000
/** It comes in over 20 ms: what begins at once reaches above itself between samples. */
const tone = (seconds: number, hz: number, level: number, phase = 0, rate = RATE) =>
  Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => level * Math.min(1, i / 960) * Math.sin((2 * Math.PI * hz * i) / rate + phase),
  )
const db = (level: number) => 10 ** (level / 20)

function fed(sides: readonly (readonly [Float32Array, Float32Array])[], rate = RATE, meter: MixMeter = createMixMeter(rate)): MixMeter {
  for (const [left, right] of sides) for (let at = 0; at < left.length; at += 128) meter.add(left.subarray(at), right.subarray(at), Math.min(128, left.length - at)) // prettier-ignore
  return meter
}
const both = (samples: Float32Array) => [samples, samples] as const

test('a tone of 1 kHz on both sides at -23 dBFS is -23 LUFS in all three, within 0.1 LU, at 44.1 and 48 kHz (EBU Tech 3341, 1)', () => {
  for (const rate of [44100, 48000]) {
    const { momentary, short, integrated } = fed([both(tone(3.2, 1000, db(-23), 0, rate))], rate).read()
    for (const value of [momentary, short, integrated]) expect(Math.abs(value + 23)).toBeLessThan(0.1)
  }
})

test('what is 10 LU softer than the rest does not count, nor silence (EBU Tech 3341, 3 and 4)', () => {
  const slow = 12000 // the gates know nothing of rates, and are tried sooner at a low one
  const tones = (levels: readonly number[]) => levels.map((level) => both(tone(level === -23 ? 20 : 2, 1000, db(level), 0, slow)))
  expect(Math.abs(fed(tones([-36, -23, -36]), slow).read().integrated + 23)).toBeLessThan(0.1)
  expect(Math.abs(fed(tones([-72, -36, -23, -36, -72]), slow).read().integrated + 23)).toBeLessThan(0.1)
  const meter = fed(tones([-23]), slow)
  meter.begin()
  expect(meter.read().integrated).toBe(-Infinity)
  fed([both(tone(20, 1000, db(-30), 0, slow))], slow, meter)
  expect(Math.abs(meter.read().integrated + 30)).toBeLessThan(0.2)
})

test('true peaks between samples are found within 0.2 dB, wherever they fall', () => {
  const random = seeded(4)
  for (let round = 0; round < 12; round++) {
    const hz = 997 + 20000 * random() * (round < 6 ? 0.3 : 1)
    const { truePeakDb, peakDb } = fed([both(tone(0.5, hz, db(-6), 7 * random()))]).read()
    expect([hz, Math.abs(truePeakDb + 6) < 0.2]).toEqual([hz, true])
    expect(peakDb).toBeLessThanOrEqual(truePeakDb)
  }
  const quarter = fed([both(tone(0.2, RATE / 4, 1, Math.PI / 4))]).read()
  expect(quarter.peakDb).toBeCloseTo(-3.01, 1)
  expect(quarter.truePeakDb).toBeCloseTo(0, 0)
})

test('one channel correlates wholly, turned over against itself, two noises not; silence is silent', () => {
  const random = seeded(9)
  const noise = () => Float32Array.from({ length: RATE }, () => random() - 0.5)
  const [one, other] = [noise(), noise()]
  expect(fed([[one, one]]).read().correlation).toBeCloseTo(1, 6)
  expect(fed([[one, one.map((sample) => -sample)]]).read().correlation).toBeCloseTo(-1, 6)
  expect(Math.abs(fed([[one, other]]).read().correlation)).toBeLessThan(0.05)
  const silent = fed([both(new Float32Array(RATE))]).read()
  expect([silent.momentary, silent.rmsDb, silent.correlation]).toEqual([-Infinity, -Infinity, 0])
  expect(fed([both(tone(1, 440, 0.5))]).read().rmsDb).toBeCloseTo(20 * Math.log10(0.5 / Math.SQRT2), 2)
})

test('runs of any length read the same', () => {
  const sound = tone(1.3, 333, 0.7)
  const whole = createMixMeter(RATE)
  whole.add(sound, sound, sound.length)
  expect(fed([both(sound)]).read()).toEqual(whole.read())
})
