import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../../documents/make-id'
import { aPad, audio, info } from '../../../../testing/a-kit'
import { Followers } from './Followers'

const mockState: { entries: Record<string, { doc: Source }> } = { entries: {} }
const mockPlaced = jest.fn()
jest.mock('../../../../documents', () => ({
  sources: { store: { getState: () => mockState, getInitialState: () => mockState, subscribe: () => () => undefined } },
}))
jest.mock('../../../place', () => ({ PlaceSheet: (props: { files: Source[]; shown: object }) => (mockPlaced(props), null) }))

const pad = aPad(2)
const done = jest.fn()
const files = (...names: string[]) => names.map((name) => createSource(makeId, audio, info, name))
const show = (all: Source[], turn = 1) => {
  mockState.entries = Object.fromEntries(all.map((doc) => [doc.id, { doc }]))
  return render(<Followers pad={pad} file={all[0]} turnId={pad.bands[0].turns[turn].id} onDone={done} />)
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
beforeEach(() => jest.clearAllMocks())

test('files that are named like one that was put into a cell can follow it; those that were passed stay', () => {
  const all = files('oar soft 1', 'oar soft 2', 'oar hard 1', 'keel drop', 'oar hard 2')
  show([...all.slice(0, 4), { ...all[4], verdict: 'pass' }])
  expect(screen.getByRole('status').textContent).toContain('“oar soft 1” is in band 1, turn 2. 2 more are named like it; they can follow.')
  press('Let them follow')
  const { files: placed, shown } = mockPlaced.mock.lastCall![0] as { files: Source[]; shown: object }
  expect(placed.map(({ name }) => name)).toEqual(['oar soft 1', 'oar soft 2', 'oar hard 1'])
  expect(shown).toMatchObject({ file: all[0], band: 0, turn: 1 })
})

test('one alone has nobody to follow it, and nothing is asked; what is asked can be refused', () => {
  const { container, unmount } = show(files('oar soft 1', 'keel drop'))
  expect(container.textContent).toBe('')
  unmount()
  show(files('oar 1', 'oar 2'))
  press('Only this one')
  expect([done.mock.calls.length, mockPlaced.mock.calls.length]).toEqual([1, 0])
})
