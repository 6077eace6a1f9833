import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { layOut } from '../../../testing/lay-out'
import { SpeedCurve } from './SpeedCurve'

type Points = Parameters<typeof SpeedCurve>[0]['points']
let points: Points
const done = jest.fn()
function Shown({ from }: { readonly from: Points }) {
  const [now, setNow] = useState(from)
  points = now
  return <SpeedCurve seconds={2} points={now} onSlide={setNow} onDone={done} />
}
/** A hundred px a second: the chart is 228 px wide, 14 px of room about it. */
function show(...from: [seconds: number, value: number][]) {
  render(<Shown from={from.map(([seconds, value]) => ({ seconds, value }))} />)
  layOut(228, 120)
}
const x = (seconds: number) => 14 + 100 * seconds
const y = (value: number) => 14 + (1 - value / 200) * 92
function pointer(type: string, seconds: number, value: number) {
  const ground = screen.getByText('stands still').parentElement!
  fireEvent(ground, Object.assign(new MouseEvent(type, { bubbles: true, clientX: x(seconds), clientY: y(value) }), { pointerId: 1, pointerType: 'mouse' })) // prettier-ignore
}
const drag = (...places: [seconds: number, value: number][]) => {
  pointer('pointerdown', ...places[0]!)
  for (const place of places.slice(1)) pointer('pointermove', ...place)
  pointer('pointerup', ...places.at(-1)!)
}
const mark = (number: number) => screen.getByRole('slider', { name: new RegExp(`^Speed, point ${number}`) })
const told = () => points.map(({ seconds, value }) => [seconds, value])

beforeEach(() => {
  jest.clearAllMocks()
  Element.prototype.setPointerCapture = () => undefined
})

test('a point is dragged, between its neighbours and the ends, and never backwards', () => {
  show([0.5, 100], [1, 50], [1.5, 100])
  drag([1, 50], [1.2, 150])
  expect(told()[1]).toEqual([1.2, 150])
  drag([1.2, 150], [0.1, 400])
  expect(told()[1]).toEqual([0.5, 200])
  drag([1.5, 100], [9, -60])
  expect(told()[2]).toEqual([2, 0])
  expect(done).toHaveBeenCalledTimes(3)
})

test('near its own pace, or near a standstill, that is meant', () => {
  show([1, 50])
  const to = (value: number) => {
    drag([1, points[0]!.value], [1, value])
    return points[0]!.value
  }
  expect([to(96), to(104), to(2)]).toEqual([100, 100, 0])
  expect(Math.abs(to(90) - 90)).toBeLessThan(2) // a pixel is two per cent
})

test('a tap where no point is puts one in, in its order, and it can be dragged on at once', () => {
  show()
  drag([1, 150])
  drag([0.4, 50], [0.3, 100])
  drag([1.8, 50])
  expect(told()).toEqual([[0.3, 100], [1, 150], [1.8, 50]]) // prettier-ignore
})

test('by keys a point moves, each a step of its own, says where it is, and is taken out; the last one stays', () => {
  show([0.5, 50], [1, 0])
  expect(mark(2).getAttribute('aria-valuetext')).toBe('1000 ms, stands still')
  fireEvent.keyDown(mark(1), { key: 'ArrowRight' })
  fireEvent.keyDown(mark(1), { key: 'ArrowUp' })
  expect([told()[0], done.mock.calls.length]).toEqual([[0.505, 55], 2])
  expect(mark(1).getAttribute('aria-valuetext')).toBe('505 ms, 55 %')
  fireEvent.keyDown(mark(2), { key: 'Delete' })
  expect(told()).toHaveLength(1)
  fireEvent.keyDown(mark(1), { key: 'Backspace' })
  expect(told()).toHaveLength(1)
})
