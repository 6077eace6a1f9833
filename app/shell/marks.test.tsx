import { act, fireEvent, render, screen } from '@testing-library/react'
import type * as vanilla from 'zustand/vanilla'

import { takeState } from '../audio/playing/groove-take'
import { live } from '../audio/recording/live'
import { recordScreens } from '../audio/recording/use-recorder'
import * as aRecorder from '../testing/a-recorder'
import { RecordingMark } from './RecordingMark'
import { TakeBar } from './TakeBar'

const mockNotify = jest.fn()
const mockFinish = jest.fn()
jest.mock('../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('../audio/recording/recorder', () => jest.requireActual<typeof aRecorder>('../testing/a-recorder'))
jest.mock('../audio/recording/use-recorder', () => ({
  recordScreens: jest.requireActual<typeof vanilla>('zustand/vanilla').createStore(() => ({ count: 0 })),
}))
jest.mock('../audio/playing/groove-take', () => ({
  takeState: jest.requireActual<typeof vanilla>('zustand/vanilla').createStore(() => ({ isOn: false, count: 0 })),
  finishTake: () => Promise.resolve(void mockFinish()),
}))

beforeEach(() => {
  jest.clearAllMocks()
  aRecorder.resetRecorder()
  recordScreens.setState({ count: 0 })
})
const stop = () => screen.queryByRole('button', { name: 'Stop' })

test('a recording that goes on is said where no record button is seen, and stopped there', () => {
  render(<RecordingMark />)
  expect(stop()).toBeNull()
  act(() => aRecorder.recorder.setState({ state: 'waiting' }))
  expect(screen.getByText('Waiting for sound to record')).toBeTruthy()
  fireEvent.click(stop()!)
  expect(aRecorder.stopTake).toHaveBeenCalledTimes(1)
  act(() => aRecorder.recorder.setState({ state: 'recording' }))
  expect(stop()).toBeTruthy()
  act(() => recordScreens.setState({ count: 1 }))
  expect(stop()).toBeNull()
})

test('its time goes on while it is seen', () => {
  jest.useFakeTimers()
  live.seconds = 75.4
  aRecorder.recorder.setState({ state: 'recording' })
  render(<RecordingMark />)
  act(() => void jest.advanceTimersByTime(500))
  expect(screen.getByText('Recording, 1:15')).toBeTruthy()
  jest.useRealTimers()
})

test('what became of a take is said once', () => {
  render(<RecordingMark />)
  act(() => aRecorder.recorder.setState({ news: { words: 'Nothing came in.' } }))
  act(() => aRecorder.recorder.setState({ state: 'armed' }))
  expect(mockNotify.mock.calls).toEqual([['Nothing came in.']])
  act(() => aRecorder.recorder.setState({ news: { words: 'Nothing came in.' } })) // another take, and again nothing
  expect(mockNotify).toHaveBeenCalledTimes(2)
})

test('recording into the groove counts its strikes, and ends by its button or by Escape alone', () => {
  render(<TakeBar />)
  fireEvent.keyDown(window, { key: 'Escape' })
  expect([screen.queryByRole('status'), mockFinish.mock.calls.length]).toEqual([null, 0])
  act(() => takeState.setState({ isOn: true, count: 0 }))
  expect(screen.getByRole('status').textContent).toContain('strike pads')
  for (const [count, words] of [[1, '1 strike'], [7, '7 strikes']] as const) {
    act(() => takeState.setState({ count }))
    expect(screen.getByRole('status').textContent).toContain(words)
  } // prettier-ignore
  fireEvent.keyDown(window, { key: 'Enter' })
  expect(mockFinish).not.toHaveBeenCalled()
  const goesOn = fireEvent.keyDown(window, { key: 'Escape' })
  expect([mockFinish.mock.calls.length, goesOn]).toEqual([1, false])
  fireEvent.click(screen.getByRole('button', { name: 'End' }))
  expect(mockFinish).toHaveBeenCalledTimes(2)
})
