import fc from 'fast-check'

import { evenLine, ontoLine, responsesAlong } from '.'
import type { MeasuredBand } from '.'
import { bentCurve, levelResponse, responseTo, velocityToLevel } from '../kit'

const bands: fc.Arbitrary<MeasuredBand[]> = fc
  .uniqueArray(fc.integer({ min: 1, max: 127 }), { minLength: 2, maxLength: 12 })
  .chain((velocities) =>
    fc
      .array(fc.double({ min: -40, max: -26, noNaN: true }), { minLength: velocities.length, maxLength: velocities.length })
      .map((loud) => velocities.sort((a, b) => a - b).map((velocity, i) => ({ velocity, loudness: loud[i]! }))),
  )

const after = (list: readonly MeasuredBand[]) => {
  const changes = ontoLine(list, evenLine(list)!)
  return list.map((band, i) => ({ ...band, loudness: band.loudness + changes[i]! }))
}

test('whatever was measured, harder is never quieter afterwards, and the whole keeps its level', () => {
  fc.assert(
    fc.property(bands, (list) => {
      const even = after(list)
      even.slice(1).forEach(({ loudness }, i) => expect(loudness - even[i]!.loudness).toBeGreaterThan(-0.25)) // what is rounded or not heard
      const mean = (of: readonly MeasuredBand[]) => of.reduce((sum, { loudness }) => sum + loudness, 0) / of.length
      expect(Math.abs(mean(even) - mean(list))).toBeLessThan(0.2)
    }),
  )
})

test('what is even already stays as it is, and doing it again changes nothing', () => {
  const even = [10, 50, 90].map((velocity) => ({ velocity, loudness: -40 + velocity / 5 }))
  expect(ontoLine(even, evenLine(even)!)).toEqual([0, 0, 0])
  fc.assert(
    fc.property(bands, (list) => {
      const once = after(list)
      expect(ontoLine(once, evenLine(once)!).every((change) => Math.abs(change) <= 0.2)).toBe(true)
    }),
  )
})

test('a band that is silent is left alone; a single one has no line', () => {
  expect(evenLine([{ velocity: 64, loudness: -20 }])).toBeUndefined()
  const gap = [{ velocity: 20, loudness: -30 }, { velocity: 60, loudness: -Infinity }, { velocity: 100, loudness: -36 }] // prettier-ignore
  expect(ontoLine(gap, evenLine(gap)!)[1]).toBe(0)
})

test('velocity moves the level along the line; a response that someone drew stays as it was drawn', () => {
  const line = { velocity: 64, loudness: -30, rise: 0.25 }
  const moved = responsesAlong([velocityToLevel(5), responseTo('chance', 'pan', 0.1)], line)
  expect(levelResponse(moved)!.amount).toBe(31.5)
  expect(moved).toHaveLength(2)
  expect(responsesAlong(moved, line)).toBe(moved)
  expect(levelResponse(responsesAlong([], line))!.amount).toBe(31.5)
  for (const more of [{ curve: bentCurve(0.5) }, { min: -3 }]) {
    const drawn = [{ ...velocityToLevel(5), ...more }]
    expect(responsesAlong(drawn, line)).toBe(drawn)
  }
})
