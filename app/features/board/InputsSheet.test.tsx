import { act, fireEvent, render, screen } from '@testing-library/react'

import { midiState } from '../../audio/playing/midi-inputs'
import { InputsSheet } from './InputsSheet'

jest.mock('../../audio/engine/sound', () => ({ sound: { getState: () => ({}) }, strikePad: jest.fn(), releasePad: jest.fn() }))

const toggle = () => fireEvent.click(screen.getByRole('switch', { name: 'Play from MIDI inputs' }))
const shown = () => screen.getByRole('dialog', { name: 'Keys and MIDI' }).textContent

interface FakeInput {
  name: string
  state: string
  onmidimessage: ((event: { data: Uint8Array }) => void) | null
}
const input: FakeInput = { name: 'Dock pads', state: 'connected', onmidimessage: null }

afterEach(() => {
  delete (navigator as { requestMIDIAccess?: unknown }).requestMIDIAccess
  midiState.setState({ status: 'off', devices: [], heard: undefined }, true)
})

const give = (request: () => Promise<unknown>) => Object.assign(navigator, { requestMIDIAccess: request })

test('a browser without MIDI says so and what to use, and one that refuses says how to allow it', async () => {
  render(<InputsSheet onClose={() => undefined} />)
  await act(async () => toggle())
  expect(shown()).toContain('This browser has no MIDI')
  give(() => Promise.reject(new Error('no')))
  await act(async () => toggle())
  expect(shown()).toContain('MIDI was not allowed')
})

test('inputs are named, what comes is shown, and one that is plugged in later is heard', async () => {
  const access = { inputs: new Map<string, FakeInput>(), onstatechange: null as (() => void) | null }
  give(() => Promise.resolve(access))
  render(<InputsSheet onClose={() => undefined} />)
  await act(async () => toggle())
  expect(shown()).toContain('No input is plugged in')
  access.inputs.set('one', input)
  act(() => access.onstatechange?.())
  expect(shown()).toContain('Listening to Dock pads.')
  act(() => input.onmidimessage?.({ data: Uint8Array.of(0xb0, 1, 64) }))
  expect(shown()).toContain('Heard last: wheel at 64.')
  await act(async () => toggle())
  expect([input.onmidimessage, shown()?.includes('Listening')]).toEqual([null, false])
})
