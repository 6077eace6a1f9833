import { createSource } from '@heliaster/core/kit'
import type { AudioHash, Source } from '@heliaster/core/kit'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'

import { makeId } from '../../documents/make-id'
import { aKitOf, aPad, info } from '../../testing/a-kit'
import { DropOnPads } from './DropOnPads'

let mockDone: object[]
const mockNotify = jest.fn()
jest.mock('../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('../../audio/import/import', () => ({
  importFiles: (_files: unknown, progress: (state: object) => void) => {
    progress({ done: mockDone.slice(0, 1), state: 'running' })
    progress({ done: mockDone, state: 'finished' })
  },
  soundsOf: (done: { sound?: object }[]) => done.flatMap(({ sound }) => (sound ? [sound] : [])),
}))
jest.mock('./PlaceSheetLater', () => ({
  PlaceSheet: ({ files, onto, onClose }: { files: Source[]; onto?: { own: { name: string } }; onClose: () => void }) => (
    <button onClick={onClose}>{`${files.map(({ name }) => name).join(' ')} on ${onto?.own.name ?? 'none'}`}</button>
  ),
}))

const kit = aKitOf({ ...aPad(1), own: { name: 'Oar' } })
const sound = (name: string) => ({ type: 'sound', name: `${name}.wav`, sound: createSource(makeId, 'c'.repeat(64) as AudioHash, info, name) }) // prettier-ignore
const broken = (name: string) => ({ type: 'failed', name: `${name}.wav`, reason: 'It is cut off.' })
function dropOn(where: string, ...done: { name: string }[]) {
  mockDone = done
  const target = screen.getByTestId(where)
  document.elementFromPoint = () => target
  const files = done.map(({ name }) => new File(['x'], name))
  const items = files.map((file) => ({ kind: 'file', type: file.type, getAsFile: () => file }))
  fireEvent.drop(target, { dataTransfer: { files, items, types: ['Files'] } })
}
const asked = (name: string) => waitFor(() => expect(screen.getByRole('button', { name })).toBeTruthy())

beforeEach(() => {
  jest.clearAllMocks()
  render(
    <DropOnPads kit={kit}>
      <span data-pad={kit.pads[0]!.id}>
        <i data-testid="pad" />
      </span>
      <i data-testid="beside" />
    </DropOnPads>,
  )
})

test('files on a pad are asked about with that pad, beside the pads without one, and nothing is placed unasked', async () => {
  dropOn('pad', sound('rope'))
  await asked('rope on Oar')
  fireEvent.click(screen.getByRole('button', { name: 'rope on Oar' }))
  expect(screen.queryByRole('button')).toBeNull()
  dropOn('beside', sound('rope'), sound('plank'))
  await asked('rope plank on none')
  expect(mockNotify).not.toHaveBeenCalled()
})

test('many files are told while they are read, and each that could not be is told by name', async () => {
  dropOn('pad', sound('rope'), broken('plank'), broken('cleat'), sound('winch'))
  await asked('rope winch on Oar')
  expect(mockNotify.mock.calls.map(([words]) => words as string)).toEqual([
    'Reading 4 files.',
    'plank.wav: It is cut off. cleat.wav: It is cut off.',
  ])
})

test('where none could be read nothing is asked', async () => {
  dropOn('pad', broken('plank'))
  await waitFor(() => expect(mockNotify).toHaveBeenCalledTimes(1))
  expect(screen.queryByRole('button')).toBeNull()
})
