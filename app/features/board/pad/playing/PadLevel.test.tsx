import { applyEdit, levelResponse, padSettings, valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { aKitOf, aPad } from '../../../../testing/a-kit'
import { PadLevel } from './PadLevel'

let mockEdit: (edits: KitEdit[]) => void
let mockSteps = 0
const mockEnd = jest.fn()
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => (mockSteps++, mockEdit(edits)) }))
jest.mock('../../../../kit-view/use-kit', () => ({
  padGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => mockEnd() as unknown }),
  padName: (_kit: unknown, pad: Pad) => pad.own.name,
}))
jest.mock('../../../starts', () => ({ BeginPad: () => null, KeepStart: ({ settings }: { settings: object }) => <i data-testid="start">{JSON.stringify(settings)}</i> })) // prettier-ignore

let kit: Kit
function Shown({ of }: { readonly of: Pad }) {
  const [doc, setDoc] = useState(() => aKitOf(of))
  kit = doc
  mockEdit = (edits) => setDoc((now) => (kit = edits.reduce(applyEdit, now)))
  return <PadLevel kit={doc} pad={doc.pads[0]} />
}
const show = (given: Partial<Pad> = {}) => render(<Shown of={{ ...aPad(1), ...given }} />)
const pad = () => kit.pads[0]
const settings = () => padSettings(kit, pad())
const nudge = (name: string, key = 'ArrowRight') => fireEvent.keyDown(screen.getByRole('slider', { name }), { key })
const choose = (group: string, name: string) =>
  fireEvent.click(within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name }))
const type = (name: string, value: string) => {
  const field = screen.getByRole('textbox', { name })
  fireEvent.change(field, { target: { value } })
  fireEvent.blur(field)
}

beforeEach(() => {
  mockSteps = 0
  mockEnd.mockClear()
})

test('level, place and pitch are slid, each drag one step', () => {
  show()
  nudge('Level', 'Home')
  expect([settings().values.gainDb, mockEnd.mock.calls.length]).toEqual([-48, 1])
  nudge('Level', 'End')
  expect(settings().values.gainDb).toBe(24)
  nudge('Pan', 'Home')
  expect(settings().values.pan).toBe(-1)
  expect(mockSteps).toBe(0)
})

test('softer strikes are lower by what is set: one response, made once and then changed, and heard even where it was passed over', () => {
  show()
  nudge('Softest strikes are lower by', 'End')
  nudge('Softest strikes are lower by', 'ArrowLeft')
  const levels = () => settings().responses.filter(({ from, to }) => from.kind === 'velocity' && to[0].param === 'gainDb')
  expect(levels().map(({ amount }) => amount)).toEqual([59.5])
  const passed = settings().responses.map((one) => ({ ...one, bypass: true }))
  act(() => mockEdit([{ type: 'setPad', padId: pad().id, own: { responses: passed } }]))
  nudge('Softest strikes are lower by', 'ArrowLeft')
  expect(levelResponse(settings().responses)).toMatchObject({ amount: 59, bypass: false })
})

test('pitch follows the note from the one it was recorded at, all rays with it; off, it has none', () => {
  show({ notes: [45] })
  expect(screen.queryByRole('slider', { name: 'Root note' })).toBeNull()
  fireEvent.click(screen.getByRole('switch', { name: 'Pitch follows the note' }))
  expect([settings().rootNote, valueOf(pad().rays[0], 'keyTrack')]).toEqual([45, 1])
  nudge('Root note')
  nudge('Glide from the note before', 'End')
  expect([settings().rootNote, settings().values.glideSeconds]).toEqual([46, 2])
  fireEvent.click(screen.getByRole('switch', { name: 'Pitch follows the note' }))
  expect(settings().rootNote).toBeUndefined()
})

test('the notes that strike it run from the lowest to the highest, in whatever order they are typed, and never beyond what there is', () => {
  show({ notes: [60], own: { ...aPad(1).own, rootNote: 60 } })
  type('Highest note', '63')
  expect(pad().notes).toEqual([60, 61, 62, 63])
  type('Lowest note', '66')
  expect(pad().notes).toEqual([66])
  type('Highest note', '64')
  expect(pad().notes).toEqual([64])
  type('Lowest note', '-5')
  expect([pad().notes[0], pad().notes.length]).toEqual([0, 65])
  type('Highest note', '500')
  expect(pad().notes).toHaveLength(128)
})

test('it goes to a bus of its own, called as it is, and back to the mix', () => {
  show()
  choose('Goes to', 'A new bus')
  expect([kit.buses.map(({ name }) => name), settings().bus]).toEqual([['Oar'], kit.buses[0].id])
  expect(mockSteps).toBe(1)
  choose('Goes to', 'The mix')
  expect(settings().bus).toBeUndefined()
})

test('family, group and tint are set, and cleared again', () => {
  show()
  choose('Family', 'tom')
  expect(settings().family).toBe('tom')
  type('Group', '  Hull ')
  choose('Tint', 'rust')
  expect([settings().group, settings().tint]).toEqual(['Hull', 'rust'])
  type('Group', '   ')
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Tint' })).getAllByRole('radio')[0])
  expect(['group' in pad().own, 'tint' in pad().own]).toEqual([false, false])
})

test('what is kept as a start are these settings', () => {
  show()
  nudge('Level', 'Home')
  expect(JSON.parse(screen.getByTestId('start').textContent)).toMatchObject({ pad: { values: { gainDb: -48 } } })
})
