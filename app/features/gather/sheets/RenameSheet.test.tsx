import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'

import { RenameSheet } from './RenameSheet'

const mockSet = jest.fn()
jest.mock('../list/sound-actions', () => ({ setSounds: (...given: unknown[]) => mockSet(...given) as unknown }))

const info = { name: 'a.wav', sampleRateHz: 48000, frames: 100, channels: 1 }
const sounds = ['oar 7', 'oar 3', 'keel'].map((name, i) => createSource(testIds(i + 1), hashOf(String(i + 1)), info, name))

/** The names that were given last, in the order of the sounds. */
function given(): string[] {
  const [list, fields] = mockSet.mock.lastCall as [Source[], (source: Source, i: number) => { name: string }]
  return list.map((source, i) => fields(source, i).name)
}

function shown() {
  const close = jest.fn()
  render(<RenameSheet sounds={sounds} onClose={close} />)
  return close
}

const type = (name: string, value: string) => fireEvent.change(screen.getByRole('textbox', { name }), { target: { value } })
const rename = (count: number) =>
  fireEvent.click(screen.getByRole('button', { name: `Rename ${count} ${count === 1 ? 'sound' : 'sounds'}` }))

test('many are numbered after their own names, seen before anything is changed', () => {
  const close = shown()
  expect(screen.getByLabelText('The new names').textContent).toContain('oar 7oar 7 01')
  rename(3)
  expect(given()).toEqual(['oar 7 01', 'oar 3 02', 'keel 03'])
  expect(close).toHaveBeenCalledTimes(1)
})

test('words are put into the pattern by a tap, and numbers begin where they are told to', () => {
  shown()
  type('Pattern', 'slip ')
  fireEvent.click(screen.getByRole('button', { name: 'Add {nn} to the pattern' }))
  const first = screen.getByLabelText('First number')
  fireEvent.change(first, { target: { value: '9' } })
  fireEvent.blur(first)
  rename(3)
  expect(given()).toEqual(['slip 09', 'slip 10', 'slip 11'])
})

test('a part of the old names is replaced; only what changes is counted', () => {
  shown()
  type('Pattern', '{name}')
  type('In the old name, replace', 'oar')
  type('with', 'sweep')
  rename(2)
  expect(given()).toEqual(['sweep 7', 'sweep 3', 'keel'])
})

test('names that occur more than once are told; names that stay are not given', () => {
  shown()
  type('Pattern', 'same')
  expect(screen.getByText('3 of the new names occur more than once.')).toBeTruthy()
  type('Pattern', '{name}')
  expect(screen.getByRole('button', { name: 'Rename 0 sounds' }).getAttribute('aria-disabled')).toBe('true')
})
