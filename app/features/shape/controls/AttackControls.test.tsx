import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { OwnSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { AttackControls } from './AttackControls'

function shown(own: OwnSettings) {
  const onChange = jest.fn()
  render(<AttackControls settings={settled(usualPadSettings, own)} onChange={onChange} onDone={() => undefined} />)
  return onChange
}

test('attack and tail are raised and lowered, each by itself', () => {
  const onChange = shown({ values: { tailDb: -3 } })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Attack' }), { key: 'ArrowRight' })
  expect(onChange).toHaveBeenLastCalledWith({ values: { attackDb: 0.1 } })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Tail' }), { key: 'ArrowLeft' })
  expect(onChange).toHaveBeenLastCalledWith({ values: { tailDb: -3.1 } })
})

test('a low cut that is none says so', () => {
  const onChange = shown({})
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Low cut: none' }), { key: 'ArrowRight' })
  expect(onChange).toHaveBeenCalledWith({ values: { lowCutHz: 2 } })
})
