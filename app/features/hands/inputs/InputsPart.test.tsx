import { act, fireEvent, render, screen } from '@testing-library/react'

import { handSettings, PRACTICE, settingsOfInput } from '../../../audio/playing/hands/hand-settings'
import { handsState, takeMessage } from '../../../audio/playing/hands/hands'
import { midiState } from '../../../audio/playing/hands/midi-inputs'
import { InputsPart, midiWords } from './InputsPart'

jest.mock('../../../audio/engine/sound', () => ({ sound: { getState: () => ({}) }, kitNow: () => undefined, strikePad: jest.fn(), releasePad: jest.fn(), onSounded: jest.fn() })) // prettier-ignore

beforeEach(() => {
  handSettings.setState({ inputs: {}, fingers: 'place' })
  handsState.setState({ strokes: {}, heard: undefined })
  midiState.setState({ status: 'off', devices: [] })
})

test('each state of MIDI says something else, and what to do where nothing comes', () => {
  const words = (['off', 'asking', 'none', 'refused', 'on'] as const).map((status) => midiWords({ status, devices: [], outputs: [] }))
  expect(new Set(words).size).toBe(5)
  expect(words[2]).toMatch(/no MIDI.*everywhere/)
  expect(words[3]).toMatch(/Allow it/)
  expect(midiWords({ status: 'on', devices: ['Dock pads'], outputs: [] })).toBe('Listening to Dock pads.')
})

test('an input that is plugged in is one to choose, with its channel and whether it plays', () => {
  render(<InputsPart />)
  act(() => midiState.setState({ status: 'on', devices: ['Dock pads'] }))
  fireEvent.click(screen.getByRole('radio', { name: 'Dock pads' }))
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Channel' }), { key: 'PageUp' })
  expect(settingsOfInput('Dock pads').channel).toBe(10)
  fireEvent.click(screen.getByRole('switch', { name: 'Dock pads plays' }))
  expect(settingsOfInput('Dock pads').isOn).toBe(false)
  act(() => midiState.setState({ devices: [] }))
  expect(screen.getByRole('radio', { name: 'Fingers and mouse' }).getAttribute('aria-checked')).toBe('true')
})

test('what the practice controller sends is heard with no MIDI at all; fingers choose how they are felt', () => {
  render(<InputsPart />)
  act(() => takeMessage(PRACTICE, Uint8Array.of(0x99, 36, 100)))
  expect(screen.getByText('Heard last: note 36, 100 hard, channel 10, Practice controller.')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: /By its pressure/ }))
  expect(handSettings.getState().fingers).toBe('pressure')
})
