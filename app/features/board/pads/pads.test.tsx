import { applyEdit, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { session } from '../../../kit-view/session'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { addPad, BoardBar } from './BoardBar'
import type { BoardMode } from './BoardBar'

let mockEdit: (edits: KitEdit[]) => void
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('expo-router', () => ({}))
jest.mock('../sheets-later', () => ({ WalkSheet: () => 'walk', BringPadSheet: () => 'bring' }))
jest.mock('../several/PadsSheet', () => ({ PadsSheet: () => 'several' }))

let kit: Kit
const arranges = jest.fn()

function Shown({ of, mode = 'play' }: { readonly of: Kit; readonly mode?: BoardMode }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => setDoc((now) => (kit = edits.reduce(applyEdit, now)))
  return <BoardBar kit={doc} mode={mode} onMode={arranges} tieKind="choke" onTieKind={() => undefined} />
}
const button = (name: string) => screen.getByRole('button', { name })
const press = (name: string) => fireEvent.click(button(name))
const isAsleep = (name: string) => button(name).getAttribute('aria-disabled') === 'true'

test('one more pad is empty, has a free note and a name, and is the one that is worked on', () => {
  render(<Shown of={aKitOf(aPad(1))} />)
  press('Add pad')
  const [first, added] = kit.pads
  expect([kit.pads.length, padSettings(kit, added).name, added.bands]).toEqual([2, 'Pad 2', []])
  expect(added.notes[0]).not.toBe(first.notes[0])
  expect(session.getState().padId).toBe(added.id)
  act(() => addPad(kit))
  expect(new Set(kit.pads.flatMap(({ notes }) => notes)).size).toBe(3)
})

test('what needs pads is asleep without them, and a full kit takes no more', () => {
  const { unmount } = render(<Shown of={aKitOf()} />)
  press('More')
  expect(['Arrange pads', 'Ties', 'Several pads', 'Hands', 'Add pad'].map(isAsleep)).toEqual([true, true, true, false, false])
  unmount()
  render(<Shown of={aKitOf(...Array.from({ length: 128 }, () => aPad(0)))} />)
  press('More')
  expect(['Arrange pads', 'Ties', 'Several pads', 'Hands', 'Add pad'].map(isAsleep)).toEqual([false, false, false, false, true])
})

test('columns and sizes are changed while pads are arranged, within what a screen can show', () => {
  const pads = [aPad(1), aPad(1)]
  render(<Shown of={{ ...aKitOf(...pads), arrangement: { columns: 2 } }} mode="arrange" />)
  press('Fewer columns')
  expect(kit.arrangement.columns).toBe(1)
  expect(isAsleep('Fewer columns')).toBe(true)
  for (let i = 0; i < 20; i++) press('Larger pads')
  expect(kit.arrangement.size).toBe(2.5)
  expect(isAsleep('Larger pads')).toBe(true)
  for (let i = 0; i < 20; i++) press('Smaller pads')
  expect(kit.arrangement.size).toBe(0.4)
  for (let i = 0; i < 20; i++) press('More columns')
  expect(isAsleep('More columns')).toBe(true)
  expect(kit.arrangement.columns).toBeLessThanOrEqual(16)
  fireEvent.keyDown(window, { key: 'Escape' })
  expect(arranges.mock.calls).toEqual([['play']])
  press('Done')
  expect(arranges.mock.calls).toEqual([['play'], ['play']])
})

test('sheets open from here, and whether pads are heard after a change is switched', () => {
  render(<Shown of={aKitOf(aPad(1), aPad(1))} />)
  press('More')
  press('Arrange pads')
  expect(arranges).toHaveBeenLastCalledWith('arrange')
  press('More')
  press('Several pads')
  expect(screen.getByText(/several/)).toBeTruthy()
  press('More')
  press('Walk through every cell')
  expect(screen.getByText(/walk/)).toBeTruthy()
  press('More')
  press('A pad of another kit')
  expect(screen.getByText(/bring/)).toBeTruthy()
  const hears = session.getState().hearsAgain
  press('More')
  const heard = screen.getByRole('switch', { name: 'Hear pads after each change' })
  fireEvent.click(heard)
  expect(session.getState().hearsAgain).toBe(!hears)
  expect(heard.getAttribute('aria-checked')).toBe(String(!hears))
}) // prettier-ignore
