import { fireEvent, render, screen } from '@testing-library/react'
import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { OwnSettings } from '@heliaster/core/kit'

import { FilterControls } from './FilterControls'

function shown(name: 'filter1' | 'filter2', own: OwnSettings) {
  const onChange = jest.fn()
  const onDone = jest.fn()
  render(<FilterControls name={name} settings={settled(usualPadSettings, own)} onChange={onChange} onDone={onDone} />)
  return { onChange, onDone }
}

test('a filter that is off asks for its kind only; the second waits for the first', () => {
  const { onChange, onDone } = shown('filter1', {})
  expect(screen.queryByText('Slope')).toBeNull()
  fireEvent.click(screen.getByText('High shelf'))
  expect(onChange).toHaveBeenCalledWith({ choices: { filter1Kind: 'highShelf' }, values: { filter1GainDb: 6 } })
  expect(onDone).toHaveBeenCalledTimes(1)
})

test('the second filter is not offered before there is a first', () => {
  const { container } = render(<FilterControls name="filter2" settings={usualPadSettings} onChange={jest.fn()} onDone={jest.fn()} />)
  expect(container.textContent).toBe('')
})

test('passes have a resonance, shelves and peaks a gain and a sharpness; each names what it is', () => {
  shown('filter1', { choices: { filter1Kind: 'lowPass' } })
  expect(screen.getByRole('slider', { name: /^Resonance, at the cutoff/ })).toBeTruthy()
  expect(screen.queryByRole('slider', { name: 'Gain' })).toBeNull()
})

test('a second peak says so in every name, and its slope is its own', () => {
  const { onChange } = shown('filter2', { choices: { filter1Kind: 'lowPass', filter2Kind: 'peak' } })
  expect(screen.getByRole('slider', { name: /^Second filter: gain/ })).toBeTruthy()
  expect(screen.getByRole('slider', { name: /^Second filter: sharpness/ })).toBeTruthy()
  fireEvent.click(screen.getByText('24 dB'))
  expect(onChange).toHaveBeenCalledWith({ choices: { filter2Slope: '24' } })
})

test('what an envelope reaches is offered once there is one', () => {
  shown('filter1', { choices: { filter1Kind: 'lowPass' }, envelopes: { filter1: { points: [{ seconds: 0, value: 1, bend: 0 }] } } })
  expect(screen.getByRole('slider', { name: /^Reach of its envelope/ })).toBeTruthy()
})
