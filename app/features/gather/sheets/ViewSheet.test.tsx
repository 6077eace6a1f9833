import { createSource } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'

import type { LibraryView } from '../list/library-view'
import { ViewSheet } from './ViewSheet'

const mockChange = jest.fn()
jest.mock('../list/library-view', () => ({
  ...jest.requireActual<object>('../list/library-view'),
  changeView: (fields: unknown) => mockChange(fields) as unknown,
}))

const info = { name: 'a.wav', sampleRateHz: 48000, frames: 100, channels: 1 }
const sounds = [
  createSource(testIds(1), hashOf('1'), info, 'oar', { family: 'tom', tags: ['wood'] }),
  createSource(testIds(2), hashOf('2'), info, 'bell', { family: 'bell' }),
]
const view = { words: '', sort: 'name', isReversed: false, only: 'all', hearsOnSelect: true, hearDb: 0 } as unknown as LibraryView

const shown = (more: Partial<LibraryView> = {}) => render(<ViewSheet view={{ ...view, ...more }} sounds={sounds} onClose={() => undefined} />) // prettier-ignore
const families = () => within('Family')
const within = (group: string) =>
  [...screen.getByRole('radiogroup', { name: group }).querySelectorAll('[role=radio]')].map((one) => one.textContent)

test('only families and tags that are there are offered, and one can be let go of again', () => {
  shown({ family: 'tom' })
  expect(families()).toEqual(['Any', 'tom', 'bell'])
  expect(within('Tag')).toEqual(['Any', 'wood'])
  fireEvent.click(screen.getByRole('radio', { name: 'bell' }))
  expect(mockChange).toHaveBeenLastCalledWith({ family: 'bell' })
  fireEvent.click(screen.getAllByRole('radio', { name: 'Any' })[0])
  expect(mockChange).toHaveBeenLastCalledWith({ family: undefined })
})

test('the order is turned round, hearing on select ended, and its level lowered', () => {
  shown()
  fireEvent.click(screen.getByRole('switch', { name: 'The other way round' }))
  expect(mockChange).toHaveBeenLastCalledWith({ isReversed: true })
  fireEvent.click(screen.getByRole('switch', { name: 'Hear on select' }))
  expect(mockChange).toHaveBeenLastCalledWith({ hearsOnSelect: false })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Level of listening' }), { key: 'ArrowLeft' })
  expect(mockChange).toHaveBeenLastCalledWith({ hearDb: -1 })
})
