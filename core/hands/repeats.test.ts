import fc from 'fast-check'

import { hasSlidOut, nextStepFrame, repeatFrames } from '.'

const how = fc.record({
  fromFrame: fc.integer({ min: 0, max: 10_000_000 }),
  tempoBpm: fc.double({ min: 20, max: 400, noNaN: true }),
  repeatsPerBeat: fc.constantFrom(1, 2, 3, 4, 6, 8),
  sampleRateHz: fc.constantFrom(44100, 48000, 96000),
})

test('asked for in any pieces, each repeat comes once, on its frame', () => {
  fc.assert(
    fc.property(how, fc.array(fc.integer({ min: 1, max: 20000 }), { minLength: 1, maxLength: 30 }), (repeating, pieces) => {
      const step = (60 * repeating.sampleRateHz) / (repeating.tempoBpm * repeating.repeatsPerBeat)
      let at = repeating.fromFrame
      const got: number[] = []
      for (const piece of pieces) {
        got.push(...repeatFrames(repeating, at, at + piece))
        at += piece
      }
      const expected: number[] = []
      for (let k = 1; Math.round(repeating.fromFrame + k * step) <= at; k++) expected.push(Math.round(repeating.fromFrame + k * step))
      expect(got).toEqual(expected)
    }),
  )
})

test('with a groove the next step is less than a step ahead, and lies on one', () => {
  fc.assert(
    fc.property(how, fc.double({ min: 0, max: 1000, noNaN: true }), ({ fromFrame, ...how }, beat) => {
      const ahead = nextStepFrame(fromFrame, beat, how) - fromFrame
      const step = (60 * how.sampleRateHz) / (how.tempoBpm * how.repeatsPerBeat)
      expect(ahead).toBeGreaterThanOrEqual(-1e-6)
      expect(ahead).toBeLessThan(step + 1e-3)
      const steps = (beat + (ahead * how.tempoBpm) / (60 * how.sampleRateHz)) * how.repeatsPerBeat
      expect(Math.abs(steps - Math.round(steps))).toBeLessThan(1e-6)
    }),
  )
})

test('a finger that trembles or goes inward does not repeat', () => {
  expect([hasSlidOut(0.5, 0.7), hasSlidOut(0.9, 0.2), hasSlidOut(0.2, 0.9)]).toEqual([false, false, true])
})
