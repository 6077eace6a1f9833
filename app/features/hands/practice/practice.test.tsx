import { act, fireEvent, render, screen } from '@testing-library/react'

import { handsState } from '../../../audio/playing/hands/hands'
import { connectPractice } from '../../../audio/playing/hands/practice'
import { PracticeController } from './PracticeController'

const mockMove = jest.fn()
jest.mock('../../../audio/engine/sound', () => ({
  sound: { getState: () => ({ player: { moveControl: (...moved: unknown[]) => mockMove(...moved), stopAll: jest.fn() } }) },
  kitNow: () => undefined,
  strikePad: jest.fn(),
  releasePad: jest.fn(),
  onSounded: jest.fn(),
}))

/** Windows of one browser: each hears the others, never itself. */
class AChannel {
  static all = new Set<AChannel>()
  onmessage: ((event: { data: unknown; timeStamp: number }) => void) | null = null
  constructor() {
    AChannel.all.add(this)
  }
  postMessage(data: unknown) {
    for (const one of AChannel.all) if (one !== this) one.onmessage?.({ data, timeStamp: 1 })
  }
  close() {
    AChannel.all.delete(this)
  }
}

let stop: () => void
beforeEach(() => {
  jest.clearAllMocks()
  jest.useFakeTimers()
  Object.assign(globalThis, { BroadcastChannel: AChannel })
  handsState.setState({ strokes: {}, heard: undefined })
  stop = connectPractice()
})
afterEach(() => {
  stop()
  jest.useRealTimers()
})
const heard = () => handsState.getState().heard
const slide = (name: string, key: string) => fireEvent.keyDown(screen.getByRole('slider', { name }), { key })

test('pads, wheel, pedal, bend and pressure send what a device would; bend and pressure go back', () => {
  render(<PracticeController />)
  fireEvent.keyDown(screen.getAllByRole('button', { name: /^Practice pad/ })[2]!, { key: 'Enter' })
  expect(heard()).toBe('note 38, 96 hard, channel 10, Practice controller')
  slide('Wheel', 'End')
  expect(heard()).toContain('wheel at 127')
  fireEvent.click(screen.getByRole('switch', { name: 'Pedal' }))
  expect(heard()).toContain('pedal at 127')
  mockMove.mockClear()
  slide('Bend', 'End')
  expect(mockMove.mock.calls.map(([, value]) => value as number)).toEqual([1, 0])
  slide('Pressure', 'End')
  expect(mockMove.mock.calls.slice(2).map(([, value]) => value as number)).toEqual([1, 0])
})

test('octaves and channels are chosen', () => {
  render(<PracticeController />)
  fireEvent.click(screen.getByRole('button', { name: 'An octave up' }))
  slide('Channel', 'Home')
  fireEvent.keyDown(screen.getAllByRole('button', { name: /^Practice pad/ })[0]!, { key: ' ' })
  expect(heard()).toBe('note 48, 96 hard, channel 1, Practice controller')
})

test('a script plays in its time, says its end, and names the line that it cannot play', () => {
  render(<PracticeController />)
  const script = screen.getByRole('textbox', { name: 'Script' })
  fireEvent.change(script, { target: { value: 'wheel 3\nwait 500\nwheel 9' } })
  fireEvent.click(screen.getByRole('button', { name: 'Play the script' }))
  act(() => jest.advanceTimersByTime(499))
  expect(heard()).toContain('wheel at 3')
  act(() => jest.advanceTimersByTime(1))
  expect(heard()).toContain('wheel at 9')
  expect(screen.getByText('It has played to its end.')).toBeTruthy()
  fireEvent.change(script, { target: { value: 'wheel high' } })
  fireEvent.click(screen.getByRole('button', { name: 'Play the script' }))
  expect(screen.getByText(/^Line 1, “wheel high”/)).toBeTruthy()
})

test('a script of the page can send bytes, and what it held goes when the controller goes', () => {
  const { unmount } = render(<PracticeController />)
  globalThis.heliasterPractice!.send(0xe0, 0, 0)
  expect(heard()).toContain('bend at -100 %')
  mockMove.mockClear()
  unmount()
  expect(mockMove.mock.calls).toEqual([[128, 0]])
  expect(globalThis.heliasterPractice).toBeUndefined()
})
