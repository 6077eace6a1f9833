import fc from 'fast-check'

import { chooseMiddleC, noteName, noteOf, notesInWords, notesOf } from './note-name'

test('notes in words are read as the notes they were, however octaves are counted', () => {
  fc.assert(
    fc.property(fc.constantFrom(3 as const, 4 as const, 5 as const), fc.uniqueArray(fc.integer({ min: 0, max: 127 })), (octave, notes) => {
      chooseMiddleC(octave)
      expect(noteName(60)).toBe(`C${octave}`)
      expect(notes.map(noteName).map(noteOf)).toEqual(notes)
      expect(notesOf(notesInWords(notes))).toEqual(notes)
    }),
  )
  chooseMiddleC(4)
  expect(notesOf('36-39, f#2 Bb2')).toEqual([36, 37, 38, 39, 42, 46])
  for (const wrong of ['128', 'H2', '36..x', 'C12', '-']) expect(notesOf(wrong)).toMatch(/is no note/)
})
