import type { Kit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { handSettings } from '../../audio/playing/hands/hand-settings'
import { middleC } from '../../kit-view/note-name'
import { aKitOf, aPad } from '../../testing/a-kit'
import { HandsScreen } from './HandsScreen'
import { NotesPart } from './notes/NotesPart'

let mockWide = false
let mockKit: Kit | undefined
function mockPart(name: string) {
  return () => <span>{name}</span>
}
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('../../kit-view', () => ({ useKit: () => mockKit }))
jest.mock('../../kit-view/use-kit', () => ({
  padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name,
  useChosenPad: () => mockKit?.pads[0] && { kit: mockKit, pad: mockKit.pads[0] },
}))
jest.mock('../../kit-view/PadNotes', () => ({ PadNotes: mockPart('notes of a pad') }))
jest.mock('./inputs/InputsPart', () => ({ InputsPart: mockPart('what comes in') }))
jest.mock('./keys/KeysPart', () => ({ KeysPart: mockPart('which keys') }))
jest.mock('./notes/NoteRow', () => ({ NoteRow: mockPart('all notes') }))
jest.mock('./notes/UsualNotesSheet', () => ({ UsualNotesSheet: ({ onClose }: { onClose: () => void }) => <button onClick={onClose}>Leave</button> })) // prettier-ignore
jest.mock('./practice/ControllerLater', () => ({ PracticeController: mockPart('a controller') }))
jest.mock('./tillers/TillersPart', () => ({ TillersPart: mockPart('which tillers') }))
jest.mock('./timing/TimingPart', () => ({ TimingPart: mockPart('how late') }))

const WORDS = ['what comes in', 'which keys', 'all notes', 'which tillers', 'a controller', 'how late']
const shown = () => WORDS.filter((words) => screen.queryByText(words))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))

beforeEach(() => {
  mockWide = false
  mockKit = aKitOf({ ...aPad(1), own: { name: 'Oar' } })
  act(() => {
    handSettings.setState({ hasCounted: true })
    middleC.setState({ octave: 4 })
  })
})

test('on a phone each word shows its part', () => {
  render(<HandsScreen />)
  expect(shown()).toEqual(['what comes in'])
  const parts = ['Keys', 'Notes', 'Tillers', 'Practice', 'Timing', 'Inputs'].map((name) => {
    choose(name)
    return shown()
  })
  expect(parts).toEqual([['which keys'], ['all notes'], ['which tillers'], ['a controller'], ['how late'], ['what comes in']])
})

test('on a wide screen what comes in stands beside the others, of which the notes are first', () => {
  mockWide = true
  render(<HandsScreen />)
  expect(shown()).toEqual(['what comes in', 'all notes'])
  expect(screen.queryByRole('radio', { name: 'Inputs' })).toBeNull()
  choose('Keys')
  expect(shown()).toEqual(['what comes in', 'which keys'])
})

test('the practice controller opens in a window that stays the same one', () => {
  const open = jest.spyOn(window, 'open').mockReturnValue(null)
  render(<HandsScreen />)
  choose('Practice')
  fireEvent.click(screen.getByRole('button', { name: 'Open it in a window' }))
  expect(open.mock.lastCall!.slice(0, 2)).toEqual(['/practice', 'heliaster-practice'])
})

test('before there is a kit nothing is drawn', () => {
  mockKit = undefined
  expect(render(<HandsScreen />).container.textContent).toBe('')
})

test('how octaves are counted is asked first, once, with nothing chosen; afterwards it stands last', () => {
  handSettings.setState({ hasCounted: false })
  render(<NotesPart kit={mockKit!} />)
  expect(screen.getByText(/Programs count octaves differently/)).toBeTruthy()
  const chips = () => ['C3', 'C4', 'C5'].map((name) => screen.getByRole('radio', { name }))
  const isBefore = (a: Element, b: Element) => Boolean(a.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING)
  expect(chips().map((chip) => chip.getAttribute('aria-checked'))).toEqual(['false', 'false', 'false'])
  expect(isBefore(chips()[0]!, screen.getByText('all notes'))).toBe(true)
  choose('C3')
  expect([middleC.getState().octave, handSettings.getState().hasCounted]).toEqual([3, true])
  expect(screen.queryByText(/Programs count octaves differently/)).toBeNull()
  expect(chips().map((chip) => chip.getAttribute('aria-checked'))).toEqual(['true', 'false', 'false'])
  expect(isBefore(screen.getByText('all notes'), chips()[0]!)).toBe(true)
})

test('the pad that is worked on has its notes under its name; usual notes are for kits with pads', () => {
  const { unmount } = render(<NotesPart kit={mockKit!} />)
  expect(screen.getByText('Oar')).toBeTruthy()
  expect(screen.getByText('notes of a pad')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Usual notes for all pads' }))
  fireEvent.click(screen.getByRole('button', { name: 'Leave' }))
  expect(screen.queryByRole('button', { name: 'Leave' })).toBeNull()
  unmount()
  mockKit = aKitOf()
  render(<NotesPart kit={mockKit} />)
  expect(screen.queryByText('notes of a pad')).toBeNull()
  expect(screen.getByRole('button', { name: 'Usual notes for all pads' }).getAttribute('aria-disabled')).toBe('true')
})
