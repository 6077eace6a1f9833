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
jest.mock('../../../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (...words: unknown[]) => mockNotify(...words) }))

let kit: Kit
const slap = { ...aPad(2), id: 'pad-slap' as PadId, own: { name: 'Slap', family: 'snare' as const, values: { gainDb: -6 } } }
const oar = { ...createPad(makeId, { name: 'Oar', maxStrikes: 3 }, 41), id: 'pad-oar' as PadId }

function Shown({ padId }: { readonly padId: PadId }) {
  const [doc, setDoc] = useState<Kit>(() => ({ ...createKit(makeId, 'Low Tide'), pads: [slap, oar] }))
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
