import { act, renderHook } from '@testing-library/react'

import type * as recording from './recorder'
import { useRecorder } from './use-recorder'

const mockArm = jest.fn()
jest.mock('./inputs', () => ({ mayListen: () => Promise.resolve(true) }))
jest.mock('./practice-microphone', () => ({ preparePractice: jest.fn() }))
jest.mock('./recorder', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const recorder = createStore(() => ({ state: 'closed', problem: undefined as string | undefined, settings: { input: 'microphone', listens: true } }))
  return { recorder, arm: () => mockArm(), disarm: () => recorder.setState({ state: 'closed' }) }
}) // prettier-ignore

const { recorder } = jest.requireMock<typeof recording>('./recorder')
const settled = () => act(async () => undefined)

test('an input that could not be opened is opened once it is chosen again, and not before', async () => {
  mockArm.mockImplementation(() => recorder.setState({ state: 'closed', problem: 'It is in use.' }))
  renderHook(() => useRecorder())
  await settled()
  expect(mockArm).toHaveBeenCalledTimes(1)
  await settled()
  expect(mockArm).toHaveBeenCalledTimes(1)
  mockArm.mockImplementation(() => recorder.setState({ state: 'armed' }))
  act(() => recorder.setState({ problem: undefined })) // as choosing does
  await settled()
  expect(mockArm).toHaveBeenCalledTimes(2)
  expect(recorder.getState().state).toBe('armed')
})
