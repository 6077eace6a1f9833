import { act, fireEvent, render, screen } from '@testing-library/react'

import { Marquee, overlaps } from './Marquee'

const choose = jest.fn()
const capture = jest.fn()
beforeEach(() => {
  jest.clearAllMocks()
  jest.useFakeTimers()
  Element.prototype.setPointerCapture = capture
  render(<Marquee onChoose={choose} />)
})
afterEach(() => jest.useRealTimers())

const ground = () => screen.getByTestId('ground')
function pointer(type: string, x: number, y: number, pointerType = 'mouse', pointerId = 1) {
  const event = new MouseEvent(type, { bubbles: true, clientX: x, clientY: y })
  fireEvent(ground(), Object.assign(event, { pointerId, pointerType }))
}

test('a mouse marks at once, any way; a click without a drag marks nothing', () => {
  pointer('pointerdown', 100, 80)
  pointer('pointermove', 60, 120)
  expect(ground().children).toHaveLength(1)
  pointer('pointerup', 40, 200)
  expect(choose.mock.calls).toEqual([[{ left: 40, top: 80, width: 60, height: 120 }, ground()]])
  expect(ground().children).toHaveLength(0)
  pointer('pointerdown', 10, 10)
  pointer('pointerup', 11, 10)
  expect(choose).toHaveBeenCalledTimes(1)
})

test('a finger that rests marks; one that moves at once scrolls, and what the browser takes away marks nothing', () => {
  pointer('pointerdown', 10, 10, 'touch')
  pointer('pointermove', 10, 40, 'touch')
  act(() => void jest.advanceTimersByTime(400))
  pointer('pointerup', 10, 90, 'touch')
  expect(choose).not.toHaveBeenCalled()
  pointer('pointerdown', 10, 10, 'touch')
  act(() => void jest.advanceTimersByTime(400))
  pointer('pointermove', 50, 60, 'touch')
  pointer('pointermove', 500, 600, 'touch', 2) // another finger
  pointer('pointerup', 50, 60, 'touch')
  expect(choose.mock.calls).toEqual([[{ left: 10, top: 10, width: 40, height: 50 }, ground()]])
  pointer('pointerdown', 10, 10)
  pointer('pointercancel', 80, 80)
  expect(choose).toHaveBeenCalledTimes(1)
})

test('what is only touched at its edge is not gone over', () => {
  const box = { left: 10, top: 10, width: 10, height: 10 }
  expect(overlaps(box, { left: 19, top: 19, width: 5, height: 5 })).toBe(true)
  expect(overlaps(box, { left: 20, top: 10, width: 5, height: 5 })).toBe(false)
  expect(overlaps(box, { left: 12, top: 30, width: 5, height: 5 })).toBe(false)
})
