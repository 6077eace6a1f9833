import { applyEdit, clipsOfPad, createRay } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { asBands, asTurns } from '@heliaster/core/place'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad } from '../../../../testing/a-kit'
import { bandsByLoudness } from './loudness-edges'
import { PadCells } from './PadCells'

let mockEdit: (edits: KitEdit[]) => void
const mockNotify = jest.fn()
const mockGo = jest.fn()
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('expo-router', () => ({ router: { navigate: (where: string) => mockGo(where) as unknown } }))
jest.mock('./loudness-edges', () => ({ bandsByLoudness: jest.fn() }))
jest.mock('./CellGrid', () => ({ CellGrid: () => 'cells' }))
jest.mock('./CellFindings', () => ({ CellFindings: () => null }))
jest.mock('./DropOnCells', () => ({ DropOnCells: ({ children }: { children: unknown }) => children }))
jest.mock('../ties/Followers', () => ({ Followers: () => null }))
jest.mock('./FillSheet', () => ({
  FillSheet: ({ onPlace, onClose }: { onPlace: (files: object[]) => void; onClose: () => void }) => (
    <>
      <button onClick={() => onPlace([{}, {}])}>Place two</button>
      <button onClick={onClose}>Close</button>
    </>
  ),
}))
jest.mock('../../../place', () => ({ PlaceSheet: ({ files }: { files: object[] }) => `${files.length} to place` }))
jest.mock('../../../record-here', () => ({ RecordHereSheet: ({ target }: { target: { kind: string } }) => `onto the ${target.kind}` }))

let kit: Kit
function Shown({ of }: { readonly of: Kit }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <PadCells kit={doc} pad={doc.pads[0]!} />
}
const shape = () => kit.pads[0]!.bands.map(({ fromVelocity, turns }) => `${fromVelocity}:${turns.length}`).join(' ')
const button = (name: string) => screen.queryByRole('button', { name })
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const there = (...names: string[]) => names.map((name) => button(name) !== null)
const measure = bandsByLoudness as jest.MockedFunction<typeof bandsByLoudness>

beforeEach(() => jest.clearAllMocks())

test('an empty pad offers clips and a recording, and nothing that needs clips', () => {
  render(<Shown of={aKitOf(aPad(0))} />)
  expect(there('Choose clips', 'Record here', 'Shape')).toEqual([true, true, true])
  expect(there('Replace the clips', 'Spread as bands', 'Spread as turns', 'Even edges', 'Edges by loudness', 'Add a band')).toEqual(Array(6).fill(false))
}) // prettier-ignore

test('turns are spread as bands and bands as turns, with no clip lost on the way', () => {
  render(<Shown of={aKitOf(aPad(4))} />)
  expect(there('Spread as bands', 'Spread as turns', 'Even edges')).toEqual([true, false, false])
  press('Spread as bands')
  expect(shape()).toBe('1:1 33:1 65:1 96:1')
  expect(there('Spread as bands', 'Spread as turns', 'Even edges')).toEqual([false, true, true])
  press('Spread as turns')
  expect(shape()).toBe('1:4')
})

test('edges that were moved are evened, and what would be left out is asked about first', () => {
  const moved = aPad(3, asBands)
  const { unmount } = render(<Shown of={aKitOf({ ...moved, bands: moved.bands.map((band, i) => ({ ...band, fromVelocity: 1 + 5 * i })) })} />)
  expect(shape()).toBe('1:1 6:1 11:1')
  press('Even edges')
  expect(shape()).toBe('1:1 43:1 86:1')
  unmount()
  render(<Shown of={aKitOf(aPad(128))} />)
  press('Spread as bands')
  expect(clipsOfPad(kit.pads[0]!)).toHaveLength(128)
  expect(screen.getByText('A pad holds 127 bands: the last 1 of 128 would be left out.')).toBeTruthy()
  press('Spread, and leave those out')
  expect(kit.pads[0]!.bands).toHaveLength(127)
}) // prettier-ignore

test('bands lie where their loudness says; what says nothing, or cannot be measured, leaves them and is told', async () => {
  render(<Shown of={aKitOf(aPad(2, asBands))} />)
  const before = shape()
  measure.mockResolvedValueOnce(undefined)
  await act(async () => press('Edges by loudness'))
  expect([shape(), mockNotify.mock.lastCall![0]]).toEqual([before, expect.stringContaining('do not rise in loudness')])
  measure.mockRejectedValueOnce(new Error('oar.wav is gone.'))
  await act(async () => press('Edges by loudness'))
  expect([shape(), mockNotify.mock.lastCall![0]]).toEqual([before, 'oar.wav is gone.'])
  measure.mockImplementationOnce(async ({ bands }) => bands.map((band, i) => ({ ...band, fromVelocity: i === 0 ? 1 : 90 })))
  await act(async () => press('Edges by loudness'))
  expect(shape()).toBe('1:1 90:1')
  expect(kit.pads[0]!.spread).toBe('loudness')
})

test('one band more is spread with the others; where no velocity is free that is said', async () => {
  const { unmount } = render(<Shown of={aKitOf(aPad(2, asBands))} />)
  await act(async () => press('Add a band'))
  expect(shape()).toBe('1:1 43:1 86:0')
  expect(mockNotify).not.toHaveBeenCalled()
  unmount()
  const pad = aPad(2, asBands)
  render(<Shown of={aKitOf({ ...pad, bands: [pad.bands[0]!, { ...pad.bands[1]!, fromVelocity: 127 }] })} />)
  await act(async () => press('Add a band'))
  expect(shape()).toBe('1:1 127:1')
  expect(mockNotify.mock.lastCall![0]).toContain('no velocity to give away')
})

test('several files that were chosen are placed after the choice is closed', () => {
  render(<Shown of={aKitOf(aPad(1))} />)
  press('Replace the clips')
  press('Place two')
  expect(screen.getByText(/2 to place/)).toBeTruthy()
  expect(button('Place two')).toBeNull()
})

test('what is chosen can be left, and Shape is of this kit', () => {
  render(<Shown of={aKitOf(aPad(1))} />)
  press('Replace the clips')
  press('Close')
  expect(button('Close')).toBeNull()
  press('Shape')
  expect(mockGo).toHaveBeenCalledWith(`/kit/${kit.id}/shape`)
})

test('of several rays the cells of one are shown; what is recorded goes to a ray with cells of its own, else to the pad', () => {
  const pad = aPad(1)
  const second = createRay(makeId, 'Rope')
  const own = { ...second, source: { kind: 'clips' as const, bands: asTurns(makeId, second.id, clipsOfPad(pad)) } }
  render(<Shown of={aKitOf({ ...pad, rays: [pad.rays[0]!, own] })} />)
  press('Record here')
  expect(screen.getByText(/onto the pad/)).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Rope' }))
  press('Record Rope')
  expect(screen.getByText(/onto the ray/)).toBeTruthy()
})

test('a pad of which no ray plays clips says so', () => {
  const pad: Pad = aPad(1)
  const made = { ...pad.rays[0]!, source: { kind: 'noise' } } as never
  render(<Shown of={aKitOf({ ...pad, rays: [made] })} />)
  expect(screen.getByText('This pad has no ray with clips.')).toBeTruthy()
})
