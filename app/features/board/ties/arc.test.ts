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

test('a head points the way its line comes in, and a line to itself is a loop beside the pad', () => {
  const arc = arcBetween({ x: 0, y: 0 }, { x: 200, y: 0 }, RADIUS, [])
  const [tip, left, right] = headPath(arc)
    .match(/-?\d+(\.\d+)?(e-?\d+)? -?\d+(\.\d+)?(e-?\d+)?/g)!
    .map((pair) => pair.split(' ').map(Number))
  expect(tip![0]).toBeCloseTo(arc.to.x, 6)
  expect((left![0]! + right![0]!) / 2).toBeLessThan(tip![0]!)
  expect(loopAt({ x: 100, y: 100 }, RADIUS)).toMatch(/^M 120 /)
})
