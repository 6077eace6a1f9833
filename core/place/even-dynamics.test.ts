import fc from 'fast-check'

import { evenDynamics } from '.'
import type { MeasuredBand } from '.'

const bands: fc.Arbitrary<MeasuredBand[]> = fc
  .uniqueArray(fc.integer({ min: 1, max: 127 }), { minLength: 2, maxLength: 12 })
  .chain((velocities) =>
    fc
      .array(fc.double({ min: -40, max: -26, noNaN: true }), { minLength: velocities.length, maxLength: velocities.length })
      .map((loud) => velocities.sort((a, b) => a - b).map((velocity, i) => ({ velocity, loudness: loud[i]! }))),
  )

const after = (list: readonly MeasuredBand[]) => {
  const changes = evenDynamics(list)
  return list.map((band, i) => ({ ...band, loudness: band.loudness + changes[i]! }))
}

test('whatever was measured, harder is never quieter afterwards, in steps as even as velocities are apart', () => {
  fc.assert(
    fc.property(bands, (list) => {
      const even = after(list)
      const rises = even.slice(1).map(({ velocity, loudness }, i) => (loudness - even[i]!.loudness) / (velocity - even[i]!.velocity))
      const apart = even.slice(1).map(({ velocity }, i) => velocity - even[i]!.velocity)
      rises.forEach((rise, i) => expect(rise * apart[i]!).toBeGreaterThan(-0.25)) // what is rounded or not heard
      expect(even.reduce((sum, { loudness }) => sum + loudness, 0)).toBeCloseTo(
        list.reduce((sum, { loudness }) => sum + loudness, 0),
        -1,
      )
    }),
  )
})

test('what is even already stays as it is, and doing it again changes nothing', () => {
  expect(evenDynamics([10, 50, 90].map((velocity) => ({ velocity, loudness: -40 + velocity / 5 })))).toEqual([0, 0, 0])
  fc.assert(fc.property(bands, (list) => evenDynamics(after(list)).every((change) => Math.abs(change) <= 0.2)))
})

test('a band that is silent, and a single one, are left alone', () => {
  expect(evenDynamics([{ velocity: 64, loudness: -20 }])).toEqual([0])
  expect(evenDynamics([{ velocity: 20, loudness: -30 }, { velocity: 60, loudness: -Infinity }, { velocity: 100, loudness: -36 }])[1]).toBe(0) // prettier-ignore
})
