import fc from 'fast-check'

import { wholeClip } from '../../kit/make'
import { clipSamples } from './clip-region'
import { createScratch } from './scratch'

const HASH = 'a'.repeat(64) as never

test('samples of clips that follow each other through one scratch are what they are in room of their own', () => {
  const scratch = createScratch(256)
  const clips = fc.record({
    startFrame: fc.nat(120),
    length: fc.integer({ min: 1, max: 180 }),
    fadeInSeconds: fc.constantFrom(0, 0.01),
    fadeOutSeconds: fc.constantFrom(0, 0.02),
    reverse: fc.boolean(),
    channel: fc.constantFrom('left', 'right', 'both', 'mid'),
    repairs: fc.constantFrom(undefined, { lowCutHz: 60 }),
  })
  fc.assert(
    fc.property(clips, ({ length, ...rest }) => {
      const channels = [0, 1].map((c) => Float32Array.from({ length: 200 }, (_, i) => Math.sin((i + 1) * (c + 0.3))))
      const audio = { sampleRateHz: 1000, channels }
      const before = channels.map((channel) => channel.slice())
      const clip = { ...wholeClip(HASH, { frames: 200, channels: 2 }), ...rest, endFrame: rest.startFrame + length } as Parameters<typeof clipSamples>[1] // prettier-ignore
      expect(clipSamples(audio, clip, scratch.clear().roomFor)).toEqual(clipSamples(audio, clip))
      expect(channels).toEqual(before)
    }),
  )
})

test('what is asked for until it is cleared lies apart, and the same memory serves again', () => {
  const scratch = createScratch(100)
  const first = scratch.roomFor(30).fill(1)
  const second = scratch.roomFor(40).fill(2)
  const third = scratch.roomFor(70).fill(3) // more than is kept
  expect([...first, ...second, ...third]).toEqual([...Array(30).fill(1), ...Array(40).fill(2), ...Array(70).fill(3)])
  const again = scratch.clear().roomFor(40)
  expect(again.buffer).toBe(second.buffer)
  expect([...again]).toEqual(Array(40).fill(0))
  expect(third.buffer).not.toBe(second.buffer)
  expect(scratch.clear().roomFor(101)).toHaveLength(101)
})
