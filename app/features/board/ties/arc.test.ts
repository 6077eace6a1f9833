import fc from 'fast-check'

import { alongArc, arcBetween, headPath, loopAt } from './arc'

const RADIUS = 40
/** Pads of a board: rows and columns, as far apart as the narrowest screen has them. */
const board = (columns: number, count: number) =>
  Array.from({ length: count }, (_, i) => ({ x: 60 + (i % columns) * 110, y: 60 + Math.floor(i / columns) * 130 }))

test('on any board a line goes through no pad wherever some way is free, and always from rim to rim', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 8 }), fc.integer({ min: 2, max: 24 }), fc.nat(99), fc.nat(99), (columns, count, from, to) => {
      const pads = board(columns, count)
      const [a, b] = [pads[from % count]!, pads[to % count]!]
      if (a === b) return
      const others = pads.filter((pad) => pad !== a && pad !== b)
      const arc = arcBetween(a, b, RADIUS, others)
      expect(Math.hypot(arc.from.x - a.x, arc.from.y - a.y)).toBeCloseTo(RADIUS + 3, 6)
      expect(Math.hypot(arc.to.x - b.x, arc.to.y - b.y)).toBeCloseTo(RADIUS + 3, 6)
      const through = others.filter(({ x, y }) =>
        Array.from({ length: 101 }, (_, i) => alongArc(arc, i / 100)).some((at) => Math.hypot(at.x - x, at.y - y) < RADIUS),
      )
      // Two in a row with one between, or neighbours: there is always a way round.
      if (Math.abs(a.x - b.x) + Math.abs(a.y - b.y) <= 260) expect(through).toEqual([])
    }),
  )
})

test('a line comes in from the side where a name stands below the pad that it goes to', () => {
  const pads = Array.from({ length: 12 }, (_, i) => ({ x: 182 + (i % 3) * 228, y: 121 + Math.floor(i / 3) * 168 }))
  const isOnName = ({ x, y }: { readonly x: number; readonly y: number }) =>
    pads.some((pad) => Math.abs(pad.x - x) < 42 && Math.abs(pad.y + 56 + 15 - y) < 12)
  const isOver = (a: (typeof pads)[number], b: (typeof pads)[number]) => {
    const arc = arcBetween(a, b, 56, pads.filter((pad) => pad !== a && pad !== b), { width: 820, height: 700 }) // prettier-ignore
    return Array.from({ length: 101 }, (_, i) => alongArc(arc, i / 100)).some(isOnName)
  }
  const near = pads.flatMap((a) =>
    pads.filter((b) => a !== b && Math.abs(a.y - b.y) <= 168 && Math.abs(a.x - b.x) <= 228).map((b) => [a, b] as const),
  )
  expect(near.filter(([a, b]) => isOver(a, b))).toEqual([])
  expect(isOver(pads[3]!, pads[2]!)).toBe(false)
  const through = arcBetween(pads[3]!, pads[2]!, 56, pads.filter((_, i) => i !== 3 && i !== 2), { width: 820, height: 700 }) // prettier-ignore
  expect(Math.min(...Array.from({ length: 101 }, (_, i) => alongArc(through, i / 100).y))).toBeGreaterThan(0)
})

test('a head is as long as it is said to be, alike on both sides, and points the way its line comes in', () => {
  const at = fc.record({ x: fc.integer({ min: -300, max: 300 }), y: fc.integer({ min: -300, max: 300 }) })
  fc.assert(
    fc.property(at, at, (into, to) => {
      fc.pre(Math.hypot(to.x - into.x, to.y - into.y) > 1)
      const path = headPath({ from: into, out: into, into, to })
      const [tip, left, right] = path.match(/-?[\d.]+(e-?\d+)? -?[\d.]+(e-?\d+)?/g)!.map((pair) => pair.split(' ').map(Number)) as [number, number][] // prettier-ignore
      const [fromX, fromY] = [(left![0] + right![0]) / 2, (left![1] + right![1]) / 2]
      expect(tip).toEqual([to.x, to.y])
      expect(Math.hypot(to.x - fromX, to.y - fromY)).toBeCloseTo(9, 6)
      expect((to.x - fromX) * (to.y - into.y) - (to.y - fromY) * (to.x - into.x)).toBeCloseTo(0, 5)
      expect((to.x - fromX) * (to.x - into.x) + (to.y - fromY) * (to.y - into.y)).toBeGreaterThan(0)
      expect(Math.hypot(left![0] - right![0], left![1] - right![1])).toBeCloseTo(9.9, 6)
    }),
  )
})

test('a line to itself is a loop beside the pad', () => {
  expect(loopAt({ x: 100, y: 100 }, RADIUS)).toMatch(/^M 120 /)
})
