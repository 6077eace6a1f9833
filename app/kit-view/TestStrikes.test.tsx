import { fireEvent, render, screen } from '@testing-library/react'

import { StrikeAt, TestStrikes } from './TestStrikes'

const mockStrike = jest.fn()
const mockRelease = jest.fn()
jest.mock('../audio/engine/sound', () => ({
  strikePad: (strike: unknown) => mockStrike(strike),
  releasePad: (pad: unknown, key: unknown) => mockRelease(pad, key),
}))

test('three dots strike harder from left to right, and the pad sounds as long as one is held', () => {
  render(<TestStrikes padId={'pad-1' as never} />)
  const dots = screen.getAllByRole('button')
  expect(dots.map((dot) => dot.getAttribute('aria-label'))).toEqual(['Strike softly', 'Strike at middle strength', 'Strike hard'])
  for (const dot of dots) {
    fireEvent.mouseDown(dot, { buttons: 1 })
    expect(mockRelease).not.toHaveBeenCalled()
    fireEvent.mouseUp(dot)
    expect(mockRelease).toHaveBeenCalledTimes(1)
    mockRelease.mockClear()
  }
  const velocities = mockStrike.mock.calls.map(([{ velocity }]) => velocity as number)
  expect(velocities).toHaveLength(3)
  expect([...velocities].sort((a, b) => a - b)).toEqual(velocities)
  expect(velocities.every((velocity) => velocity >= 1 && velocity <= 127)).toBe(true)
})

test('a pad is struck as hard as is typed, held between 1 and 127, and again by a press', () => {
  mockStrike.mockClear()
  render(<StrikeAt padId={'pad-1' as never} />)
  const field = screen.getByLabelText('Velocity to strike at')
  for (const typed of ['37', '400', 'loud']) {
    fireEvent.change(field, { target: { value: typed } })
    fireEvent.blur(field)
  }
  expect(mockStrike.mock.calls).toEqual([[{ padId: 'pad-1', velocity: 37 }], [{ padId: 'pad-1', velocity: 127 }]])
  fireEvent.mouseDown(screen.getByRole('button', { name: 'Strike at 127' }), { buttons: 1 })
  expect(mockStrike).toHaveBeenLastCalledWith({ padId: 'pad-1', velocity: 127, key: 920 })
})
