import { USUAL_KEYS } from '@heliaster/core/hands'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { connectKeys, isTyping, keyName, keysState, onNextKey } from './computer-keys'
import { handSettings, KEYS, setInput } from './hand-settings'

const mockStrike = jest.fn()
const mockRelease = jest.fn()
jest.mock('../../engine/sound', () => ({
  sound: { getState: () => ({}) },
  kitNow: () => undefined,
  strikePad: (strike: unknown) => mockStrike(strike),
  releasePad: (pad: unknown, key: unknown) => mockRelease(pad, key),
}))

const kit = aKitOf(...Array.from({ length: 6 }, () => aPad(1)))
const rows = { ...kit, arrangement: { ...kit.arrangement, columns: 4 } }
const press = (code: string, more: object = {}, on: EventTarget = window) => {
  const event = new KeyboardEvent('keydown', { code, bubbles: true, cancelable: true, ...more })
  on.dispatchEvent(event)
  return event
}
const letGo = (code: string) => window.dispatchEvent(new KeyboardEvent('keyup', { code }))
const strikes = () => mockStrike.mock.calls.map(([strike]) => strike as { padId: string; velocity: number; key: number })
let stop: () => void

beforeEach(() => {
  jest.clearAllMocks()
  handSettings.setState({ inputs: {}, keys: USUAL_KEYS, isSteady: false })
  keysState.setState({ first: 0, printed: {} })
  stop = connectKeys(() => rows)
})
afterEach(() => stop())

test('keys strike pads by their place, middling, loud with Shift and soft with Alt, and let them go', () => {
  for (const more of [{}, { shiftKey: true }, { altKey: true }]) press('KeyX', more)
  expect(strikes().map(({ padId, velocity }) => [padId, velocity])).toEqual([92, 124, 48].map((velocity) => [kit.pads[1]!.id, velocity]))
  mockRelease.mockClear()
  letGo('KeyX')
  expect(mockRelease).toHaveBeenCalledWith(kit.pads[1]!.id, strikes()[2]!.key)
  letGo('KeyX')
  expect(mockRelease).toHaveBeenCalledTimes(1)
})

test('a key of no pad, one that repeats, one of the browser’s and one that is typed strike nothing', () => {
  const field = document.body.appendChild(document.createElement('input'))
  expect(press('KeyM').defaultPrevented).toBe(false) // the kit has six pads
  press('KeyZ', { repeat: true })
  press('KeyZ', { ctrlKey: true })
  press('KeyZ', { metaKey: true })
  press('KeyZ', {}, field)
  expect(mockStrike).not.toHaveBeenCalled()
  expect(press('KeyZ').defaultPrevented).toBe(true)
  stop()
  press('KeyZ')
  expect(mockStrike).toHaveBeenCalledTimes(1)
  const aSwitch = Object.assign(document.createElement('input'), { type: 'checkbox' })
  expect([isTyping(field), isTyping(aSwitch)]).toEqual([true, false])
  expect([isTyping(document.createElement('textarea')), isTyping(document.createElement('button')), isTyping(null)]).toEqual([true, false, false]) // prettier-ignore
})

test('two keys go through the rows of pads, and stay within the kit', () => {
  press('BracketRight')
  press('KeyZ')
  press('BracketRight')
  press('KeyX')
  press('BracketLeft')
  press('KeyC')
  expect(strikes().map(({ padId }) => padId)).toEqual([4, 5, 2].map((place) => kit.pads[place]!.id))
})

test('what a key does can be changed, and its strikes go through the velocity curve of the keys', () => {
  handSettings.setState({ keys: { Digit5: 3 } })
  setInput(KEYS, { curve: { points: [{ at: 1, to: 10 }, { at: 127, to: 20 }], steps: 0 } }) // prettier-ignore
  press('KeyZ')
  press('Digit5', { shiftKey: true })
  expect(strikes().map(({ padId, velocity }) => [padId, velocity])).toEqual([[kit.pads[3]!.id, 20]])
})

test('a page that loses the keyboard lets go of all keys, since it is not told when they come up', () => {
  press('KeyZ')
  press('KeyX')
  window.dispatchEvent(new Event('blur'))
  expect(mockRelease.mock.calls.map(([padId]) => padId as string)).toEqual([kit.pads[0]!.id, kit.pads[1]!.id])
  letGo('KeyZ')
  expect(mockRelease).toHaveBeenCalledTimes(2)
})

test('keys are called by what is printed on them, as far as that is known', () => {
  expect(keyName('KeyY')).toBe('Y')
  press('KeyY', { key: 'z' })
  press('Semicolon', { key: 'ö' })
  expect([keyName('KeyY'), keyName('Semicolon'), keyName('Comma')]).toEqual(['Z', 'Ö', ','])
})

test('the next key can be asked for, once, and then plays nothing', () => {
  const told = jest.fn()
  onNextKey(told)
  press('KeyZ', { key: 'z' })
  press('KeyX', { key: 'x' })
  expect(told.mock.calls).toEqual([['KeyZ']])
  expect(strikes()).toHaveLength(1)
  onNextKey(told)()
  press('KeyZ', { key: 'z' })
  expect(told).toHaveBeenCalledTimes(1)
})
