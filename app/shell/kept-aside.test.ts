import { describeEdits } from './kept-aside'

jest.mock('../documents', () => ({}))
jest.mock('../documents/documents', () => ({}))
jest.mock('../sync/local-db', () => ({}))

const said = (...edits: object[]) => describeEdits({ kind: 'kit', docId: 'k', reason: '', edits, at: 0 } as never)

test.each([
  [{ type: 'set', at: ['pads', 'p', 'values', 'gainDb'], value: -3 }, 'gain db of a pad: -3'],
  [{ type: 'set', at: ['pads', 'p', 'bands', 'b', 'fromVelocity'], value: 40 }, 'from velocity of a band: 40'],
  [{ type: 'set', at: ['tempoBpm'], value: undefined }, 'tempo bpm as usual'],
  [{ type: 'set', at: ['pads', 'p', 'envelopes'], value: {} }, 'envelopes of a pad'],
  [{ type: 'put', at: ['pads'], item: { own: { name: 'Keel drop' } } }, '“Keel drop” put in'],
  [{ type: 'put', at: ['grooves', 'g', 'strings', 's', 'beads'], item: {} }, 'a bead put in'],
  [{ type: 'remove', at: ['ties', 't'] }, 'a tie taken away'],
  [{ type: 'move', at: ['pads', 'p', 'rays', 'r'] }, 'a ray moved'],
  [{ type: 'setKit' }, 'set kit'],
])('%j is told as “%s”', (edit, words) => {
  expect(said(edit).toLowerCase()).toBe(words.toLowerCase())
})

test('of several the first is told and the others counted', () => {
  const edit = { type: 'remove', at: ['pads', 'p'] }
  expect(said(edit, edit, edit)).toBe('a pad taken away, and 2 more')
})
