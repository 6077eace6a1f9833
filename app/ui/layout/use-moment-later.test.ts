import { act, renderHook } from '@testing-library/react'

import { useMomentLater } from './use-moment-later'

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())
const passes = () => act(() => jest.runOnlyPendingTimers())

test('what comes later comes a moment after what it waits for, and stays', () => {
  const { result, rerender } = renderHook(({ isReady }) => useMomentLater(isReady), { initialProps: { isReady: false } })
  passes()
  expect(result.current).toBe(false)
  rerender({ isReady: true })
  expect(result.current).toBe(false)
  passes()
  expect(result.current).toBe(true)
  rerender({ isReady: false })
  expect([result.current, jest.getTimerCount()]).toEqual([true, 0])
})

test('one that is left before never comes', () => {
  const { unmount } = renderHook(() => useMomentLater())
  unmount()
  expect(jest.getTimerCount()).toBe(0)
})
