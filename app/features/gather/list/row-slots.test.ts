import fc from 'fast-check'

import { nextSlots } from './row-slots'

test('wherever the list is scrolled, all rows in sight are drawn in few steps of few rows, each in a slot of its own', () => {
  const views = fc.array(fc.tuple(fc.nat(2000), fc.integer({ min: 1, max: 30 })), { minLength: 1, maxLength: 12 })
  fc.assert(
    fc.property(views, fc.integer({ min: 1, max: 8 }), (scrolled, most) => {
      let slots: readonly number[] = []
      for (const [first, count] of scrolled) {
        for (let step = 0; step < Math.ceil(count / most); step++) {
          const next = nextSlots(slots, first, first + count - 1, most)
          expect(next.filter((index, slot) => index !== -1 && index !== slots[slot] && !slots.includes(index)).length).toBeLessThanOrEqual(
            most,
          )
          slots = next
        }
        for (let index = first; index < first + count; index++) expect(slots).toContain(index)
        expect(nextSlots(slots, first, first + count - 1, most)).toBe(slots)
        const drawn = slots.filter((index) => index !== -1)
        expect(new Set(drawn).size).toBe(drawn.length)
      }
    }),
  )
})
