import type { Kit, PadId } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'

import { session } from '../../kit-view/session'
import { aKitOf, aPad } from '../../testing/a-kit'
import { BoardScreen } from './BoardScreen'

let mockWide = false
let mockKit: Kit | undefined
const mockGo = jest.fn()
const mockAdd = jest.fn()
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('expo-router', () => ({ router: { navigate: (where: string) => mockGo(where) as unknown } }))
jest.mock('../../kit-view', () => ({ useKit: () => mockKit }))
jest.mock('../../kit-view/use-kit', () => {
  const { useSession } = jest.requireActual<typeof import('../../kit-view/session')>('../../kit-view/session') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name,
    useChosenPad: () => {
      const id = useSession(({ padId }) => padId)
      const pad = mockKit?.pads.find((one) => one.id === id) ?? mockKit?.pads[0]
      return pad && { kit: mockKit, pad }
    },
  }
})
jest.mock('../../kit-view/TestStrikes', () => ({ TestStrikes: () => null }))
jest.mock('../place', () => ({ DropOnPads: ({ children }: { children: unknown }) => children }))
jest.mock('./pads/BoardBar', () => ({
  addPad: (kit: Kit) => mockAdd(kit) as unknown,
  BoardBar: ({ mode, onMode }: { mode: string; onMode: (mode: string) => void }) => (
    <>
      <span>{`mode ${mode}`}</span>
      <button onClick={() => onMode('tie')}>Ties</button>
    </>
  ),
}))
jest.mock('./pads/PadCard', () => ({
  PadCard: ({ pad, onOpen }: { pad: { own: { name: string } }; onOpen: () => void }) => (
    <button onClick={onOpen}>{`Open ${pad.own.name}`}</button>
  ),
}))
const mockHeads: string[] = []
jest.mock('./pad/PadPanel', () => ({
  PadPanel: ({ pad, isHead }: { pad: { own: { name: string } }; isHead?: boolean }) => {
    mockHeads.push(`${pad.own.name} ${isHead ? 'head' : 'whole'}`)
    return `panel of ${pad.own.name}`
  },
}))
jest.mock('./pads/PadTable', () => ({
  PadTable: ({ mode, tieId, onChoose }: { mode: string; tieId?: string; onChoose: (pads: PadId[]) => void }) => (
    <>
      <span>{`pads to ${mode}, tie ${tieId}`}</span>
      <button onClick={() => onChoose(['a', 'b'] as PadId[])}>Mark two</button>
    </>
  ),
}))
jest.mock('./several/PadsSheet', () => ({
  PadsSheet: ({ chosen, onClose }: { chosen: string[]; onClose: () => void }) => <button onClick={onClose}>{`${chosen.length} at once`}</button>,
})) // prettier-ignore
jest.mock('./sheets-later', () => ({
  TiesPanel: ({ onChoose }: { onChoose: (tie: string) => void }) => <button onClick={() => onChoose('tie-7')}>Choose the tie</button>,
}))

const named = (name: string) => ({ ...aPad(1), own: { name } })
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  jest.clearAllMocks()
  mockWide = false
  mockKit = aKitOf(named('Oar'), named('Cleat'))
  session.setState({ padId: undefined })
})

test('nothing is drawn before the kit is there; a kit without pads leads to recording, or to a pad', () => {
  mockKit = undefined
  const { container, unmount } = render(<BoardScreen />)
  expect(container.textContent).toBe('')
  unmount()
  mockKit = aKitOf()
  render(<BoardScreen />)
  press('Record')
  expect(mockGo).toHaveBeenCalledWith(`/kit/${mockKit.id}/gather`)
  press('Add pad')
  expect(mockAdd).toHaveBeenCalledWith(mockKit)
})

test('on a phone the pad that is worked on opens as a sheet and closes again', () => {
  render(<BoardScreen />)
  expect(screen.queryByText('panel of Oar')).toBeNull()
  press('Open Oar')
  expect(screen.getByText('panel of Oar')).toBeTruthy()
  press('Close')
  expect(screen.queryByText('panel of Oar')).toBeNull()
  act(() => session.setState({ padId: mockKit!.pads[1]!.id }))
  press('Open Cleat')
  expect(screen.getByText('panel of Cleat')).toBeTruthy()
})

test('on a phone ties open as a sheet, and the one that is chosen there is marked over the pads', () => {
  render(<BoardScreen />)
  press('Ties')
  expect(screen.queryByRole('button', { name: /^Open/ })).toBeNull()
  expect(screen.getByText('pads to tie, tie undefined')).toBeTruthy()
  press('No ties yet')
  press('Choose the tie')
  expect(screen.getByText('pads to tie, tie tie-7')).toBeTruthy()
})

test.each([false, true])('pads that are marked together are set together (wide: %s)', (isWide) => {
  mockWide = isWide
  render(<BoardScreen />)
  press('Mark two')
  press('2 at once')
  expect(screen.queryByRole('button', { name: '2 at once' })).toBeNull()
})

test('on a wide screen the pad stands beside the others, and follows what is struck; ties stand in its place', async () => {
  mockWide = true
  mockHeads.length = 0
  render(<BoardScreen />)
  expect(screen.getByText('panel of Oar')).toBeTruthy()
  await waitFor(() => expect(mockHeads).toContain('Oar whole'))
  act(() => session.setState({ padId: mockKit!.pads[1]!.id }))
  expect(screen.getByText('panel of Cleat')).toBeTruthy()
  // Its head alone stands first only as the Board is opened: going from pad to pad nothing jumps.
  expect([mockHeads[0], mockHeads.includes('Cleat head')]).toEqual(['Oar head', false])
  press('Ties')
  expect(screen.queryByText(/^panel of/)).toBeNull()
  press('Choose the tie')
  expect(screen.getByText('pads to tie, tie tie-7')).toBeTruthy()
})
