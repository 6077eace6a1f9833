import { USUAL_KEYS } from '@heliaster/core/hands'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { connectKeys, keysState } from '../../../audio/playing/hands/computer-keys'
import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { KeysPart } from './KeysPart'

jest.mock('../../../audio/engine/sound', () => ({ sound: { getState: () => ({}) }, kitNow: () => undefined, strikePad: jest.fn(), releasePad: jest.fn(), onSounded: jest.fn() })) // prettier-ignore
jest.mock('expo-router', () => ({}))
jest.mock('../../../documents', () => ({ kits: {} }))

const kit = aKitOf(aPad(1), aPad(1), aPad(1))
const key = (name: RegExp) => screen.getByRole('radio', { name })
const does = (text: string) => fireEvent.click(screen.getByRole('radio', { name: text }))

beforeEach(() => {
  handSettings.setState({ keys: USUAL_KEYS })
  keysState.setState({ first: 0, printed: {} })
})

test('keys say what they do, with the pads of this kit', () => {
  render(<KeysPart kit={kit} />)
  expect(key(/^Z: Oar/).getAttribute('aria-checked')).toBe('true')
  expect(key(/^V: pad 4/)).toBeTruthy()
  fireEvent.click(key(/^V: pad 4/))
  expect(screen.getByRole('status').textContent).toBe('V strikes pad 4, which this kit has not yet.')
  fireEvent.click(key(/^\]: next row/))
  expect(screen.getByRole('status').textContent).toBe('] goes to the next row of pads.')
})

test('a key is given another pad, a way through the rows, nothing; the usual ones come back', () => {
  render(<KeysPart kit={kit} />)
  fireEvent.click(key(/^1: nothing/))
  does('Strikes a pad')
  expect(handSettings.getState().keys.Digit1).toBe(28) // the first that no key strikes
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Pad' }), { key: 'Home' })
  expect(handSettings.getState().keys).toMatchObject({ Digit1: 0 })
  expect(handSettings.getState().keys.KeyZ).toBeUndefined()
  does('Goes a row back')
  expect(handSettings.getState().keys.Digit1).toBe('rowBefore')
  does('Does nothing')
  expect('Digit1' in handSettings.getState().keys).toBe(false)
  fireEvent.click(screen.getByRole('button', { name: 'Keys as usual' }))
  expect(handSettings.getState().keys).toEqual(USUAL_KEYS)
})

test('a key is chosen by pressing it', () => {
  const stop = connectKeys(() => kit)
  render(<KeysPart kit={kit} />)
  fireEvent.click(screen.getByRole('button', { name: 'Choose a key by pressing it' }))
  act(() => void window.dispatchEvent(new KeyboardEvent('keydown', { code: 'KeyQ', key: 'ä' })))
  expect(key(/^Ä: /).getAttribute('aria-checked')).toBe('true')
  expect(screen.getByRole('button', { name: 'Choose a key by pressing it' })).toBeTruthy()
  stop()
})
