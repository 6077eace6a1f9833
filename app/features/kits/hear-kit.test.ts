import { createStore } from 'zustand/vanilla'

import { aKitOf, aPad } from '../../testing/a-kit'
import { hearKit } from './hear-kit'

const mockSound = createStore<{ player?: object; problem?: string }>(() => ({}))
const mockStrike = jest.fn<boolean, [{ padId: string }]>(() => false)
const mockPlay = jest.fn()
let mockArrived: (() => void) | undefined
jest.mock('../../audio/engine/sound', () => ({
  sound: { getState: () => mockSound.getState(), subscribe: (listener: () => void) => mockSound.subscribe(listener) },
  playKit: (kit: unknown) => mockPlay(kit) as unknown,
  strikePad: (strike: { padId: string }) => mockStrike(strike),
  releasePad: jest.fn(),
}))
jest.mock('../../audio/engine/arriving', () => ({
  onArrived: (listener: () => void) => {
    mockArrived = listener
    return () => (mockArrived = undefined)
  },
}))

const kit = aKitOf({ ...aPad(1), id: 'a' as never }, { ...aPad(0), id: 'empty' as never, bands: [] }, { ...aPad(1), id: 'b' as never })
const struck = () => mockStrike.mock.calls.map(([{ padId }]) => padId)
const ended = jest.fn()

beforeEach(() => {
  jest.useFakeTimers()
  jest.clearAllMocks()
  mockSound.setState({ player: undefined }, true)
})
afterEach(() => jest.useRealTimers())

test('pads with sounds are struck one after another once there is an engine, and then the kit is let go', () => {
  hearKit(kit, ended)
  expect([mockPlay.mock.lastCall, struck()]).toEqual([[kit], []])
  mockSound.setState({ player: {} })
  expect(struck()).toEqual(['a'])
  jest.runAllTimers()
  expect([struck(), ended.mock.calls.length, mockPlay.mock.lastCall]).toEqual([['a', 'b'], 1, [undefined]])
})

test('a sound that is on its way is waited for; stopped, nothing is struck any more', () => {
  mockSound.setState({ player: {} })
  mockStrike.mockReturnValueOnce(true)
  const stop = hearKit(kit, ended)
  jest.advanceTimersByTime(3000)
  expect(struck()).toEqual(['a'])
  mockArrived!()
  jest.advanceTimersByTime(300)
  expect(struck()).toEqual(['a', 'b'])
  stop()
  jest.runAllTimers()
  expect([struck().length, ended.mock.calls.length, mockArrived]).toEqual([2, 0, undefined])
})
