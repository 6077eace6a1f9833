import { act, renderHook } from '@testing-library/react'

import { useGrowing } from './use-growing'

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())
const passes = () => act(() => jest.runOnlyPendingTimers())

test('many things are drawn by and by, and what was drawn stays when there are more of them', () => {
  const { result, rerender } = renderHook(({ count }) => useGrowing(count, 10), { initialProps: { count: 25 } })
  const seen = [result.current]
  for (let i = 0; i < 4; i++) {
    passes()
    seen.push(result.current)
  }
  expect(seen).toEqual([10, 20, 25, 25, 25])
  rerender({ count: 28 })
  expect(result.current).toBe(28)
  rerender({ count: 3 })
  expect(result.current).toBe(3)
  expect(jest.getTimerCount()).toBe(0)
})

test('a few are drawn at once, and nothing is waited for', () => {
  const { result } = renderHook(() => useGrowing(4, 10))
  expect([result.current, jest.getTimerCount()]).toEqual([4, 0])
})
