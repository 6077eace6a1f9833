import fc from 'fast-check'

import { envelopesSchema, settled, usualChoices, usualPadSettings, usualShape, usualValues } from '../kit'
import { decayOf, filterFallOf, filterResponseDb, pitchFallOf, withDecay, withFilterFall, withPitchFall } from '.'
import type { Envelope, OwnSettings, Shape } from '../kit'

const envelopes = (least: number, most: number): fc.Arbitrary<Envelope> =>
  fc
    .array(fc.record({ seconds: fc.double({ min: 0.001, max: 5, noNaN: true }), value: fc.double({ min: least, max: most, noNaN: true }), bend: fc.double({ min: -1, max: 1, noNaN: true }) }), { maxLength: 6 })
    .map((points) => ({ points: points.sort((a, b) => a.seconds - b.seconds) })) // prettier-ignore

/** Any shape that someone may have drawn before. */
const shapes: fc.Arbitrary<Shape> = fc
  .record({ level: envelopes(0, 1), pitch: envelopes(-2400, 2400), filter1: envelopes(0, 1), decayScale: fc.double({ min: 0.1, max: 4, noNaN: true }) })
  .map(({ decayScale, ...own }) => ({ choices: usualChoices, values: { ...usualValues, decayScale }, envelopes: { ...usualShape.envelopes, ...own } })) // prettier-ignore
const seconds = fc.double({ min: 0.005, max: 8, noNaN: true })
const cents = fc.double({ min: -4800, max: 4800, noNaN: true }).filter((value) => Math.abs(value) > 1)

const after = (shape: Shape, own: OwnSettings): Shape => {
  expect(envelopesSchema.safeParse(own.envelopes).success).toBe(true)
  return settled({ ...usualPadSettings, ...shape }, own)
}

test('whatever was drawn before: what is set is what is read again', () => {
  fc.assert(
    fc.property(shapes, seconds, cents, fc.double({ min: -1, max: 1, noNaN: true }), (shape, time, depth, bend) => {
      const longest = (shape.envelopes.level.points.at(-1)?.seconds ?? 1) * 100
      const shortest = (shape.envelopes.level.points.at(-1)?.seconds ?? 0) * 0.01
      const decay = { seconds: Math.min(longest, Math.max(shortest, time)), bend }
      const decayed = decayOf(after(shape, withDecay(shape, decay)))!
      expect(decayed.seconds).toBeCloseTo(decay.seconds, 6)
      expect(decayed.bend).toBe(bend)
      const fall = pitchFallOf(after(shape, withPitchFall(shape, { seconds: time, cents: depth })))!
      expect(fall.seconds).toBeCloseTo(time, 6)
      expect(fall.cents).toBeCloseTo(depth, 3)
      const filter = filterFallOf(after(shape, withFilterFall(shape, { seconds: time, cents: depth })))!
      expect(filter.seconds).toBeCloseTo(time, 6)
      expect(filter.cents).toBe(depth)
    }),
  )
})

test('a drag may set again and again: the last of it over what was before is the same as over what came between', () => {
  fc.assert(
    fc.property(shapes, seconds, seconds, cents, cents, (shape, first, last, firstCents, lastCents) => {
      const ways = [
        (of: Shape, time: number) => withDecay(of, { seconds: time, bend: 0 }),
        (of: Shape, time: number, depth: number) => withPitchFall(of, { seconds: time, cents: depth }),
        (of: Shape, time: number, depth: number) => withFilterFall(of, { seconds: time, cents: depth }),
      ]
      for (const way of ways) {
        const between = after(shape, way(shape, first, firstCents))
        const own = way(between, last, lastCents)
        const [over, along] = [after(shape, own), after(between, own)]
        expect(over.choices).toEqual(along.choices)
        expect(over.values).toEqual(along.values)
        expect(over.envelopes).toEqual(along.envelopes)
      }
    }),
  )
})

test('an envelope of many points keeps them: it is stretched and deepened as a whole', () => {
  const pitch = { points: [{ seconds: 0, value: 1200, bend: 0 }, { seconds: 0.1, value: 600, bend: 0.2 }, { seconds: 0.2, value: 0, bend: 0 }] } // prettier-ignore
  const shape = { ...usualShape, envelopes: { ...usualShape.envelopes, pitch } }
  expect(withPitchFall(shape, { seconds: 0.4, cents: 2400 }).envelopes!.pitch!.points).toEqual([
    { seconds: 0, value: 2400, bend: 0 },
    { seconds: 0.2, value: 1200, bend: 0.2 },
    { seconds: 0.4, value: 0, bend: 0 },
  ])
})

test.each([0, Number.MIN_VALUE, 1e-9])('points that lie %s from each other in time and pitch are drawn apart at their ends', (least) => {
  const points = [{ seconds: 0, value: 0, bend: 0 }, { seconds: 0, value: 300, bend: 0 }, { seconds: least, value: -least, bend: 0 }] // prettier-ignore
  const shape = { ...usualShape, envelopes: { ...usualShape.envelopes, pitch: { points } } }
  const fallen = after(shape, withPitchFall(shape, { seconds: 0.3, cents: 1200 }))
  expect(fallen.envelopes.pitch.points.map(({ seconds, value }) => [seconds, Math.round(value)])).toEqual([[0, 1200], [0, 300], [0.3, -0]]) // prettier-ignore
  expect(pitchFallOf(fallen)!.cents).toBeCloseTo(1200, 3)
})

test('no fall takes a plain envelope away; a fall of a filter that is off makes it a low pass', () => {
  const fallen = after(usualShape, withPitchFall(usualShape, { seconds: 0.1, cents: 1200 }))
  expect(withPitchFall(fallen, { seconds: 0.1, cents: 0 }).envelopes!.pitch).toEqual({ points: [] })
  expect(withFilterFall(usualShape, { seconds: 0.1, cents: 1200 }).choices).toEqual({ filter1Kind: 'lowPass' })
  const high = { ...usualShape, choices: { ...usualChoices, filter1Kind: 'highPass' as const } }
  expect(withFilterFall(high, { seconds: 0.1, cents: 1200 }).choices).toEqual({ filter1Kind: 'highPass' })
})

test('filters do at their marks what their kinds promise', () => {
  const filter = { kind: 'lowPass', slope: '12', cutoffHz: 1000, damping: Math.SQRT2, gainDb: 12 } as const
  const at = (hz: number, changes: Partial<Parameters<typeof filterResponseDb>[0]> = {}) => filterResponseDb({ ...filter, ...changes }, hz)
  expect([at(1000), at(1000, { slope: '24' })].map((db) => Math.round(db * 100) / 100)).toEqual([-3.01, -3.01])
  expect(at(8000) - at(16000)).toBeCloseTo(12.04, 1)
  expect(at(8000, { slope: '24' }) - at(16000, { slope: '24' })).toBeCloseTo(24.08, 1)
  expect(at(1000, { damping: 0.1 })).toBeCloseTo(20, 5)
  expect([at(1000, { kind: 'bandPass' }), at(1000, { kind: 'off' })]).toEqual([0, 0])
  expect(at(1000, { kind: 'notch' })).toBeLessThan(-100)
  expect([at(10, { kind: 'lowShelf' }), at(1000, { kind: 'peak' }), at(20000, { kind: 'highShelf' }), at(1000, { kind: 'lowShelf' })].map(Math.round)).toEqual([12, 12, 12, 6]) // prettier-ignore
  expect(at(500)).toBeCloseTo(at(2000, { kind: 'highPass' }), 9)
})
