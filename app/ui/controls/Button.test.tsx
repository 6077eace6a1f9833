import { fireEvent, render, screen } from '@testing-library/react'

import { Button, IconButton } from './Button'

test('a button says its words and does its work, once for a press', () => {
  const press = jest.fn()
  render(<Button label="Send to pads" kind="main" icon="plus" onPress={press} />)
  fireEvent.click(screen.getByRole('button', { name: 'Send to pads' }))
  expect(press).toHaveBeenCalledTimes(1)
})

test('what cannot be pressed is not, and says so', () => {
  const press = jest.fn()
  render(<Button label="Send" disabled onPress={press} />)
  const button = screen.getByRole('button', { name: 'Send' })
  expect(button.getAttribute('aria-disabled')).toBe('true')
  fireEvent.click(button)
  expect(press).not.toHaveBeenCalled()
})

test('a button that is at work says that', () => {
  render(<Button label="Send" busy onPress={() => undefined} />)
  expect(screen.getByLabelText('At work')).toBeTruthy()
})

test('a sign has words for those who cannot see it, 44 px, and says whether it is on', () => {
  const press = jest.fn()
  render(<IconButton name="close" label="Put this away" on onPress={press} />)
  const button = screen.getByRole('button', { name: 'Put this away' })
  expect(button.getAttribute('aria-pressed')).toBe('true')
  const face = button.firstElementChild as HTMLElement
  expect([face.style.width, face.style.height]).toEqual(['44px', '44px'])
  fireEvent.click(button)
  expect(press).toHaveBeenCalledTimes(1)
})
