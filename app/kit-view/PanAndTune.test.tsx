import { fireEvent, render, screen } from '@testing-library/react'

import { PanSlider, TuneSlider } from './PanAndTune'

test.each([
  [0, 'middle'],
  [0.004, 'middle'],
  [-0.5, 'L 50'],
  [1, 'R 100'],
])('a place of %d is said as %s', (value, words) => {
  render(<PanSlider value={value} onSlide={() => undefined} onDone={() => undefined} />)
  expect(screen.getByRole('slider', { name: 'Pan' }).getAttribute('aria-valuetext')?.trim()).toBe(words)
})

test('tuning is shown and typed in semitones and kept in whole cents', () => {
  const slide = jest.fn()
  render(<TuneSlider value={-350} onSlide={slide} onDone={() => undefined} />)
  const typed = screen.getByLabelText('Tune, st') as HTMLInputElement
  expect(typed.value).toBe('-3.50')
  fireEvent.change(typed, { target: { value: '1.234' } })
  fireEvent.blur(typed)
  expect(slide).toHaveBeenCalledWith(123)
})
