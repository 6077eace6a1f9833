import fc from 'fast-check'

import { snapPlacesOf, snapped } from '.'

const RATE = 48000
const tone = Float32Array.from({ length: 4800 }, (_, i) => Math.sin((2 * Math.PI * 100 * i) / RATE + 0.4) * Math.exp(-i / 1500))
const places = snapPlacesOf(tone, RATE, 0.1)

test('zero crossings are where the wave is nothing, half a period apart; the attack is the loudest place', () => {
  expect(places.crossings).toHaveLength(20)
  const [first, ...rest] = places.crossings
  expect(first).toBeCloseTo((Math.PI - 0.4) / (200 * Math.PI), 5)
  rest.forEach((at, i) => expect(at - places.crossings[i]!).toBeCloseTo(0.005, 5))
  expect(places.attackSeconds).toBeCloseTo(0.0017, 3)
})

test('a time goes to the nearest place within reach as a plain search finds it, landmarks first, and else stays', () => {
  const all = [...places.crossings]
  fc.assert(
    fc.property(fc.double({ min: 0, max: 0.12, noNaN: true }), fc.double({ min: 0, max: 0.004, noNaN: true }), (at, within) => {
      const near = (place: number) => Math.abs(place - at) <= within
      const nearest = all.reduce((best, place) => (Math.abs(place - at) < Math.abs(best - at) ? place : best))
      const wanted = [places.attackSeconds, 0.1].find(near) ?? (near(nearest) ? nearest : at)
      expect(Math.abs(snapped(at, within, places) - wanted)).toBeLessThan(1e-9)
    }),
  )
  expect(snapped(0.03, 1, { ...places, attackSeconds: 9, endSeconds: 9, crossings: new Float32Array() })).toBe(0.03)
})
