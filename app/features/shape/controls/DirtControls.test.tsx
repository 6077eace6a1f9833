import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { OwnSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { DirtControls } from './DirtControls'

function shown(own: OwnSettings, isStereo = false) {
  const onChange = jest.fn()
  render(<DirtControls settings={settled(usualPadSettings, own)} isStereo={isStereo} onChange={onChange} onDone={() => undefined} />)
  return onChange
}

test('a clean pad asks how dirty, no more', () => {
  const onChange = shown({})
  expect(screen.queryByRole('slider', { name: 'Dirt: bits' })).toBeNull()
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Dirt' }), { key: 'ArrowRight' })
  expect(onChange).toHaveBeenCalledWith({ values: { crush: 0.01 } })
})

test('dirt has bits, a rate, and a filter of its own', () => {
  const onChange = shown({ values: { crush: 0.5 } })
  expect(screen.getByRole('slider', { name: 'Dirt: rate' })).toBeTruthy()
  fireEvent.click(screen.getByRole('switch', { name: 'Held below half of that rate' }))
  expect(onChange).toHaveBeenCalledWith({ choices: { crushFilter: 'on' } })
})

test('width is offered where a clip has two channels', () => {
  shown({}, false)
  expect(screen.queryByRole('slider', { name: 'Width' })).toBeNull()
  shown({}, true)
  expect(screen.getByRole('slider', { name: 'Width' })).toBeTruthy()
})
