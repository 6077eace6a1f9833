import { createKit, createPad } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { applyEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { takeMessage } from '../../../audio/playing/hands/hands'
import { PadNotes } from '../../../kit-view/PadNotes'
import { noteName } from '../../../kit-view/note-name'
import { NoteRow } from './NoteRow'
import { UsualNotesSheet } from './UsualNotesSheet'

let mockKit: Kit
const mockEdit = jest.fn((edits: KitEdit[]) => {
  mockKit = edits.reduce(applyEdit, mockKit)
})
const mockStrike = jest.fn()
const mockRelease = jest.fn()
jest.mock('../../../audio/engine/sound', () => ({
  sound: { getState: () => ({}) },
  kitNow: () => mockKit,
  strikePad: (strike: unknown) => mockStrike(strike),
  releasePad: (padId: unknown) => mockRelease(padId),
  onSounded: jest.fn(),
}))
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))

const makeId = testIds(8)
const pad = (name: string, family: 'kick' | 'snare' | 'bell', notes: number[]) => ({ ...createPad(makeId, { name, family }), notes })

beforeEach(() => {
  jest.clearAllMocks()
  mockKit = {
    ...createKit(makeId, 'Notes'),
    pads: [pad('Hull', 'kick', [40]), pad('Tarp', 'snare', [40]), pad('Buoy', 'bell', [60, 61, 62])],
  }
})

const row = () => screen.getByRole('slider', { name: 'Notes' })
function finger(type: string, pointerId: number, x: number, y: number) {
  fireEvent(
    row(),
    Object.defineProperty(new MouseEvent(type, { bubbles: true, clientX: x, clientY: y }), 'pointerId', { value: pointerId }),
  )
}

test('by keys: steps from note to note, says what each strikes, strikes and lets go', () => {
  render(<NoteRow kit={mockKit} />)
  for (let i = 0; i < 4; i++) fireEvent.keyDown(row(), { key: 'ArrowRight' })
  expect(row().getAttribute('aria-valuetext')).toBe(`${noteName(40)}, note 40, 82.4 Hz, strikes 2 pads: Hull, Tarp.`)
  fireEvent.keyDown(row(), { key: 'Enter' })
  fireEvent.keyDown(row(), { key: 'Enter', repeat: true })
  expect(mockStrike.mock.calls.map(([{ padId, note }]) => [padId, note])).toEqual(mockKit.pads.slice(0, 2).map(({ id }) => [id, 40]))
  expect(mockRelease).not.toHaveBeenCalled()
  fireEvent.keyUp(row(), { key: 'Enter' })
  expect(mockRelease).toHaveBeenCalledTimes(2)
  fireEvent.keyDown(row(), { key: 'End' })
  expect(row().getAttribute('aria-valuenow')).toBe('127')
})

test('by fingers: further down is harder, one that goes on lets go and plays the next, several at once', () => {
  render(<NoteRow kit={mockKit} />)
  fireEvent.click(screen.getByRole('radio', { name: 'All 128' }))
  row().getBoundingClientRect = () => ({ left: 0, top: 0, width: 1280, height: 100 }) as DOMRect
  finger('pointerdown', 1, 605, 10)
  finger('pointerdown', 2, 405, 90)
  const [soft, hard] = mockStrike.mock.calls.map(([strike]) => strike as { note: number; velocity: number })
  expect([soft!.note, hard!.note]).toEqual([60, 40])
  expect(soft!.velocity).toBeLessThan(hard!.velocity)
  finger('pointermove', 1, 608, 10)
  expect(mockRelease).not.toHaveBeenCalled()
  finger('pointermove', 1, 615, 10)
  expect(mockRelease.mock.calls).toEqual([[mockKit.pads[2]!.id]])
  finger('pointerup', 1, 615, 10)
  finger('pointercancel', 2, 405, 90)
  expect(mockRelease).toHaveBeenCalledTimes(4) // 60, 61, and both pads of 40
})

test('usual notes are shown with what is in their way, and given in one step', () => {
  const closed = jest.fn()
  render(<UsualNotesSheet kit={mockKit} onClose={closed} />)
  expect(screen.getByRole('alert').textContent).toBe('Buoy answers 3 notes now, and would keep one.')
  expect(screen.getByText(`${noteName(40)} → ${noteName(36)}`)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Use these notes' }))
  expect(mockEdit).toHaveBeenCalledTimes(1)
  expect(mockKit.pads.map(({ notes }) => notes)).toEqual([[36], [38], [56]])
  expect(closed).toHaveBeenCalled()
})

test('a pad learns its note from what is struck next, once', () => {
  render(<PadNotes kit={mockKit} pad={mockKit.pads[0]!} />)
  fireEvent.click(screen.getByRole('button', { name: 'Learn its note' }))
  expect(screen.getByRole('status').textContent).toMatch(/Strike the key or pad/)
  act(() => takeMessage('Dock pads', Uint8Array.of(0x90, 77, 90)))
  act(() => takeMessage('Dock pads', Uint8Array.of(0x90, 78, 90)))
  expect(mockKit.pads[0]!.notes).toEqual([77])
})
