import { readySoon } from './ready-soon'

const mockStart = jest.fn()
jest.mock('./hear-later', () => ({ hearLater: async () => ({ startSound: () => mockStart() as unknown }) }))

const later = async (ms: number) => {
  jest.advanceTimersByTime(ms)
  await Promise.resolve()
  await Promise.resolve()
}

beforeEach(() => {
  jest.useFakeTimers()
  mockStart.mockClear()
})
afterEach(() => {
  jest.useRealTimers()
  Reflect.deleteProperty(globalThis, 'requestIdleCallback')
})

test('the engine is made ready after the first screen has stood for a while, once the device is idle', async () => {
  const idle: (() => void)[] = []
  Object.assign(globalThis, { requestIdleCallback: (then: () => void) => idle.push(then) })
  readySoon()
  await later(1400)
  expect(idle).toHaveLength(0)
  await later(100)
  expect(mockStart).not.toHaveBeenCalled()
  idle[0]!()
  await later(0)
  expect(mockStart).toHaveBeenCalledTimes(1)
})

test('it is where nobody says when the device is idle, too; and not once the screen was left', async () => {
  readySoon()
  const leave = readySoon()
  leave()
  await later(2000)
  expect(mockStart).toHaveBeenCalledTimes(1)
})
