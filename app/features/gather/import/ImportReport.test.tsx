import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'

import { sources } from '../../../documents'

import { ImportReport, soundsNow } from './ImportReport'

jest.mock('../../place', () => ({ PlaceSheet: () => null }))
jest.mock('../sheets/StereoQuestion', () => ({ StereoQuestion: () => null }))
jest.mock('../../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sources: { store: createStore(() => ({ entries: {} })) } }
})

test('what came in is put on pads as it is called now; what was deleted since is not', () => {
  const info = { name: 'plank.wav', sampleRateHz: 48000, frames: 100, channels: 1 }
  const [first, second] = [1, 2].map((seed) => createSource(testIds(seed), hashOf(String(seed)), info, 'plank'))
  const done = [first, second].map((source) => ({ type: 'imported' as const, name: 'plank.wav', source, notes: [] }))
  const renamed: Source = { ...first, name: 'gunwale soft' }
  expect(soundsNow(done as never, { [first.id]: { doc: renamed } }).map(({ name }) => name)).toEqual(['gunwale soft'])
})

test.each([[1, 'Put on a pad'], [20, 'Open in Cut']] as const)('after one file of %s s the next step is named: %s first', (seconds, main) => {
  const source = createSource(testIds(3), hashOf('3'), { name: 'plank.wav', sampleRateHz: 100, frames: 100 * seconds, channels: 1 }, 'plank')
  act(() => sources.store.setState({ entries: { [source.id]: { doc: source } } } as never))
  const [cut, open] = [jest.fn(), jest.fn()]
  const progress = { done: [{ type: 'known' as const, name: 'plank.wav', source }], total: 1, state: 'finished' as const }
  render(<ImportReport progress={progress} onCut={cut} onOpen={open} onCancel={jest.fn()} onClose={jest.fn()} />)
  expect(screen.getByText('0 imported, 1 was here already')).toBeTruthy()
  const names = screen.getAllByRole('button').map((button) => button.getAttribute('aria-label'))
  expect(names.indexOf(main)).toBe(1) // nearest to the edge, where the thumb is
  fireEvent.click(screen.getByRole('button', { name: 'Open in Cut' }))
  fireEvent.click(screen.getByRole('button', { name: 'Put on a pad' }))
  expect([cut.mock.calls, open.mock.calls]).toEqual([[[source]], [[source]]])
}) // prettier-ignore

test('what could not be read is said first, each reason once, however much was here already', () => {
  const source = createSource(testIds(4), hashOf('4'), { name: 'plank.wav', sampleRateHz: 100, frames: 100, channels: 1 }, 'plank')
  const known = Array.from({ length: 220 }, (_, i) => ({ type: 'known' as const, name: `plank ${i}.wav`, source }))
  const failed = { type: 'failed' as const, name: 'bilge.wav', reason: 'This is no sound.' }
  const progress = { done: [...known, failed, { ...failed, name: 'sump.wav' }], total: 222, state: 'finished' as const }
  render(<ImportReport progress={progress} onCut={jest.fn()} onOpen={jest.fn()} onCancel={jest.fn()} onClose={jest.fn()} />)
  expect(screen.getAllByText(/This is no sound\./)).toHaveLength(1)
  const before = screen.getByText(/bilge.wav, sump.wav/).compareDocumentPosition(screen.getByText(/plank 0.wav/))
  expect(before & Node.DOCUMENT_POSITION_FOLLOWING).toBeTruthy()
  expect(screen.getByText('And 21 more.')).toBeTruthy()
  const many = Array.from({ length: 203 }, (_, i) => ({ ...failed, name: `leak ${i}.wav` }))
  cleanup()
  render(
    <ImportReport
      progress={{ done: many, total: 203, state: 'finished' }}
      onCut={jest.fn()}
      onOpen={jest.fn()}
      onCancel={jest.fn()}
      onClose={jest.fn()}
    />,
  )
  expect(screen.getByText(/leak 199.wav and 3 more:/)).toBeTruthy()
})
