import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { OwnSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { OrderControls } from './OrderControls'

function shown(own: OwnSettings) {
  const onChange = jest.fn()
  render(<OrderControls settings={settled(usualPadSettings, own)} onChange={onChange} onDone={() => undefined} />)
  return onChange
}

test('one thing alone has no order', () => {
  shown({ values: { driveDb: 6 } })
  expect(screen.queryByRole('list')).toBeNull()
})

test('what is set stands in its order, and each but the first can go before the one above it, past what is off', () => {
  const onChange = shown({ values: { driveDb: 6, tailDb: -3 }, choices: { filter1Kind: 'peak' } })
  expect(screen.getAllByRole('listitem').map((row) => row.textContent)).toEqual([
    '1Attack and tail',
    '2DriveBefore attack and tail',
    '3FilterBefore drive',
  ])
  fireEvent.click(screen.getByRole('button', { name: 'Before drive' }))
  expect(onChange).toHaveBeenCalledWith({ order: ['transient', 'filter1', 'drive', 'crush', 'filter2'] })
})
