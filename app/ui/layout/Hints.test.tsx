import { act, fireEvent, render, screen } from '@testing-library/react'

import { IconButton } from '../controls/Button'
import { Hints } from './Hints'

beforeEach(() => {
  jest.useFakeTimers()
  render(
    <>
      <IconButton name="tune-vertical" label="Mixer" onPress={() => undefined} />
      <IconButton name="close" label="Put away" onPress={() => undefined} />
      <Hints />
    </>,
  )
})
afterEach(() => jest.useRealTimers())

const pass = (ms: number) => act(() => jest.advanceTimersByTime(ms))
const over = (label: string, pointerType = 'mouse') => {
  const event = new Event('pointerover', { bubbles: true })
  act(() => void screen.getByRole('button', { name: label }).dispatchEvent(Object.assign(event, { pointerType })))
}
const shown = () => screen.queryByTestId('hint')?.textContent

test('a mouse that rests on a sign is told its words; one that passes is not', () => {
  over('Mixer')
  pass(200)
  expect(shown()).toBeUndefined()
  over('Put away')
  pass(500)
  expect(shown()).toBe('Put away')
})

test('a finger is told nothing, since it presses', () => {
  over('Mixer', 'touch')
  pass(2000)
  expect(shown()).toBeUndefined()
})

test.each([
  ['Escape', () => fireEvent.keyDown(document.body, { key: 'Escape' })],
  ['a press', () => fireEvent(document.body, new Event('pointerdown', { bubbles: true }))],
])('%s takes the words away', (_how, away) => {
  over('Mixer')
  pass(500)
  expect(shown()).toBe('Mixer')
  away()
  pass(500)
  expect(shown()).toBeUndefined()
})

test('a sign that keys have reached is told at once, and no longer when they leave it', () => {
  const button = screen.getByRole('button', { name: 'Mixer' })
  jest.spyOn(button, 'matches').mockReturnValue(true) // the test's browser knows no visible focus
  act(() => button.focus())
  pass(0)
  expect(shown()).toBe('Mixer')
  act(() => button.blur())
  pass(500)
  expect(shown()).toBeUndefined()
})
