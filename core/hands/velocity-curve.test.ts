import fc from 'fast-check'

import {
  AS_IT_COMES,
  heightOfCurve,
  MEANT,
  STRIKES_TO_TEACH,
  strengths,
  taughtCurve,
  velocityCurveSchema,
  velocityThrough,
  withPoint,
} from '.'
import type { VelocityCurve } from '.'

const all = Array.from({ length: 127 }, (_, i) => i + 1)

const curves: fc.Arbitrary<VelocityCurve> = fc
  .record({
    ats: fc.uniqueArray(fc.integer({ min: 1, max: 127 }), { minLength: 2, maxLength: 8 }),
    tos: fc.array(fc.integer({ min: 1, max: 127 }), { minLength: 8, maxLength: 8 }),
    steps: fc.integer({ min: 0, max: 16 }),
  })
  .map(({ ats, tos, steps }) => {
    const rising = [...ats].sort((a, b) => a - b)
    const heights = tos.slice(0, rising.length).sort((a, b) => a - b)
    return { points: rising.map((at, i) => ({ at, to: heights[i]! })), steps }
  })

test('as it comes every strength stays what it is', () => {
  expect(all.map((at) => velocityThrough(AS_IT_COMES, at))).toEqual(all)
})

test('any curve goes through its points, never falls and never leaves what they span', () => {
  fc.assert(
    fc.property(curves, (curve) => {
      expect(velocityCurveSchema.safeParse(curve).success).toBe(true)
      const out = all.map((at) => velocityThrough(curve, at))
      expect(out.every((to, i) => Number.isInteger(to) && (i === 0 || to >= out[i - 1]!))).toBe(true)
      const [least, most] = [curve.points[0]!.to, curve.points.at(-1)!.to]
      expect(out.every((to) => to >= least && to <= most)).toBe(true)
      for (const { at, to } of curve.points) expect(heightOfCurve(curve, at)).toBeCloseTo(to, 9)
    }),
  )
})

test('with steps there are no more strengths than steps, and the weakest and strongest are reached', () => {
  fc.assert(
    fc.property(curves, fc.integer({ min: 2, max: 16 }), (curve, steps) => {
      const out = new Set(all.map((at) => velocityThrough({ ...curve, steps }, at)))
      expect(out.size).toBeLessThanOrEqual(steps)
      expect(out.has(curve.points.at(-1)!.to)).toBe(true)
    }),
  )
  const three = all.map((at) => velocityThrough({ ...AS_IT_COMES, steps: 3 }, at))
  expect([...new Set(three)]).toEqual([1, 64, 127])
  expect(new Set(all.map((at) => velocityThrough({ ...AS_IT_COMES, steps: 1 }, at)))).toEqual(new Set([127]))
})

test('a point that is dragged anywhere leaves a curve that rises', () => {
  const place = fc.integer({ min: -50, max: 200 })
  fc.assert(
    fc.property(curves, fc.nat(7), place, place, (curve, index, at, to) => {
      const moved = withPoint(curve, index % curve.points.length, at, to)
      expect(velocityCurveSchema.safeParse(moved).success).toBe(true)
    }),
  )
})

test('what falls, stands still in strength or goes beyond 127 is no curve', () => {
  for (const points of [
    [
      { at: 1, to: 9 },
      { at: 9, to: 1 },
    ],
    [
      { at: 5, to: 1 },
      { at: 5, to: 9 },
    ],
    [
      { at: 1, to: 1 },
      { at: 128, to: 9 },
    ],
    [{ at: 1, to: 1 }],
  ])
    // prettier-ignore
    expect(velocityCurveSchema.safeParse({ points, steps: 0 }).success).toBe(false)
})

describe('teaching', () => {
  /** Strikes of a hand that plays a pad with a heavy or light response, scattered as hands are. */
  const hands = fc.record({
    centres: fc.uniqueArray(fc.integer({ min: 8, max: 120 }), { minLength: 3, maxLength: 3, comparator: (a, b) => Math.abs(a - b) < 9 }),
    scatter: fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 21, maxLength: 21 }),
  })

  test('whatever a pad answers, the three strengths come out as they are meant', () => {
    fc.assert(
      fc.property(hands, ({ centres, scatter }) => {
        const [soft, middling, hard] = [...centres].sort((a, b) => a - b)
        const struck = (centre: number, from: number) => scatter.slice(from, from + 7).map((off) => centre + off)
        const curve = taughtCurve({ soft: struck(soft!, 0), middling: struck(middling!, 7), hard: struck(hard!, 14) })
        if (typeof curve === 'string') throw new Error(curve)
        expect(velocityCurveSchema.safeParse(curve).success).toBe(true)
        for (const [i, centre] of [soft!, middling!, hard!].entries()) {
          const between = [velocityThrough(curve, centre - 3), velocityThrough(curve, centre + 3)]
          expect(between[0]).toBeLessThanOrEqual(MEANT[strengths[i]!])
          expect(between[1]).toBeGreaterThanOrEqual(MEANT[strengths[i]!])
        }
      }),
    )
  })

  test('one strike that went wrong counts for nothing; too few and too alike are said', () => {
    const four = (velocity: number) => new Array<number>(STRIKES_TO_TEACH).fill(velocity)
    const curve = taughtCurve({ soft: [...four(30), 126], middling: four(60), hard: four(90) })
    expect(typeof curve === 'string' ? curve : velocityThrough(curve, 30)).toBe(MEANT.soft)
    expect(taughtCurve({ soft: four(30), middling: [60], hard: four(90) })).toMatch(/1 of 4 middling/)
    expect(taughtCurve({ soft: four(70), middling: four(60), hard: four(90) })).toMatch(/Soft came as 70, middling as 60/)
    expect(typeof taughtCurve({ soft: four(1), middling: four(2), hard: four(127) })).toBe('object')
  })
})
