import { applyEdit, createSource } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../documents/make-id'
import { aKitOf, aPad, audio, info } from '../../testing/a-kit'
import { LayParts } from './LayParts'

let mockKit: Kit
const mockNotify = jest.fn()
const mockNavigate = jest.fn()
const mockEdit = (edits: KitEdit[]) => void (mockKit = edits.reduce(applyEdit, mockKit))
jest.mock('../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) }))
jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockNavigate(to) } }))

const laid = jest.fn()
const source = createSource(makeId, audio, info, 'Rope')
const show = (pads: number) => {
  mockKit = aKitOf(...Array.from({ length: pads }, () => aPad(1)))
  render(<LayParts kit={mockKit} source={source} onLaid={laid} />)
}
beforeEach(() => jest.clearAllMocks())

test('a loop lies on as many pads as are chosen, in two taps, and the Board opens', () => {
  show(1)
  fireEvent.click(screen.getByRole('radio', { name: '4' }))
  fireEvent.click(screen.getByRole('button', { name: 'Lay 4 parts on new pads' }))
  expect(mockKit.pads.slice(1).map(({ own }) => own.name)).toEqual(['Rope 1', 'Rope 2', 'Rope 3', 'Rope 4'])
  expect(mockKit.ties).toMatchObject([{ kind: 'parts', parts: mockKit.pads.slice(1).map(({ id }) => ({ pad: id })) }])
  expect([laid.mock.calls.length, mockNavigate.mock.lastCall]).toEqual([1, [`/kit/${mockKit.id}/board`]])
})

test('where a kit has less room it says so, and where it has none nothing changes', () => {
  show(125)
  fireEvent.click(screen.getByRole('button', { name: 'Lay 8 parts on new pads' }))
  expect(mockKit.pads).toHaveLength(128)
  expect(mockNotify).toHaveBeenLastCalledWith(expect.stringContaining('in 3 parts on pads of its own, as many as there is room for'))
  const before = (mockKit = aKitOf(...Array.from({ length: 128 }, () => aPad(0))))
  render(<LayParts kit={before} source={source} onLaid={laid} />)
  fireEvent.click(screen.getAllByRole('button', { name: 'Lay 8 parts on new pads' })[1]!)
  expect(mockKit).toBe(before)
  expect(mockNotify).toHaveBeenLastCalledWith(expect.stringContaining('has no room for more'))
})
