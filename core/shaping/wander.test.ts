import fc from 'fast-check'

import { padSettingsSchema, parameterRow, responseTo } from '../kit'
import { WANDER_BOUNDS, wanderOf, withWander } from '.'
import { aKit } from '../kit/builders'
import { createOffline, renderOffline, toScore } from '../engine/offline'
import { EventType } from '../engine/program/codes'

const others = [responseTo('velocity', 'gainDb', 20), responseTo('chance', 'pan', 0.3)]

test('any share is read as it was set, over what was there before, and other responses stay as they are', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.001, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (share, before) => {
      const made = withWander(withWander(others, before), share)
      expect(wanderOf(made)).toBeCloseTo(share, 9)
      expect(made.slice(0, 2)).toEqual(others)
      expect(padSettingsSchema.shape.responses.safeParse(made).success).toBe(true)
      expect(withWander(made, 0)).toEqual(others)
    }),
  )
})

test('each bound is something the engine lets chance move', () => {
  for (const param of Object.keys(WANDER_BOUNDS) as (keyof typeof WANDER_BOUNDS)[]) expect(parameterRow(param).played).toContain('pad')
})

test('strikes of the engine differ by it, and none of them by more than its bound of level', () => {
  const samples = new Float32Array(480).fill(0.25)
  const peaks = (share: number) => {
    const rig = aKit([{ own: { responses: withWander([], share) }, bands: [[{ sampleRateHz: 48000, channels: [samples] }]] }])
    const { engine, loader } = createOffline(rig.kit, 48000, (hash) => rig.audio.get(hash))
    const padSlot = loader.slotOf(rig.kit.pads[0]!.id)
    const strikes = Array.from({ length: 40 }, (_, i) => ({ frame: i * 1000, type: EventType.strike, padSlot, velocity: 127 }))
    const [left] = renderOffline(engine, toScore(strikes), 40_000)
    return strikes.map(({ frame }) => Math.max(...left.subarray(frame, frame + 900)))
  }
  expect(new Set(peaks(0)).size).toBe(1)
  const wide = peaks(1)
  expect(new Set(wide).size).toBeGreaterThan(30)
  const spreadDb = 20 * Math.log10(Math.max(...wide) / Math.min(...wide))
  expect(spreadDb).toBeGreaterThan(4)
  expect(spreadDb).toBeLessThanOrEqual(2 * WANDER_BOUNDS.gainDb + 0.5) // the reader's overshoot at a tuned edge adds a little
})
