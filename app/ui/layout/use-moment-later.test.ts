import { act, renderHook } from '@testing-library/react'

import { useMomentLater } from './use-moment-later'

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())
const passes = () => act(() => jest.runOnlyPendingTimers())

test('what comes later comes a moment after what it waits for', () => {
  const { result, rerender } = renderHook(({ isReady }) => useMomentLater(isReady), { initialProps: { isReady: false } })
  passes()
  expect(result.current).toBe(false)
  rerender({ isReady: true })
  expect(result.current).toBe(false)
  passes()
  expect(result.current).toBe(true)
  expect(jest.getTimerCount()).toBe(0)
})

test('one that is left before never comes', () => {
  const { unmount } = renderHook(() => useMomentLater())
  unmount()
  expect(jest.getTimerCount()).toBe(0)
})
