import type { KitEdit, Pad } from '@heliaster/core/kit'

import { notesOf } from '../../../kit-view/note-name'

const HIGHEST = 127

export interface NotesInRow {
  readonly edits: KitEdit[]
  /** What was not as typed, in words. */
  readonly words: string
}

/** Gives pads a note each, in their order: from one note on, or those of a range. A sentence where what was typed is no note. */
export function notesInRow(pads: readonly Pad[], typed: string): NotesInRow | string {
  const given = notesOf(typed)
  if (typeof given === 'string') return given
  if (given.length === 0) return 'Type the first note, such as C2, or a range, such as C2..B2.'
  const [first] = given as [number]
  const notes = given.length === 1 ? pads.map((_, i) => first + i).filter((note) => note <= HIGHEST) : given.slice(0, pads.length)
  const edits = notes.map((note, i): KitEdit => ({ type: 'setPadNotes', padId: pads[i]!.id, notes: [note] }))
  const without = pads.length - notes.length
  const left = given.length - notes.length
  const words = [
    without > 0 && `${without === 1 ? 'The last pad keeps its notes' : `The last ${without} pads keep their notes`}: ${given.length === 1 ? 'there is none above 127' : 'the range is shorter'}.`,
    given.length > 1 && left > 0 && `${left === 1 ? 'The last note is' : `The last ${left} notes are`} left over.`,
  ] // prettier-ignore
  return { edits, words: words.filter(Boolean).join(' ') }
}
