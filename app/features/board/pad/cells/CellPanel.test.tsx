import { applyEdit, createRay } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, PadSettings, TurnId } from '@heliaster/core/kit'
import { asBands, cellsOf } from '@heliaster/core/place'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { soloed } from '../../../../audio/engine/solo'
import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad } from '../../../../testing/a-kit'
import { CellPanel } from './CellPanel'

let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn()
const mockNotify = jest.fn()
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../audio/engine/sound', () => ({ hearTurn: (...given: unknown[]) => mockHear(...given) as unknown }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('./ClipOfCell', () => ({ ClipOfCell: ({ isAlone, chosen }: { isAlone: boolean; chosen: unknown[] }) => `${chosen.length} set, ${isAlone ? 'this one' : 'with others'}` })) // prettier-ignore

let kit: Kit
const did = { swap: jest.fn(), move: jest.fn(), record: jest.fn(), file: jest.fn() }
interface Given {
  readonly of: Pad
  readonly band?: number
  readonly turn?: number
  readonly pick?: PadSettings['pick']
  readonly marked?: readonly TurnId[]
}
function Shown({ of, band = 0, turn = 0, pick = 'cycle', marked = [] }: Given) {
  const [doc, setDoc] = useState(() => aKitOf(of))
  const [turnId] = useState(of.bands[band]!.turns[turn]!.id)
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  const pad = doc.pads[0]!
  const gesture = { set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }
  return <CellPanel {...{ kit: doc, pad, cells: cellsOf(pad)!, turnId, marked, pick, gesture }} onSwap={did.swap} onMove={did.move} onRecord={did.record} onFile={did.file} /> // prettier-ignore
}
const turnsOf = () => kit.pads[0]!.bands.map(({ turns }) => turns.length)
const button = (name: string) => screen.queryByRole('button', { name })
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const isAsleep = (name: string) => button(name)!.getAttribute('aria-disabled') === 'true'
const idOf = (of: Pad, band: number, turn: number) => of.bands[band]!.turns[turn]!.id

beforeEach(() => {
  jest.clearAllMocks()
  act(() => soloed.setState({ pads: [], rays: [], buses: [], bands: [], turns: [] }))
})

test('a cell says where it is, and goes where there is a place: turns are swapped, bands too where one lies there', () => {
  const of = aPad(3)
  const one = render(<Shown of={of} turn={1} />)
  expect(screen.getByText('Band 1, turn 2')).toBeTruthy()
  press('Swap with the turn before')
  press('Swap with the next turn')
  expect(did.swap.mock.calls).toEqual([[idOf(of, 0, 1), idOf(of, 0, 0)], [idOf(of, 0, 1), idOf(of, 0, 2)]])
  expect([isAsleep('Move to the louder band'), isAsleep('Move to the softer band')]).toEqual([true, true])
  one.unmount()
  const bands = aPad(3, asBands)
  const two = { ...bands, bands: bands.bands.map((band, i) => (i === 2 ? { ...band, turns: [] } : band)) }
  render(<Shown of={two} band={1} />)
  press('Swap with the softer band')
  expect(did.swap).toHaveBeenLastCalledWith(idOf(two, 1, 0), idOf(two, 0, 0))
  press('Move to the louder band')
  expect(did.move).toHaveBeenLastCalledWith(idOf(two, 1, 0), two.bands[2]!.id)
  expect([isAsleep('Swap with the turn before'), isAsleep('Swap with the next turn')]).toEqual([true, true])
}) // prettier-ignore

test('one turn of several is kept alone and let go again; a cell that is all there is cannot be', () => {
  const of = aPad(2)
  const several = render(<Shown of={of} />)
  press('Keep this turn alone')
  expect(soloed.getState().turns).toEqual([idOf(of, 0, 0)])
  press('All turns again')
  expect(soloed.getState().turns).toEqual([])
  several.unmount()
  const bands = render(<Shown of={aPad(2, asBands)} />)
  expect(button('Keep this turn alone')).not.toBeNull()
  bands.unmount()
  render(<Shown of={aPad(1)} />)
  expect(button('Keep this turn alone')).toBeNull()
})

test('a turn is removed, or all that are marked with it', () => {
  const of = aPad(4)
  const one = render(<Shown of={of} />)
  press('Remove this turn')
  expect(turnsOf()).toEqual([3])
  one.unmount()
  render(<Shown of={of} marked={[idOf(of, 0, 0), idOf(of, 0, 2)]} />)
  press('Remove these 2 turns')
  expect(kit.pads[0]!.bands[0]!.turns.map(({ id }) => id)).toEqual([idOf(of, 0, 1), idOf(of, 0, 3)])
})

test('what is set is for this cell, or for all that a rule picks with it', () => {
  render(<Shown of={aPad(3)} />)
  expect(screen.getByText(/^1 set, this one/)).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'All of band 1' }))
  expect(screen.getByText(/^3 set, with others/)).toBeTruthy()
})

test('a cell without a clip is silent on purpose or not, and a file or a recording comes into it', () => {
  const pad = aPad(1)
  const empty = { ...pad, bands: pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: {} })) })) }
  render(<Shown of={empty} />)
  const meant = () => Object.values(kit.pads[0]!.bands[0]!.turns[0]!.clips)
  fireEvent.click(screen.getByRole('switch', { name: 'Silent on purpose' }))
  expect(meant()).toEqual(['intendedSilence'])
  fireEvent.click(screen.getByRole('switch', { name: 'Silent on purpose' }))
  expect(meant()).toEqual([])
  press('Choose a file')
  press('Record this cell')
  const turnId = idOf(empty, 0, 0)
  expect([did.file.mock.lastCall, did.record.mock.lastCall]).toEqual([[turnId], [{ kind: 'turn', turnId, rayId: empty.rays[0]!.id }]])
})

test('how often a turn comes is set where turns do not simply follow each other', () => {
  const cycling = render(<Shown of={aPad(2)} />)
  expect(screen.queryByRole('slider')).toBeNull()
  cycling.unmount()
  const alone = render(<Shown of={aPad(1)} pick="random" />)
  expect(screen.queryByRole('slider')).toBeNull()
  alone.unmount()
  render(<Shown of={aPad(2)} pick="random" turn={1} />)
  fireEvent.keyDown(screen.getByRole('slider'), { key: 'Home' })
  expect(kit.pads[0]!.bands[0]!.turns.map(({ weight }) => weight)).toEqual([1, 0])
})

test('all rays of a cell are heard together where there are several', () => {
  const pad = aPad(2)
  const one = render(<Shown of={pad} />)
  expect(button('Hear all rays')).toBeNull()
  one.unmount()
  const second = { ...createRay(makeId, 'Far'), source: pad.rays[0]!.source }
  render(<Shown of={{ ...pad, rays: [pad.rays[0]!, second] }} turn={1} />)
  press('Hear all rays')
  expect((mockHear.mock.lastCall as [Pad, { id: string }])[1].id).toBe(idOf(pad, 0, 1))
})
