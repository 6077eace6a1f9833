import { act, render, screen } from '@testing-library/react'
import { createStore, useStore } from 'zustand'

import { useWhileSeen } from './use-while-seen'

const mockSeen = { isSeen: true }
jest.mock('expo-router', () => ({ useIsFocused: () => mockSeen.isSeen }))

const store = createStore<{ count: number }>(() => ({ count: 1 }))
let drawn = 0
function Shown() {
  const count = useStore(useWhileSeen(store), (state) => state.count)
  drawn++
  return <p>{count}</p>
}

test('what lies under another screen is not drawn anew, and shows what has changed once it is seen again', () => {
  const { rerender } = render(<Shown />)
  act(() => store.setState({ count: 2 }))
  expect([screen.getByText('2').tagName, drawn]).toEqual(['P', 2])
  mockSeen.isSeen = false
  rerender(<Shown />)
  const before = drawn
  act(() => store.setState({ count: 3 }))
  expect(drawn).toBe(before)
  mockSeen.isSeen = true
  rerender(<Shown />)
  expect(screen.getByText('3').tagName).toBe('P')
})
