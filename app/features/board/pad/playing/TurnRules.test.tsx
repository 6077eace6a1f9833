import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { OwnSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { TintChips } from '../TintChips'
import { TurnRules } from './TurnRules'

function shown(own: OwnSettings, bands = 2) {
  const set = jest.fn()
  render(<TurnRules settings={settled(usualPadSettings, own)} bands={bands} onSet={set} />)
  return set
}

test('over what turns are counted is asked where there are bands to count in', () => {
  const set = shown({})
  fireEvent.click(screen.getByRole('radio', { name: 'Over the pad' }))
  expect(set).toHaveBeenCalledWith({ counter: 'pad' })
})

test('one band has only the question when its turns start again', () => {
  shown({}, 1)
  expect(screen.queryByRole('radiogroup', { name: 'Turns are counted' })).toBeNull()
  expect(screen.getByRole('radiogroup', { name: 'Turns start again' })).toBeTruthy()
})

test('after a silence begins at two seconds, and how long it is is asked then', () => {
  const set = shown({})
  expect(screen.queryByRole('slider')).toBeNull()
  fireEvent.click(screen.getByRole('radio', { name: 'After a silence' }))
  expect(set).toHaveBeenLastCalledWith({ startAgain: 2 })
  const again = shown({ startAgain: 2 })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Silence of' }), { key: 'ArrowRight' })
  expect(again).toHaveBeenCalledWith({ startAgain: 2.1 })
})

test('a colour is chosen by its name; of several pads that differ none is', () => {
  const tint = jest.fn()
  render(<TintChips label="Colour" value="mixed" onTint={tint} />)
  const radios = screen.getAllByRole('radio')
  expect(radios.every((one) => one.getAttribute('aria-checked') === 'false')).toBe(true)
  for (const one of radios) expect(one.textContent).not.toBe('')
  fireEvent.click(screen.getByText('kelp'))
  expect(tint).toHaveBeenCalledWith(undefined)
})
