import { usualPadSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { EdgeControls } from './EdgeControls'

test('start, end and both fades are slid in milliseconds, as far as the clip is long', () => {
  const onChange = jest.fn()
  render(<EdgeControls settings={usualPadSettings} clipSeconds={0.8} onChange={onChange} onDone={() => undefined} />)
  const names = screen.getAllByRole('slider').map((slider) => slider.getAttribute('aria-label'))
  expect(names).toEqual(['Start', 'End, before the clip’s own', 'Fade in', 'Fade out'])
  const fade = screen.getByRole('slider', { name: 'Fade out' })
  expect(fade.getAttribute('aria-valuemax')).toBe('800')
  fireEvent.keyDown(fade, { key: 'ArrowRight' })
  expect(onChange).toHaveBeenCalledWith({ values: { fadeOutSeconds: 0.0001 } })
})
