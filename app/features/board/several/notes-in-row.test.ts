import fc from 'fast-check'

import { after, aKitOf, aPad } from '../../../testing/a-kit'
import { notesInRow } from './notes-in-row'

const kitOf = (count: number) => aKitOf(...Array.from({ length: count }, () => aPad(0)))
const rowOf = (count: number, typed: string) => {
  const kit = kitOf(count)
  const row = notesInRow(kit.pads, typed)
  return typeof row === 'string' ? row : { notes: after(kit, row.edits).pads.map(({ notes }) => notes[0]), words: row.words }
}

test('from any note on, each pad has the next, as far as there are notes', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 128 }), fc.integer({ min: 0, max: 127 }), (count, first) => {
      const row = notesInRow(kitOf(count).pads, String(first))
      if (typeof row === 'string') throw new Error(row)
      const notes = row.edits.map((edit) => (edit.type === 'setPadNotes' ? edit.notes[0] : undefined))
      expect(notes).toEqual(Array.from({ length: Math.min(count, 128 - first) }, (_, i) => first + i))
      expect(row.words === '').toBe(first + count <= 128)
    }),
  )
})

test('a range gives its own notes; what is too short or too long is said, and nothing else is touched', () => {
  expect(rowOf(3, 'C2..D2')).toEqual({ notes: [36, 37, 38], words: '' })
  expect(rowOf(3, '36, 40, 41, 45')).toEqual({ notes: [36, 40, 41], words: 'The last note is left over.' })
  expect(rowOf(4, 'C2..C#2')).toEqual({ notes: [36, 37, 40, 40], words: 'The last 2 pads keep their notes: the range is shorter.' })
  expect(rowOf(2, '127')).toEqual({ notes: [127, 40], words: 'The last pad keeps its notes: there is none above 127.' })
  expect(rowOf(2, 'H9')).toContain('is no note')
  expect(rowOf(2, ' ')).toContain('Type the first note')
})
