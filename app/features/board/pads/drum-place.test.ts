import fc from 'fast-check'

import { inRows, placeSpots, spanOf } from './drum-place'

test('spots of any number lie on their face with their names, apart from each other, as large as any number of columns lets them be', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 32 }),
      fc.integer({ min: 120, max: 700 }),
      fc.integer({ min: 120, max: 300 }),
      (count, width, height) => {
        const { size, at } = placeSpots(count, width, height)
        expect(at).toHaveLength(count)
        fc.pre(size > 0)
        for (const { x, y } of at) {
          expect(x).toBeGreaterThanOrEqual(-0.01)
          expect(x + size).toBeLessThanOrEqual(width + 0.01)
          expect(y).toBeGreaterThanOrEqual(-0.01)
          expect(y + size + 18).toBeLessThanOrEqual(height + 0.01)
        }
        at.forEach((one, i) =>
          at
            .slice(i + 1)
            .forEach((other) => expect(Math.abs(one.x - other.x) >= size || Math.abs(one.y - other.y) >= size + 17).toBe(true)),
        )
      },
    ),
  )
  expect(placeSpots(2, 150, 150).size).toBe(73)
  expect(placeSpots(3, 330, 120).size).toBe(94)
})

test('a drum goes over as many columns as let a finger tell its spots apart', () => {
  expect([2, 3, 5].map((spots) => spanOf(spots, 100, 18, 3))).toEqual([1, 2, 3])
  expect(spanOf(12, 60, 10, 3)).toBe(3) // all there are
  expect(placeSpots(5, 218, 100).size).toBeLessThan(44)
})

test('faces stand in their order, none over another, and a wide one that finds no room begins the next row', () => {
  expect(inRows([1, 2, 1, 1, 2, 9], 3)).toEqual({
    places: [[0, 0, 1], [1, 0, 2], [0, 1, 1], [1, 1, 1], [0, 2, 2], [0, 3, 3]].map(([column, row, span]) => ({ column, row, span })),
    rows: 4,
  }) // prettier-ignore
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 40 }), fc.integer({ min: 1, max: 8 }), (spans, columns) => {
      const taken = new Set<string>()
      for (const { column, row, span } of inRows(spans, columns).places)
        for (let at = column; at < column + span; at++) {
          expect(at).toBeLessThan(columns)
          expect(taken.has(`${row} ${at}`)).toBe(false)
          taken.add(`${row} ${at}`)
        }
    }),
  )
})
