import type { Bus, Send } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { Sends } from './Sends'

const bus = (id: string, name: string) => ({ id, name }) as unknown as Bus
const targets = [bus('hall', 'Boathouse'), bus('tank', 'Bilge')]
const send = { busId: 'hall', values: { gainDb: -9 }, tap: 'post' } as unknown as Send

function shown(sends: readonly Send[], to: readonly Bus[] = targets) {
  const acts = { onSlide: jest.fn(), onDone: jest.fn(), onChange: jest.fn() }
  render(<Sends from="Keel drop" sends={sends} targets={to} {...acts} />)
  return acts
}

test('where there is nothing to send to, nothing is offered', () => {
  shown([], [])
  expect(screen.queryByText('Send to')).toBeNull()
})

test('a new send is softer than what it comes from and leaves after the fader', () => {
  const { onChange } = shown([send])
  expect(screen.queryByRole('button', { name: 'Boathouse' })).toBeNull() // it is sent there already
  fireEvent.click(screen.getByRole('button', { name: 'Bilge' }))
  expect(onChange).toHaveBeenCalledWith([send, { busId: 'tank', values: { gainDb: -12 }, tap: 'post' }])
})

test('a send is moved, taken from before the fader, and ended, each by itself', () => {
  const other = { ...send, busId: 'tank' } as Send
  const { onSlide, onChange } = shown([send, other])
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Sent to Bilge' }), { key: 'ArrowRight' })
  expect(onSlide).toHaveBeenCalledWith([send, { ...other, values: { gainDb: -8.9 } }])
  fireEvent.click(screen.getAllByRole('radio', { name: 'Before it' })[0])
  expect(onChange).toHaveBeenLastCalledWith([{ ...send, tap: 'pre' }, other])
  fireEvent.click(screen.getByRole('button', { name: 'Send Keel drop to Boathouse no more' }))
  expect(onChange).toHaveBeenLastCalledWith([other])
})

test('a send to a bus that is gone can still be ended', () => {
  shown([{ ...send, busId: 'gone' } as Send])
  expect(screen.getByRole('button', { name: 'Send Keel drop to a bus that is gone no more' })).toBeTruthy()
})
