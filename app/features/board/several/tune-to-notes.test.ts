import { createPad } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { nearestOctave, octavesAway, tuneEdits } from './tune-to-notes'

const wanted = (...cents: number[]) => cents.map((one, i) => ({ pad: createPad(testIds(i), {}, 36 + i), cents: one }))
const centsOf = (list: readonly { cents: number }[]) => list.map(({ cents }) => cents)

test('within an octave nothing is asked; beyond, it is told how far', () => {
  expect(octavesAway(wanted(0, 100, -1200))).toBe(0)
  expect(octavesAway(wanted(-3600, -3500))).toBe(-3)
  expect(octavesAway(wanted(1300))).toBe(1)
  expect(octavesAway([])).toBe(0)
})

test('in the nearest octave a row stays a row, and no pad goes further than an octave', () => {
  expect(centsOf(nearestOctave(wanted(-3650, -3550, -3450)))).toEqual([-50, 50, 150])
  const row = wanted(...Array.from({ length: 12 }, (_, i) => -2900 + 100 * i))
  const moved = centsOf(nearestOctave(row))
  expect(moved.map((cents) => cents - moved[0])).toEqual(row.map((_, i) => 100 * i))
  const mixed = centsOf(nearestOctave(wanted(-3600, -3600, 2500)))
  expect(mixed.every((cents) => Math.abs(cents) <= 1200)).toBe(true)
  expect(mixed[2] % 1200).toBe(100) // the same note by name
})

test('what is further than can be tuned stays, and is said', () => {
  const { edits, words } = tuneEdits(wanted(100, 13000))
  expect(edits).toHaveLength(1)
  expect(words).toMatch(/1 pad is tuned to its note\. 1 would have to be tuned further/)
})
