import { act, fireEvent, render, screen } from '@testing-library/react'

import { clockSettings, clockState } from '../../../audio/playing/hands/midi-clock'
import { midiState } from '../../../audio/playing/hands/midi-inputs'
import { ClockPart, clockWords } from './ClockPart'

jest.mock('../../../audio/engine/sound', () => ({ sound: { getState: () => ({}) }, kitNow: () => undefined, strikePad: jest.fn(), releasePad: jest.fn() })) // prettier-ignore
jest.mock('../../../audio/playing/groove-player', () => ({ grooveState: { getState: () => ({}) }, startGroove: jest.fn(), stopGroove: jest.fn() })) // prettier-ignore

beforeEach(() => {
  clockSettings.setState({ follows: '', sends: [] })
  clockState.setState({ tempoBpm: undefined, leads: false })
  midiState.setState({ status: 'off', devices: [], outputs: [] })
})

test('without MIDI it says so and offers it; without an output nothing can be sent', () => {
  render(<ClockPart />)
  expect(screen.getByRole('button', { name: 'Use MIDI' })).toBeTruthy()
  act(() => midiState.setState({ status: 'on' }))
  expect(screen.getByText(/^No output is plugged in/)).toBeTruthy()
  expect(screen.getByText('The groove goes by the tempo of the kit.')).toBeTruthy()
})

test('an input is followed, outputs are sent to, and what comes is told', () => {
  midiState.setState({ status: 'on', devices: ['Dock clock'], outputs: ['Winch', 'Capstan'] })
  render(<ClockPart />)
  fireEvent.click(screen.getByRole('radio', { name: 'Dock clock' }))
  expect(clockSettings.getState().follows).toBe('Dock clock')
  expect(screen.getByText('Nothing has come of Dock clock yet. Start it there.')).toBeTruthy()
  act(() => clockState.setState({ tempoBpm: 121.34, leads: true }))
  expect(screen.getByText('The groove goes by Dock clock, at 121.3 beats a minute.')).toBeTruthy()
  fireEvent.click(screen.getByRole('checkbox', { name: 'Winch' }))
  fireEvent.click(screen.getByRole('checkbox', { name: 'Capstan' }))
  fireEvent.click(screen.getByRole('checkbox', { name: 'Winch' }))
  expect(clockSettings.getState().sends).toEqual(['Capstan'])
})

test('one that is pulled out or stands still says so', () => {
  expect(clockWords({ follows: 'Dock', isHere: false, tempoBpm: 90, leads: true })).toMatch(/^Dock is not plugged in/)
  expect(clockWords({ follows: 'Dock', isHere: true, tempoBpm: 90, leads: false })).toBe(
    'Dock stands still; it was at 90.0 beats a minute.',
  )
})
