import { applyEdit, createKit, createPad } from '@heliaster/core/kit'
import type { Kit, KitEdit, PadId } from '@heliaster/core/kit'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../../documents/make-id'
import { aPad } from '../../../../testing/a-kit'
import { DrumPart } from './DrumPart'
import { ownSettings } from './own-settings'

let mockEdit: (edits: KitEdit[]) => void
const mockNotify = jest.fn((..._words: unknown[]) => undefined)
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../kit-view/use-kit', () => ({
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
}))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (...words: unknown[]) => mockNotify(...words) }))

let kit: Kit
const slap = { ...aPad(2), id: 'pad-slap' as PadId, own: { name: 'Slap', family: 'snare' as const, values: { gainDb: -6 } } }
const oar = { ...createPad(makeId, { name: 'Oar', maxStrikes: 3 }, 41), id: 'pad-oar' as PadId }

function Shown({ padId, pads = [slap, oar] }: { readonly padId: PadId; readonly pads?: Kit['pads'] }) {
  const [doc, setDoc] = useState<Kit>(() => ({ ...createKit(makeId, 'Low Tide'), pads }))
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <DrumPart kit={doc} pad={doc.pads.find(({ id }) => id === padId)!} />
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const spots = () => kit.ties.flatMap((tie) => (tie.kind === 'spots' ? tie.spots.map(({ name }) => name) : []))

beforeEach(() => jest.clearAllMocks())

test('spots are proposed by the family, made at a tap, renamed, taken off, and say from whom they borrow', () => {
  render(<Shown padId={slap.id} />)
  expect(screen.getAllByRole('radio').map(({ textContent }) => textContent)).toEqual(['Rim', 'Shell'])
  choose('Rim')
  expect(spots()).toEqual(['Head', 'Rim'])
  expect(mockNotify).toHaveBeenLastCalledWith('Rim is on the face. Touch it there to fill it.')
  const list = screen.getByRole('list', { name: 'Spots of this drum' })
  expect(within(list).getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([expect.stringContaining('This pad'), expect.stringContaining('Empty: sounds as Slap')]) // prettier-ignore
  const name = screen.getByRole('textbox', { name: 'Name of spot 2' })
  fireEvent.change(name, { target: { value: 'Hoop' } })
  fireEvent.blur(name)
  expect(spots()).toEqual(['Head', 'Hoop'])
  choose('Another')
  expect(spots()).toEqual(['Head', 'Hoop', 'Rim'])
  press('Take a pad that is there')
  choose('Oar')
  expect(spots()).toEqual(['Head', 'Hoop', 'Rim', 'Shell'])
  expect(kit.pads.find(({ id }) => id === oar.id)).toEqual(oar) // as it was
  for (let i = 0; i < 3; i++) fireEvent.click(screen.getAllByRole('button', { name: 'Take off' })[1]!)
  expect(spots()).toEqual([])
  expect(kit.pads).toHaveLength(4)
})

test('a pad leans on another, what is its own is listed and taken back one by one, and it stands alone again', () => {
  render(<Shown padId={oar.id} />)
  press('Lean on a pad')
  choose('Slap')
  expect(screen.getByText('It follows Slap in everything that is not its own.')).toBeTruthy()
  expect(kit.pads[1]!.leansOn).toBe(slap.id)
  const own = screen.getByRole('list', { name: 'Its own' })
  expect(own.textContent).toContain('Strikes at once3')
  press('Take back strikes at once')
  expect(kit.pads[1]!.own).toEqual({ name: 'Oar' })
  expect(screen.getByText('Nothing is its own but its name.')).toBeTruthy()
  press('Stand alone')
  expect(kit.pads[1]!.leansOn).toBeUndefined()
})

test('own settings are said in words with their units', () => {
  const own = { name: 'A', family: 'hat' as const, mute: true, values: { gainDb: -6, tuneCents: 50 }, choices: { filter1Kind: 'highPass' as const }, responses: [] } // prettier-ignore
  expect(ownSettings({ own }).map(({ words, value }) => `${words}: ${value}`)).toEqual([
    'Kind: hat',
    'Mute: on',
    'Responses: 0',
    'Level: -6 dB',
    'Tuning: 50 cents',
    'Filter 1 kind: highPass',
  ])
})

const hatch = (name: string) => ({ ...aPad(1), id: `pad-${name}` as PadId, own: { name, family: 'hat' as const } })
const hatches = ['Hatch bow open', 'Hatch bow closed', 'Hatch edge closed'].map(hatch)
const cells = () => screen.getAllByRole('cell').map((cell) => cell.firstElementChild!.getAttribute('aria-label'))

test('a drum is filled from names in one action, seen before; a hole gets a pad that borrows, and thresholds move for all spots', () => {
  render(<Shown padId={hatches[0]!.id} pads={[oar, ...hatches]} />)
  press('Fill from names')
  expect(cells()).toEqual([
    'Bow, Closed: Hatch bow closed',
    'Bow, Open: Hatch bow open',
    'Edge, Closed: Hatch edge closed',
    'Edge, Open: no pad',
  ])
  expect(screen.getByText(/^One is missing: edge open[.]/)).toBeTruthy()
  expect(kit.ties).toEqual([])
  press('Make this drum')
  expect(mockNotify).toHaveBeenLastCalledWith('Hatch is one drum now.')
  expect(cells()[3]).toBe('Edge, Open: Edge open, empty, sounds as Edge closed')
  const slider = screen.getByRole('slider', { name: 'Open from' })
  fireEvent.keyDown(slider, { key: 'ArrowRight' })
  expect(kit.ties.flatMap((tie) => (tie.kind === 'openings' ? [tie.steps.map(({ from }) => from)] : []))).toEqual([[0, 65], [0, 65]]) // prettier-ignore
  press('One more opening')
  expect(cells()).toHaveLength(6)
})

test('an opening is added to a pad that had none, and a cell without a pad takes one that is there or an empty one', () => {
  render(<Shown padId={slap.id} />)
  press('Add an opening')
  expect(kit.pads).toHaveLength(3)
  const [tie] = kit.ties.flatMap((one) => (one.kind === 'openings' ? [one] : []))
  expect(tie!.steps.map(({ pad }) => pad)).toEqual([slap.id, kit.pads[2]!.id])
  choose('Rim')
  press('Rim, Open: no pad')
  choose('Oar')
  expect(cells()[3]).toBe('Rim, Open: Oar')
})

test('a pad gets a second foot that draws from the same sounds; kept apart each has its own half', () => {
  render(<Shown padId={slap.id} />)
  press('Two feet, for two fingers')
  expect(spots()).toEqual(['Left', 'Right'])
  const turns = () => [slap.id, kit.pads[2]!.id].map((id) => kit.pads.find((pad) => pad.id === id)!.bands.map((band) => band.turns.length))
  const before = turns()[0]!
  fireEvent.click(screen.getByRole('switch', { name: 'Left and right kept apart' }))
  expect(turns().map((of) => of.length)).toEqual([before.length, before.length])
  fireEvent.click(screen.getByRole('switch', { name: 'Left and right kept apart' }))
  expect(turns()).toEqual([before, []])
})
