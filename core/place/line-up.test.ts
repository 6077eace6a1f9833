import fc from 'fast-check'

import { seeded } from '../kit/builders'
import { lagBetween, lineUpRays } from './line-up'

const RATE = 48000

/** Noise that dies away: a strike, begun at a frame. */
function struck(from: number, random: () => number, frames = 16000): Float32Array {
  const samples = new Float32Array(frames)
  for (let i = from; i < frames; i++) samples[i] = (2 * random() - 1) * Math.exp(-(i - from) / 2000)
  return samples
}

test('a sound that comes later, upside down or softer in a room is found to the frame', () => {
  fc.assert(
    fc.property(fc.integer({ min: -1500, max: 1500 }), fc.boolean(), fc.nat(1000), (lag, flipped, seed) => {
      const first = struck(2000, seeded(seed))
      const room = seeded(seed + 1)
      const second = struck(2000 + lag, seeded(seed)).map((sample) => (flipped ? -0.3 : 0.3) * sample + 0.01 * (2 * room() - 1))
      const found = lagBetween(first, second, RATE)!
      expect(found.seconds * RATE).toBeCloseTo(lag, 0)
      expect(found.correlation < 0).toBe(flipped)
      expect(Math.abs(found.correlation)).toBeGreaterThan(0.8)
    }),
    { numRuns: 30 },
  )
  expect(lagBetween(new Float32Array(100), struck(0, seeded(1)), RATE)).toBeUndefined()
})

test('the earlier microphones wait for the latest, as most of their cells say', () => {
  const lags = (seconds: number[], correlation: number) => seconds.map((one) => ({ seconds: one, correlation }))
  const [close, far, early] = lineUpRays([lags([0, 0, 0], 1), lags([0.01, 0.0101, 0.035], -0.7), lags([-0.002, -0.002, -0.002], 0.9)])
  expect([close.delaySeconds, far.delaySeconds, early.delaySeconds]).toEqual([0.0101, 0, expect.closeTo(0.0121, 6)])
  expect([close.isFlipped, far.isFlipped, early.isFlipped]).toEqual([false, true, false])
})
