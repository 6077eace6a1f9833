import { act, renderHook } from '@testing-library/react'

import { useNow } from './use-now'

test('the time goes on while it is shown, and stands still while it is not', () => {
  jest.useFakeTimers({ now: 1_000_000 })
  const { result, rerender, unmount } = renderHook(({ isShown }: { isShown: boolean }) => useNow(60_000, isShown), { initialProps: { isShown: true } }) // prettier-ignore
  expect(result.current).toBe(1_000_000)
  act(() => jest.advanceTimersByTime(59_000))
  expect(result.current).toBe(1_000_000)
  act(() => jest.advanceTimersByTime(1_000))
  expect(result.current).toBe(1_060_000)
  rerender({ isShown: false })
  act(() => jest.advanceTimersByTime(300_000))
  expect(result.current).toBe(1_060_000)
  rerender({ isShown: true })
  expect(result.current).toBe(1_360_000)
  unmount()
  expect(jest.getTimerCount()).toBe(0)
})
