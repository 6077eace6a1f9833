import { act, fireEvent, render, screen } from '@testing-library/react'
import { createStore } from 'zustand/vanilla'

import type { SaveState } from '../sync/save-state'
import { SaveSheet } from './SaveSheet'

const plain: SaveState = { unkept: 0, waiting: 0, state: 'saved', refused: 0, lasting: true }
const mockState = createStore<SaveState>(() => plain)
const mockKits = createStore(() => ({ setApart: {} as Record<string, { id: string; reason: string }> }))
const mockActs = { wake: jest.fn(), tryAgain: jest.fn(), saveAll: jest.fn(), saveOne: jest.fn(), again: jest.fn(), away: jest.fn() }
let mockRefused: object[] = []
jest.mock('../documents', () => ({
  get saveState() {
    return mockState
  },
  device: { wake: () => mockActs.wake() as unknown, shelf: { tryAgain: () => mockActs.tryAgain() as unknown }, kits: { get store() { return mockKits } } }, // prettier-ignore
}))
jest.mock('./kept-aside', () => ({
  applyAgain: (one: unknown) => mockActs.again(one) as unknown,
  putAway: (one: unknown) => mockActs.away(one) as unknown,
  saveAllAsFile: () => mockActs.saveAll() as unknown,
  saveAsFile: (one: unknown) => mockActs.saveOne(one) as unknown,
  readRefused: () => Promise.resolve(mockRefused),
  describeEdits: () => 'the level of Keel drop',
  nameOf: () => 'Low Tide',
}))

beforeEach(() => {
  mockState.setState(plain, true)
  mockKits.setState({ setApart: {} })
  mockRefused = []
})

async function shown(state: Partial<SaveState> = {}) {
  mockState.setState({ ...plain, ...state }, true)
  render(<SaveSheet isOpen onClose={() => undefined} />)
  await act(() => Promise.resolve())
}
const text = () => screen.getByRole('dialog', { name: 'How saving stands' }).textContent
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

test('what is saved is said to be only when nothing waits and nothing is in the page alone', async () => {
  await shown()
  expect(text()).toContain('Everything is saved on the server.')
  act(() => mockState.setState({ waiting: 2, state: 'saving' }))
  expect(text()).not.toContain('Everything is saved')
  expect(text()).toContain('2 things are kept on this device and not on the server yet.')
  act(() => mockState.setState({ waiting: 1, unkept: 1, state: 'saved' }))
  expect(text()).not.toContain('Everything is saved')
})

test('a full device says so, what to do, and offers a file; it is tried again', async () => {
  await shown({ unkept: 3, waiting: 3, failure: 'QuotaExceededError' })
  expect(screen.getByRole('alert').textContent).toMatch(/3 changes are in this page alone.*no room for them/)
  press('Try again')
  press('Save as a file')
  expect([mockActs.tryAgain.mock.calls.length, mockActs.saveAll.mock.calls.length]).toEqual([1, 1])
})

test('a server that is away is tried again by hand, with its own reason where it gave one', async () => {
  await shown({ state: 'away', waiting: 1 })
  expect(text()).toContain('The server cannot be reached.')
  press('Try the server again')
  expect(mockActs.wake).toHaveBeenCalledTimes(1)
  act(() => mockState.setState({ why: 'The server has no room for sounds.' }))
  expect(text()).toContain('The server has no room for sounds.')
})

test('kits that cannot be read can be taken away as they are, changes that did not fit are made again or put away', async () => {
  mockKits.setState({ setApart: { k: { id: 'k', reason: 'A pad has no clips.' } } })
  mockRefused = [{ place: 1, reason: 'The pad is gone.' }]
  await shown({ refused: 1 })
  press('Save it as a file')
  expect(mockActs.saveOne).toHaveBeenCalledWith({ id: 'k', reason: 'A pad has no clips.' })
  expect(text()).toContain('Low Tide: The pad is gone.')
  press('Make them again')
  press('Put away')
  expect(mockActs.again).toHaveBeenCalledWith(mockRefused[0])
  expect(mockActs.away).toHaveBeenCalledWith(mockRefused[0])
})

test('a browser that may clear what it holds is said to', async () => {
  await shown({ lasting: false })
  expect(text()).toContain('it may clear it')
})

test('the name of the kit is changed where it stands', async () => {
  const named = jest.fn()
  render(<SaveSheet isOpen kit={{ name: 'Low Tide', onName: named }} onClose={() => undefined} />)
  await act(() => Promise.resolve())
  const field = screen.getByRole('textbox', { name: 'Name of the kit' })
  fireEvent.change(field, { target: { value: 'Spring Tide' } })
  fireEvent.blur(field)
  expect(named).toHaveBeenCalledWith('Spring Tide')
})
