import type { PadId } from '@heliaster/core/kit'

import { session } from './session'
import { lightUp, putOut } from './sounding'

const mockSounds = new Set<string>()
jest.mock('../audio/engine/sound', () => ({ padSounds: (id: string) => mockSounds.has(id) }))

const [oar, buoy] = ['oar', 'buoy'] as PadId[]
const lit = () => [...session.getState().sounding].sort()

beforeEach(() => {
  jest.useFakeTimers()
  mockSounds.clear()
  putOut()
})
afterEach(() => jest.useRealTimers())

test('a pad is lit from its strike until it has died away, and each for itself', () => {
  mockSounds.add('oar')
  lightUp([oar, buoy])
  expect(lit()).toEqual(['buoy', 'oar'])
  jest.advanceTimersByTime(100)
  expect(lit()).toEqual(['buoy', 'oar']) // too short to be seen else
  jest.advanceTimersByTime(200)
  expect(lit()).toEqual(['oar'])
  jest.advanceTimersByTime(5000)
  expect(lit()).toEqual(['oar'])
  mockSounds.delete('oar')
  jest.advanceTimersByTime(100)
  expect(lit()).toEqual([])
  expect(jest.getTimerCount()).toBe(0) // nobody asks when nothing sounds
})

test('a pad struck again stays lit, and the screens are told only of what changes', () => {
  const told = jest.fn()
  const stop = session.subscribe(told)
  mockSounds.add('oar')
  lightUp([oar])
  jest.advanceTimersByTime(1000)
  lightUp([oar])
  jest.advanceTimersByTime(1000)
  expect(told).toHaveBeenCalledTimes(1)
  putOut()
  expect(lit()).toEqual([])
  stop()
})
