import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, within } from '@testing-library/react'

import { makeId } from '../../documents/make-id'
import { audio, info } from '../../testing/a-kit'
import { RescueOffer } from './RescueOffer'

const mockLeft = [5, 65, 7].map((seconds, i) => ({ name: `take-${i}`, seconds, endedAt: Date.UTC(2026, 4, 3, 10, 20) }))
const mockKeep = jest.fn()
const mockForget = jest.fn()
const mockCreate = jest.fn((_source: Source) => Promise.resolve())
const mockNotify = jest.fn()
let mockEntries: Record<string, { doc: Source }> = {}
jest.mock('../../audio/recording/recorder', () => ({
  freeName: (stem: string) => `${stem} 1`,
  journalWork: () => ({
    left: () => Promise.resolve(mockLeft),
    keepLeft: (...given: unknown[]) => mockKeep(...given) as unknown,
    forget: (name: string) => Promise.resolve(void mockForget(name)),
  }),
}))
jest.mock('../../documents', () => ({
  device: { filesKept: () => undefined },
  sources: { store: { getState: () => ({ entries: mockEntries }) }, create: (source: Source) => mockCreate(source) },
}))
jest.mock('../../audio/files/measure-later', () => ({ measureLater: () => undefined }))
jest.mock('../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))

const settle = () => act(async () => undefined)
const offers = () => screen.queryAllByRole('alert')
const press = async (offer: HTMLElement, name: string) => {
  fireEvent.click(within(offer).getByRole('button', { name }))
  await settle()
}

// One page after another finds what is still left of the three.
beforeEach(async () => {
  jest.clearAllMocks()
  render(<RescueOffer />)
  await settle()
})

test('each recording that was cut off is offered by its length; what cannot be kept stays, and says why', async () => {
  expect(offers().map((one) => within(one).getByText(/^A recording of/).textContent)).toEqual([
    'A recording of 5.0 s was cut off',
    'A recording of 1:05.0 was cut off',
    'A recording of 7.0 s was cut off',
  ])
  mockKeep.mockRejectedValue(new Error('the disk is full'))
  await press(offers()[0], 'Keep it')
  expect(offers()[0].textContent).toContain('It could not be put on the list (the disk is full). It stays safe on this device')
  expect([mockCreate, mockForget].map(({ mock }) => mock.calls.length)).toEqual([0, 0])
})

test('what is kept is on the list before its safe copy goes', async () => {
  mockKeep.mockResolvedValue({ hash: audio, info })
  let written = () => undefined as void
  mockCreate.mockReturnValue(new Promise((resolve) => (written = resolve)))
  await press(offers()[0], 'Keep it')
  expect(mockKeep).toHaveBeenCalledWith('take-0', 'Rescued 1')
  expect(mockCreate.mock.calls[0][0]).toMatchObject({ name: 'Rescued 1', audio, origin: 'recorded', addedAt: mockLeft[0].endedAt })
  expect(mockForget).not.toHaveBeenCalled()
  written()
  await settle()
  expect(mockForget).toHaveBeenCalledWith('take-0')
  expect(mockNotify).toHaveBeenCalledWith('“Rescued 1” is on the list.')
  expect(offers()).toHaveLength(2)
})

test('what is on the list already is not put there twice', async () => {
  mockEntries = { one: { doc: createSource(makeId, audio, info, 'Hull') } }
  mockKeep.mockResolvedValue({ hash: audio, info })
  await press(offers()[0], 'Keep it')
  expect(mockCreate).not.toHaveBeenCalled()
  expect(mockForget).toHaveBeenCalledWith('take-1')
  expect(mockNotify).toHaveBeenCalledWith('It was on the list already, as “Hull”.')
})

test('a recording is deleted for good by a second press only', async () => {
  await press(offers()[0], 'Delete')
  expect(mockForget).not.toHaveBeenCalled()
  await press(offers()[0], 'Delete for good')
  expect(mockForget).toHaveBeenCalledWith('take-2')
  expect(offers()).toEqual([])
})
