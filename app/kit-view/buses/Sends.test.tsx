import type { Bus, Kit, Send } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { Sends } from './Sends'

jest.mock('../use-kit', () => ({ padName: (_: unknown, pad: { own: { name: string } }) => pad.own.name }))
jest.mock('@heliaster/core/kit', () => ({ ...jest.requireActual<object>('@heliaster/core/kit'), padSettings: () => ({}) }))

const bus = (id: string, name: string) => ({ id, name, sends: [] }) as unknown as Bus
const targets = [bus('hall', 'Boathouse'), bus('tank', 'Bilge')]
const pad = (name: string, busId?: string) => ({
  own: { name },
  bands: [],
  rays: [{ sends: busId ? [{ busId, values: {}, tap: 'post' }] : [], name: 'All', source: { kind: 'clips' } }],
})
const kit = { pads: [pad('Keel drop', 'hall'), pad('Oar', 'hall'), pad('Rope', 'hall'), pad('Hatch')], buses: targets } as unknown as Kit
const send = { busId: 'hall', values: { gainDb: -9 }, tap: 'post' } as unknown as Send

function shown(sends: readonly Send[], to: readonly Bus[] = targets) {
  const acts = { onSlide: jest.fn(), onDone: jest.fn(), onChange: jest.fn() }
  render(<Sends kit={kit} from="Keel drop" sends={sends} targets={to} {...acts} />)
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

test('beside each send stands who else is heard there', () => {
  shown([send])
  expect(screen.getByText('Boathouse hears Keel drop, Oar and 1 more.')).toBeTruthy()
})
