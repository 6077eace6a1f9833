import { existsSync } from 'node:fs'
import { join } from 'node:path'

import { readySoon } from './ready-soon'
import { fetchRooms } from './rooms-later'

const mockStart = jest.fn()
jest.mock('./hear-later', () => ({ hearLater: async () => ({ startSound: () => mockStart() as unknown }) }))
const mockAsked: string[] = []
jest.mock('expo-router/_ctx', () => ({ ctx: (room: string) => (mockAsked.push(room), Promise.reject(new Error('No way there'))) }))

const later = async (ms: number) => {
  jest.advanceTimersByTime(ms)
  await Promise.resolve()
  await Promise.resolve()
}

beforeEach(() => {
  jest.useFakeTimers()
  mockStart.mockClear()
  mockAsked.length = 0
})
afterEach(() => {
  jest.useRealTimers()
  Reflect.deleteProperty(globalThis, 'requestIdleCallback')
})

test('the engine and the places of a kit are made ready after the first screen has stood for a while, once the device is idle', async () => {
  const idle: (() => void)[] = []
  Object.assign(globalThis, { requestIdleCallback: (then: () => void) => idle.push(then) })
  readySoon()
  await later(1400)
  expect(idle).toHaveLength(0)
  await later(100)
  expect([mockStart.mock.calls, mockAsked]).toEqual([[], []])
  idle[0]!()
  await later(0)
  expect(mockStart).toHaveBeenCalledTimes(1)
  expect(mockAsked).toEqual(expect.arrayContaining(['./kit/[kitId]/_layout.tsx', './kit/[kitId]/board.tsx']))
})

test('what is fetched ahead is named as it lies, and not fetched where a line is to be spared', () => {
  fetchRooms()
  expect(mockAsked.filter((room) => !existsSync(join(__dirname, '../../app', room)))).toEqual([])
  mockAsked.length = 0
  Object.assign(navigator, { connection: { saveData: true } })
  fetchRooms()
  expect(mockAsked).toEqual([])
  Reflect.deleteProperty(navigator, 'connection')
})

test('it is where nobody says when the device is idle, too; and not once the screen was left', async () => {
  readySoon()
  const leave = readySoon()
  leave()
  await later(2000)
  expect(mockStart).toHaveBeenCalledTimes(1)
})
