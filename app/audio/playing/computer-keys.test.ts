import { connectKeys, isTyping, keyLabel, PAD_KEYS } from './computer-keys'
import { aKitOf, aPad } from '../../testing/a-kit'

const mockStrike = jest.fn()
const mockRelease = jest.fn()
jest.mock('../engine/sound', () => ({
  strikePad: (strike: unknown) => mockStrike(strike),
  releasePad: (pad: unknown, key: unknown) => mockRelease(pad, key),
}))

const kit = aKitOf(aPad(1), aPad(1))
const press = (code: string, more: object = {}, on: EventTarget = window) => {
  const event = new KeyboardEvent('keydown', { code, bubbles: true, cancelable: true, ...more })
  on.dispatchEvent(event)
  return event
}
const letGo = (code: string) => window.dispatchEvent(new KeyboardEvent('keyup', { code }))
let stop: () => void

beforeEach(() => {
  jest.clearAllMocks()
  stop = connectKeys(() => kit)
})
afterEach(() => stop())

test('keys strike pads by their place, middling, loud with Shift and soft with Alt, and let them go', () => {
  for (const more of [{}, { shiftKey: true }, { altKey: true }]) press('KeyX', more)
  expect(mockStrike.mock.calls.map(([{ padId, velocity }]) => [padId, velocity])).toEqual([92, 124, 48].map((velocity) => [kit.pads[1].id, velocity])) // prettier-ignore
  const [{ key }] = mockStrike.mock.lastCall as [{ key: number }]
  letGo('KeyX')
  expect(mockRelease).toHaveBeenCalledWith(kit.pads[1].id, key)
  letGo('KeyX')
  expect(mockRelease).toHaveBeenCalledTimes(1)
})

test('a key of no pad, one that repeats, one of the browser’s and one that is typed strike nothing', () => {
  const field = document.body.appendChild(document.createElement('input'))
  expect(press('KeyC').defaultPrevented).toBe(false) // the kit has two pads
  press('KeyZ', { repeat: true })
  press('KeyZ', { ctrlKey: true })
  press('KeyZ', { metaKey: true })
  press('KeyZ', {}, field)
  expect(mockStrike).not.toHaveBeenCalled()
  expect(press('KeyZ').defaultPrevented).toBe(true)
  stop()
  press('KeyZ')
  expect(mockStrike).toHaveBeenCalledTimes(1)
})

test('each key has one pad and one name, and fields are told from what is not typed in', () => {
  expect(new Set(PAD_KEYS).size).toBe(PAD_KEYS.length)
  expect([0, 7, 8, 9, 28].map(keyLabel)).toEqual(['Z', ',', '.', 'A', undefined])
  expect([isTyping(document.createElement('textarea')), isTyping(document.createElement('button')), isTyping(null)]).toEqual([true, false, false]) // prettier-ignore
})
