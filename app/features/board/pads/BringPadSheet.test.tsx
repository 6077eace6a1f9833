import { createKit, createPad } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { aPad } from '../../../testing/a-kit'
import { BringPadSheet } from './BringPadSheet'

const mockEdit = jest.fn((..._edits: unknown[]) => undefined)
const mockHear = jest.fn((..._pad: unknown[]) => undefined)
const mockNotify = jest.fn((..._words: unknown[]) => undefined)
let mockOthers: Kit[] = []
jest.mock('../../../kit-view', () => ({ editKit: (...edits: unknown[]) => mockEdit(...edits) }))
jest.mock('../../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name }))
jest.mock('../../../kit-view/PadGlyph', () => ({ PadGlyph: () => null }))
jest.mock('../../../kit-view/use-other-kits', () => ({
  useOtherKits: () => mockOthers.map(({ id, name }) => ({ value: id, text: name })),
  useKitById: (id: string) => mockOthers.find((kit) => kit.id === id),
}))
jest.mock('../../../audio/engine/sound', () => ({ hearVersion: (...pad: unknown[]) => mockHear(...pad) }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (...words: unknown[]) => mockNotify(...words) }))

const here = createKit(makeId, 'Low Tide')
const yard = (name: string): Kit => ({
  ...createKit(makeId, name),
  pads: [{ ...aPad(2), own: { name: 'Oar' } }, createPad(makeId, { name: 'Keel' }, 36)],
})

beforeEach(() => jest.clearAllMocks())

test('a kit is chosen, its pads are heard first, and the one that is meant comes with a name and ids of its own', () => {
  mockOthers = [yard('Slipway'), yard('Harbour')]
  const onClose = jest.fn()
  render(<BringPadSheet kit={here} onClose={onClose} />)
  expect(screen.queryByRole('radio', { name: 'Oar' })).toBeNull()
  fireEvent.click(screen.getByRole('radio', { name: 'Slipway' }))
  fireEvent.click(screen.getByRole('radio', { name: 'Oar' }))
  expect(mockHear).toHaveBeenCalledTimes(1)
  fireEvent.click(screen.getByRole('button', { name: 'Bring Oar here' }))
  const [id, edits] = mockEdit.mock.calls[0] as [string, KitEdit[]]
  const added = edits.find((edit) => edit.type === 'addPad')
  expect(id).toBe(here.id)
  expect(added).toMatchObject({ pad: { own: { name: 'Oar' }, bands: [{ turns: [{}, {}] }] }, index: 0 })
  expect(mockOthers[0]!.pads.map((pad) => pad.id)).not.toContain(added?.type === 'addPad' && added.pad.id)
  expect(mockNotify).toHaveBeenCalledWith('Oar of Slipway is here now.')
  expect(onClose).toHaveBeenCalled()
})

test('where there is only one other kit its pads stand there at once; where there is none it says so', () => {
  mockOthers = [yard('Slipway')]
  const { unmount } = render(<BringPadSheet kit={here} onClose={() => undefined} />)
  expect(screen.getByRole('radio', { name: 'Keel' })).toBeTruthy()
  unmount()
  mockOthers = []
  render(<BringPadSheet kit={here} onClose={() => undefined} />)
  expect(screen.getByText('There is no other kit yet.')).toBeTruthy()
})

test('a kit that is full says so and changes nothing', () => {
  mockOthers = [yard('Slipway')]
  render(<BringPadSheet kit={{ ...here, pads: Array.from({ length: 128 }, () => createPad(makeId, {})) }} onClose={() => undefined} />)
  fireEvent.click(screen.getByRole('radio', { name: 'Keel' }))
  fireEvent.click(screen.getByRole('button', { name: 'Bring Keel here' }))
  expect(mockEdit).not.toHaveBeenCalled()
  expect(mockNotify).toHaveBeenCalledWith(expect.stringMatching(/^This kit holds 128 pads/))
})
