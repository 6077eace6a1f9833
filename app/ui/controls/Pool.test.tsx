import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { Pool } from './Pool'
import { scaleOf } from './scale'

const done = jest.fn()
const chosen = jest.fn()
function Shown({ isFlat = false }) {
  const [[time, depth], set] = useState([20, 0])
  return (
    <Pool
      title="Fall"
      x={{ label: 'time', value: time!, min: 0, max: 100, step: 1, unit: 'ms' }}
      y={isFlat ? undefined : { label: 'from', value: depth!, min: -24, max: 24, step: 0.5, unit: 'st' }}
      width={100}
      height={60}
      isChosen={false}
      isOwn
      onChoose={chosen}
      onSlide={(x, y) => set([x, y])}
      onDone={() => done(time, depth)}
    />
  )
}
const pool = () => screen.getByRole('slider', { name: 'Fall, its own' })
const words = () => pool().getAttribute('aria-valuetext')
const pointer = (type: string, clientX: number, clientY: number) =>
  fireEvent(pool(), Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY }), { pointerId: 1, pointerType: 'touch' }))

beforeEach(() => {
  jest.clearAllMocks()
  Object.assign(Element.prototype, { setPointerCapture: () => undefined })
})

test('a finger sets both values from where they stand, further than the field reaches; a touch alone changes nothing', () => {
  render(<Shown />)
  pointer('pointerdown', 50, 30)
  expect([words(), chosen.mock.calls.length]).toEqual(['time 20 ms, from 0.0 st', 1])
  pointer('pointermove', 170, -30)
  expect(words()).toBe('time 70 ms, from 12.0 st')
  pointer('pointermove', 900, 900)
  expect(words()).toBe('time 100 ms, from -24.0 st')
  expect(done).not.toHaveBeenCalled()
  pointer('pointerup', 900, 900)
  expect(done).toHaveBeenCalledTimes(1)
})

test('arrow keys move one value each, Shift ten steps; other keys are left alone', () => {
  render(<Shown />)
  fireEvent.keyDown(pool(), { key: 'ArrowUp' })
  fireEvent.keyDown(pool(), { key: 'ArrowRight', shiftKey: true })
  expect(words()).toBe('time 30 ms, from 0.5 st')
  expect(fireEvent.keyDown(pool(), { key: 'Tab' })).toBe(true)
  expect(done).toHaveBeenCalledTimes(2)
})

test('a pool of one value knows no up and down', () => {
  render(<Shown isFlat />)
  fireEvent.keyDown(pool(), { key: 'ArrowUp' })
  pointer('pointerdown', 0, 0)
  pointer('pointermove', 0, 200)
  expect(words()).toBe('time 20 ms')
})

test('a scale gives back what it was given, and holds what lies beyond', () => {
  for (const power of [1, 3]) {
    const { toShare, fromShare } = scaleOf({ min: 20, max: 18000, step: 1, power })
    for (const hz of [20, 21, 440, 18000]) expect(fromShare(toShare(hz))).toBe(hz)
    expect([fromShare(-1), fromShare(2), toShare(1), toShare(99999)]).toEqual([20, 18000, 0, 1])
  }
})
