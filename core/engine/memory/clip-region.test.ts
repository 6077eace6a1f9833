import { wholeClip } from '../../kit/make'
import { clipKey, clipSamples } from './clip-region'
import { repairsDb } from './repair-sections'

const RATE = 48000
const tone = (hz: number, offset = 0) =>
  Float32Array.from({ length: RATE }, (_, i) => offset + 0.5 * Math.sin((2 * Math.PI * hz * i) / RATE))
const clip = {
  ...wholeClip('a'.repeat(64) as never, { frames: RATE, channels: 1 }),
  startFrame: RATE / 4,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
}
const levelDb = (samples: Float32Array) => 10 * Math.log10(samples.reduce((sum, x) => sum + x * x, 0) / samples.length / 0.125)

test('repairs cut the lows, turn the heights, take away DC, and leave the recording as it was', () => {
  const of = (samples: Float32Array, repairs: object) => clipSamples({ sampleRateHz: RATE, channels: [samples] }, { ...clip, repairs })[0]
  const low = tone(50)
  const before = low.slice()
  expect(levelDb(of(low, { lowCutHz: 200 }))).toBeLessThan(-22)
  expect(levelDb(of(tone(2000), { lowCutHz: 200 }))).toBeCloseTo(0, 1)
  expect(levelDb(of(tone(12000), { shelfDb: 6 }))).toBeCloseTo(6, 0)
  expect(levelDb(of(tone(200), { shelfDb: 6 }))).toBeCloseTo(0, 1)
  const still = of(tone(200, 0.2), { removeDc: true })
  expect(Math.abs(still.reduce((sum, x) => sum + x, 0) / still.length)).toBeLessThan(1e-3)
  expect(low).toEqual(before)
})

test('filters have settled where a clip begins, and clips with other repairs are other samples', () => {
  const [repaired] = clipSamples({ sampleRateHz: RATE, channels: [tone(50, 0.3)] }, { ...clip, repairs: { lowCutHz: 300 } })
  expect(Math.max(...repaired.subarray(0, 200).map(Math.abs))).toBeLessThan(0.03)
  expect(clipKey({ ...clip, repairs: { lowCutHz: 300 } })).not.toBe(clipKey(clip))
})

test('low shelf, bell and notch do to a tone what is drawn of them, and the recording stays', () => {
  const of = (hz: number, repairs: object) => levelDb(clipSamples({ sampleRateHz: RATE, channels: [tone(hz)] }, { ...clip, repairs })[0])
  const all = { lowShelfDb: 9, lowShelfHz: 120, bellDb: -12, bellHz: 900, bellOctaves: 0.7, notchHz: 3000, notchOctaves: 0.5 }
  for (const hz of [60, 100, 300, 700, 900, 1200, 2600, 3400, 9000]) expect([hz, of(hz, all) - of(hz, {})]).toEqual([hz, expect.closeTo(repairsDb(all, hz, RATE), 0)]) // prettier-ignore
  expect(repairsDb({ lowShelfDb: 9 }, 20, RATE)).toBeCloseTo(9, 0)
  expect(repairsDb({ bellDb: 6, bellHz: 500 }, 500, RATE)).toBeCloseTo(6, 6)
  expect(repairsDb({ bellDb: 6, bellHz: 500, bellOctaves: 2 }, 1000, RATE)).toBeCloseTo(3, 1) // half of it at the ends of its width
  expect(of(3000, { notchHz: 3000 })).toBeLessThan(-40)
  expect(repairsDb({ notchHz: 3000, notchOctaves: 1 }, 3000 * Math.SQRT2, RATE)).toBeCloseTo(-3, 0)
  for (const key of Object.keys(all)) expect(clipKey({ ...clip, repairs: { [key]: 1 } })).not.toBe(clipKey(clip))
})
