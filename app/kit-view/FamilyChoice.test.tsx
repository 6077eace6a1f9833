import { fireEvent, render, screen } from '@testing-library/react'

import { FamilyChoice } from './FamilyChoice'

const choose = jest.fn()
const type = (words: string) => {
  const field = screen.getByRole('textbox', { name: 'Family, typed' })
  fireEvent.change(field, { target: { value: words } })
  fireEvent.blur(field)
}

test('the finer kinds stand under their family alone', () => {
  const { rerender } = render(<FamilyChoice value="kick" onChoose={choose} />)
  expect(screen.queryByRole('radiogroup', { name: /^Which/ })).toBeNull()
  rerender(<FamilyChoice value="openHat" onChoose={choose} />)
  expect(screen.getByRole('radio', { name: 'hat' }).getAttribute('aria-checked')).toBe('true')
  expect(screen.getByRole('radio', { name: 'open hat' }).getAttribute('aria-checked')).toBe('true')
  fireEvent.click(screen.getByRole('radio', { name: 'closed hat' }))
  expect(choose).toHaveBeenLastCalledWith('closedHat')
  fireEvent.click(screen.getByRole('radio', { name: 'not said' }))
  expect(choose).toHaveBeenLastCalledWith('hat')
})

test('a kind is typed in its words, in the trade’s, or by its beginning; a word that is none changes nothing and says so', () => {
  render(<FamilyChoice value="kick" onChoose={choose} />)
  const kinds = ['floor tom', 'Hi-hat, open', 'spl', 'ride bell'].map((words) => (type(words), choose.mock.lastCall as unknown))
  expect(kinds).toEqual([['lowTom'], ['openHat'], ['splash'], ['bell']])
  choose.mockClear()
  type('bollard')
  expect(screen.getByRole('status').textContent).toContain('“bollard” is no kind')
  expect(choose).not.toHaveBeenCalled()
})
