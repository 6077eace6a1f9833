import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { Slider } from './Slider'

function Level({ onDone }: { readonly onDone: (value: number) => void }) {
  const [value, setValue] = useState(-6)
  return <Slider label="Level" value={value} min={-48} max={24} step={0.1} unit="dB" onSlide={setValue} onDone={() => onDone(value)} />
}

test('a value is stepped by arrow keys, led to its ends by Home and End, and says itself with its unit', () => {
  render(<Level onDone={() => undefined} />)
  const slider = screen.getByRole('slider', { name: 'Level' })
  fireEvent.keyDown(slider, { key: 'ArrowRight' })
  expect(slider.getAttribute('aria-valuetext')).toBe('-5.9 dB')
  fireEvent.keyDown(slider, { key: 'PageDown' })
  expect(slider.getAttribute('aria-valuenow')).toBe('-6.9')
  fireEvent.keyDown(slider, { key: 'End' })
  expect(slider.getAttribute('aria-valuenow')).toBe('24')
  fireEvent.keyDown(slider, { key: 'Home' })
  expect(slider.getAttribute('aria-valuenow')).toBe('-48')
})

test('a number is typed with its unit or a comma, held within the range, and what is no number is put back', () => {
  render(<Level onDone={() => undefined} />)
  const field = screen.getByLabelText('Level, dB') as HTMLInputElement
  const type = (text: string) => {
    fireEvent.change(field, { target: { value: text } })
    fireEvent.blur(field)
    return field.value
  }
  expect(type('-12,5 dB')).toBe('-12.5')
  expect(type('900')).toBe('24.0')
  expect(type('loud')).toBe('24.0')
})

/** jsdom knows no PointerEvent: a mouse event with what the drag reads of one. */
function pointer(type: string, clientX: number, pointerType: string): Event {
  return Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY: 10 }), { pointerId: 1, pointerType })
}

describe('dragged', () => {
  const done = jest.fn()
  let slider: HTMLElement
  const value = () => Number(slider.getAttribute('aria-valuenow'))
  beforeEach(() => {
    done.mockClear()
    render(<Level onDone={done} />)
    slider = screen.getByRole('slider', { name: 'Level' })
    slider.setPointerCapture = () => undefined
  })

  test('a mouse sets it at once', () => {
    fireEvent(slider, pointer('pointerdown', 1, 'mouse'))
    expect(value()).toBe(24) // the line is 1 px wide here
    fireEvent(slider, pointer('pointerup', 1, 'mouse'))
    expect(done).toHaveBeenCalledTimes(1)
  })

  test('a finger that scrolls past changes nothing', () => {
    fireEvent(slider, pointer('pointerdown', 1, 'touch'))
    fireEvent(slider, pointer('pointermove', 3, 'touch'))
    fireEvent(slider, pointer('pointercancel', 3, 'touch')) // the browser took it for scrolling
    expect(value()).toBe(-6)
    expect(done).not.toHaveBeenCalled()
    expect(slider.style.touchAction).toBe('pan-y')
  })

  test('a finger sets it when it moves sideways, or where it taps', () => {
    fireEvent(slider, pointer('pointerdown', 20, 'touch'))
    fireEvent(slider, pointer('pointermove', 0, 'touch'))
    expect(value()).toBe(-48)
    fireEvent(slider, pointer('pointerup', 0, 'touch'))
    fireEvent(slider, pointer('pointerdown', 1, 'touch'))
    expect(value()).toBe(-48)
    fireEvent(slider, pointer('pointerup', 1, 'touch'))
    expect(value()).toBe(24)
    expect(done).toHaveBeenCalledTimes(2)
  })
})
