import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen } from '@testing-library/react'
import type * as Zustand from 'zustand'
import { createStore } from 'zustand/vanilla'

import { TagSheet } from './TagSheet'

const info = { name: 'a.wav', sampleRateHz: 48000, frames: 100, channels: 1 }
const mockLibrary = createStore(() => ({ sounds: [] as Source[] }))
jest.mock('../list/use-library', () => {
  const { useStore } = jest.requireActual<typeof Zustand>('zustand')
  return { useSounds: () => useStore(mockLibrary, ({ sounds }) => sounds) }
})
jest.mock('../list/sound-actions', () => ({
  setSounds: (list: Source[], fields: (source: Source) => Partial<Source>) =>
    mockLibrary.setState(({ sounds }) => ({
      sounds: sounds.map((source) => (list.includes(source) ? { ...source, ...fields(source) } : source)),
    })),
}))

beforeEach(() => {
  const sounds = [['wood', 'wet'], ['wood'], ['iron']].map((tags, i) =>
    createSource(testIds(i + 1), hashOf(String(i + 1)), info, `sound ${i + 1}`, { tags }),
  )
  mockLibrary.setState({ sounds })
})

/** The sheet for the first two sounds of three. */
const shown = () => render(<TagSheet sounds={mockLibrary.getState().sounds.slice(0, 2)} onClose={() => undefined} />)
const tag = (name: string) => screen.getByRole('checkbox', { name })
const tags = () => mockLibrary.getState().sounds.map((source) => [...source.tags].sort().join(' '))
const press = (element: HTMLElement) => act(() => void fireEvent.click(element))

test('a tag that all have is full, one that some have is half and counted, one of others is empty', () => {
  shown()
  expect(tag('wood').getAttribute('aria-checked')).toBe('true')
  expect(tag('wet').getAttribute('aria-checked')).toBe('mixed')
  expect(tag('wet').textContent).toBe('wet (1 of 2)')
  expect(tag('iron').getAttribute('aria-checked')).toBe('false')
})

test('a tap gives a tag to all of them and takes it off again, and leaves the others alone', () => {
  shown()
  press(tag('wet'))
  expect(tags()).toEqual(['wet wood', 'wet wood', 'iron'])
  press(tag('wet'))
  expect(tags()).toEqual(['wood', 'wood', 'iron'])
})

test('a new tag is typed, by Enter or by its button; blanks are none, and none comes twice', () => {
  shown()
  const field = screen.getByRole('textbox', { name: 'New tag' })
  expect(screen.getByRole('button', { name: 'Add' }).getAttribute('aria-disabled')).toBe('true')
  fireEvent.change(field, { target: { value: ' boathouse ' } })
  act(() => void fireEvent.keyDown(field, { key: 'Enter' }))
  expect(tags()).toEqual(['boathouse wet wood', 'boathouse wood', 'iron'])
  fireEvent.change(field, { target: { value: 'wood' } })
  press(screen.getByRole('button', { name: 'Add' }))
  expect(tags()).toEqual(['boathouse wet wood', 'boathouse wood', 'iron'])
})
