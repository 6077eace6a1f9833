import { wholeClip } from '../../kit/make'
import { clipKey, clipSamples } from './clip-region'

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
