import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import 'fake-indexeddb/auto'

import { device, saveState } from '../documents'
import { localDb } from '../sync/local-db'
import type { SaveState } from '../sync/save-state'
import { SaveMark, savingInWords } from './SaveMark'

// jsdom has none, and what is put into a store is copied by it.
globalThis.structuredClone ??= (value: unknown) => JSON.parse(JSON.stringify(value)) as never

const usual: SaveState = { unkept: 0, waiting: 0, state: 'saved', refused: 0 }

test('memory, this device and the server are told apart in words, the most urgent first', () => {
  const words = (state: Partial<SaveState>) => savingInWords({ ...usual, ...state }).words
  expect(words({})).toBe('Saved')
  expect(words({ state: 'saving', waiting: 2 })).toBe('Kept on this device, sending')
  expect(words({ state: 'away', waiting: 3 })).toBe('Kept on this device, 3 to send')
  expect(words({ state: 'away' })).toBe('Server away')
  expect(words({ unkept: 1, state: 'away', waiting: 3, refused: 1 })).toBe('1 change not kept yet')
  expect(words({ refused: 2 })).toBe('2 changes kept aside')
  expect(words({ blocked: true, unkept: 1 })).toBe('Close the other tabs')
  for (const state of [{ unkept: 1 }, { waiting: 1, state: 'away' as const }, { refused: 1 }, { waiting: 1 }]) expect(words(state)).not.toBe('Saved') // prettier-ignore
})

async function opened(state: Partial<SaveState>) {
  saveState.setState({ ...usual, failure: undefined, why: undefined, lasting: true, blocked: undefined, ...state }, true)
  render(<SaveMark />)
  fireEvent.click(screen.getByRole('button', { name: /^How saving stands/ }))
  await screen.findByText('How saving stands')
}

test('a device without room says what to do, and the changes can be saved as a file or tried again', async () => {
  const tried = jest.spyOn(device.shelf, 'tryAgain').mockResolvedValue()
  await opened({ unkept: 2, waiting: 2, state: 'saving', failure: 'QuotaExceededError: no room' })
  expect(screen.queryByText(/kept on this device and not on the server/)).toBeNull()
  expect(screen.getByText('2 changes are in this page alone.')).toBeTruthy()
  expect(screen.getByText(/This device has no room for them/)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }))
  expect(tried).toHaveBeenCalledTimes(1)
  expect(screen.getByRole('button', { name: 'Save as a file' })).toBeTruthy()
})

test('a server that is away is said to be, with its own words where it has some, and can be tried at once', async () => {
  const wake = jest.spyOn(device, 'wake').mockReturnValue()
  await opened({ state: 'away', waiting: 1, why: 'The database does not answer.' })
  expect(screen.getByText('1 thing is kept on this device and not on the server yet.')).toBeTruthy()
  expect(screen.getByText('The database does not answer.')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Try the server again' }))
  expect(wake).toHaveBeenCalled()
})

test('a browser that may clear what it holds says so; one that promised does not', async () => {
  await opened({ lasting: false })
  expect(screen.getByText(/a private window forgets all of it/)).toBeTruthy()
  act(() => saveState.setState({ lasting: true }))
  expect(screen.queryByText(/a private window forgets all of it/)).toBeNull()
})

test('changes kept aside are listed with their reason, and stay listed until they are put away', async () => {
  const db = await localDb()
  await db.add('refused', {
    kind: 'kit',
    docId: 'kit-gone',
    reason: 'The pad is no longer there.',
    edits: [{ type: 'set', at: ['pads', 'pad-1', 'own', 'pan'], value: 1 }],
    at: 1,
  })
  await opened({ refused: 1 })
  expect(await screen.findByText('A kit: The pad is no longer there.')).toBeTruthy()
  expect(screen.getByText('pan of a pad: 1')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Make them again' }))
  await waitFor(async () => expect(await db.count('refused')).toBe(1)) // the kit is gone: nothing is thrown away
  fireEvent.click(screen.getByRole('button', { name: 'Put away' }))
  await waitFor(async () => expect(await db.count('refused')).toBe(0))
})
