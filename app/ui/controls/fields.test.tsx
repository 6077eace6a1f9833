import { fireEvent, render, screen } from '@testing-library/react'

import { NameField } from './NameField'
import { SearchField } from './SearchField'
import { WordField } from './WordField'

const field = (name: string) => screen.getByRole('textbox', { name }) as HTMLInputElement
const type = (name: string, value: string) => fireEvent.change(field(name), { target: { value } })

test('a list is narrowed while words are typed', () => {
  const change = jest.fn()
  render(<SearchField value="ke" placeholder="Find in 40 sounds" onChange={change} />)
  expect(field('Find by name').placeholder).toBe('Find in 40 sounds')
  type('Find by name', 'keel')
  expect(change).toHaveBeenCalledWith('keel')
})

test('words count as they are typed, and Enter says that they are done', () => {
  const [change, enter] = [jest.fn(), jest.fn()]
  render(<WordField label="In the old name, replace" value="" onChange={change} onEnter={enter} />)
  type('In the old name, replace', 'oar')
  expect(change).toHaveBeenCalledWith('oar')
  fireEvent.keyDown(field('In the old name, replace'), { key: 'Enter' })
  expect(enter).toHaveBeenCalledTimes(1)
})

test('a name counts once it is left, not while it is typed, and not where it stayed', () => {
  const name = jest.fn()
  const { rerender } = render(<NameField label="Name" value="Keel drop" onName={name} />)
  fireEvent.blur(field('Name'))
  expect(name).not.toHaveBeenCalled()
  type('Name', 'Keel thump')
  expect(name).not.toHaveBeenCalled()
  fireEvent.blur(field('Name'))
  expect(name).toHaveBeenCalledWith('Keel thump')
  rerender(<NameField label="Name" value="Renamed elsewhere" onName={name} />)
  expect(field('Name').value).toBe('Renamed elsewhere')
})
