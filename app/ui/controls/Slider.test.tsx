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
