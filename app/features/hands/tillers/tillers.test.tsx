import { controlNumbers } from '@heliaster/core/engine'
import { applyEdit, createBus, createKit, createPad, createRay } from '@heliaster/core/kit'
import type { InsertId, Kit, KitEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { takeMessage } from '../../../audio/playing/hands/hands'
import { session } from '../../../kit-view/session'
import { TillerStrip } from '../../../shell/TillerStrip'
import { TillersPart } from './TillersPart'

let mockKit: Kit
let mockSet: (edits: KitEdit[]) => void
const mockMove = jest.fn()
jest.mock('../../../audio/engine/sound', () => ({
  sound: { getState: () => ({ player: { moveControl: (...moved: unknown[]) => mockMove(...moved) } }) },
  kitNow: () => mockKit,
  strikePad: jest.fn(),
  releasePad: jest.fn(),
  onSounded: jest.fn(),
}))
jest.mock('../../../documents', () => ({
  kits: {
    store: { getState: () => ({ entries: { [mockKit.id]: { doc: mockKit } } }) },
    edit: (_id: unknown, edits: KitEdit[]) => mockSet(edits),
  },
}))
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockSet(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
  useKit: () => mockKit,
}))

const makeId = testIds(31)
let edits: number

function Shown() {
  const [doc, set] = useState(mockKit)
  mockKit = doc
  mockSet = (made) => {
    edits++
    set((now) => (mockKit = made.reduce(applyEdit, now)))
  }
  return (
    <>
      <TillersPart kit={doc} />
      <TillerStrip />
    </>
  )
}

beforeEach(() => {
  jest.clearAllMocks()
  jest.useFakeTimers()
  edits = 0
  handSettings.setState({ tillers: {}, inputs: {} })
  session.setState({ showsTillers: true })
  mockKit = { ...createKit(makeId, 'Tillers'), pads: ['Hull', 'Tarp'].map((name) => createPad(makeId, { name })) }
  render(<Shown />)
})
afterEach(() => jest.useRealTimers())

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const sliders = () => screen.getAllByRole('slider', { name: 'Tiller 1' })
const wheel = (value: number, number = 22) => act(() => takeMessage('Dock pads', Uint8Array.of(0xb0, number, value)))

test('a tiller is added, moves a parameter of every pad from where it is, and is typed and taken away', () => {
  press('Add a tiller')
  expect(screen.getByText('It moves nothing yet.')).toBeTruthy()
  press('Let it move something')
  choose('Cutoff')
  press('Add')
  expect(mockKit.tillers[0]!.to.map(({ address, from, to }) => [address.id, address.param, from, to])).toEqual(mockKit.pads.map(({ id }) => [id, 'filter1CutoffHz', 2000, 400])) // prettier-ignore
  expect(screen.getAllByText('Not heard: the filter is off.')).toHaveLength(2)
  act(() => mockSet([{ type: 'setPad', padId: mockKit.pads[0]!.id, own: { choices: { filter1Kind: 'lowPass' } } }]))
  expect(screen.getAllByText('Not heard: the filter is off.')).toHaveLength(1)
  const field = screen.getByLabelText('Cutoff of Tarp, to')
  fireEvent.change(field, { target: { value: '99999' } })
  fireEvent.blur(field)
  expect(mockKit.tillers[0]!.to[1]!.to).toBe(24000)
  press('Cutoff of Hull: no more')
  expect(mockKit.tillers[0]!.to).toHaveLength(1)
  press('Remove the tiller')
  expect(mockKit.tillers).toEqual([])
  expect(screen.queryByRole('region', { name: 'Tillers' })).toBeNull()
})

test('it moves one ray of a pad, a bus and the mix, each from where it stands', () => {
  const [hull, tarp] = mockKit.pads
  const deck = { ...createRay(makeId, 'Deck'), values: { gainDb: -3 } }
  act(() =>
    mockSet([
      { type: 'setPadFilling', padId: hull!.id, rays: [...hull!.rays, deck] },
      { type: 'putBus', bus: createBus(makeId('bus'), 'Shed') },
    ]),
  )
  press('Add a tiller')
  press('Let it move something')
  choose('Hull')
  choose('Deck')
  choose('Level')
  press('Add')
  for (const name of ['Shed', 'The mix']) {
    press('Let it move something')
    choose(name)
    expect(screen.getByRole<HTMLElement>('radio', { name: 'Level' }).getAttribute('aria-checked')).toBe('true')
    press('Add')
  }
  const [shed] = mockKit.buses
  expect(mockKit.tillers[0]!.to.map(({ address, from }) => [address, from])).toEqual([
    [{ scope: 'ray', id: deck.id, param: 'gainDb' }, -3],
    [{ scope: 'bus', id: shed!.id, param: 'gainDb' }, 0],
    [{ scope: 'kit', param: 'gainDb' }, 0],
  ])
  expect(screen.getAllByRole('listitem').map((item) => item.textContent)).toEqual(expect.arrayContaining([expect.stringMatching(/^Level of Deck, Hull/), expect.stringMatching(/^Level of Shed/), expect.stringMatching(/^Level of the mix/)])) // prettier-ignore
  expect(screen.queryByText(/^Not heard/)).toBeNull()
  act(() => mockSet([{ type: 'removePad', padId: tarp!.id }]))
})

test('it leads what is put into a bus, and says where that is not heard', () => {
  const insert = (id: string, kind: 'equaliser' | 'echo', more: object = {}) => ({ id: id as InsertId, kind, values: {}, choices: {}, bypass: false, ...more }) // prettier-ignore
  const shed = { ...createBus(makeId('bus'), 'Shed'), inserts: [insert('insert-echo', 'echo'), insert('insert-tone', 'equaliser', { values: { band1Hz: 400 }, choices: { band1Kind: 'lowPass' } })] } // prettier-ignore
  act(() => mockSet([{ type: 'putBus', bus: shed }]))
  press('Add a tiller')
  press('Let it move something')
  choose('Shed')
  for (const name of ['Place', 'Width', 'Low cut', 'Again', 'Mixed in', 'Band 1 frequency']) expect(screen.getByRole('radio', { name })).toBeTruthy() // prettier-ignore
  expect(screen.queryByRole('radio', { name: 'Time' })).toBeNull() // its memory is laid out for it
  expect(screen.queryByRole('radio', { name: 'Band 2 frequency' })).toBeNull() // nothing of it is heard
  choose('Band 1 frequency')
  press('Add')
  expect(mockKit.tillers[0]!.to).toMatchObject([{ address: { scope: 'insert', id: 'insert-tone', param: 'band1Hz' }, from: 400, to: 3200 }])
  const field = screen.getByLabelText('Band 1 frequency of Equaliser in Shed, to')
  fireEvent.change(field, { target: { value: '99999' } })
  fireEvent.blur(field)
  expect(mockKit.tillers[0]!.to[0]!.to).toBe(24_000)
  expect(screen.queryByText(/^Not heard/)).toBeNull()
  act(() => mockSet([{ type: 'putBus', bus: { ...shed, inserts: shed.inserts.map((one) => ({ ...one, bypass: true })) } }]))
  expect(screen.getByText('Not heard: the effect is off.')).toBeTruthy()
})

test('it lies beside the pads too; a move is heard at once and is one step where it is left', () => {
  press('Add a tiller')
  expect(sliders()).toHaveLength(2)
  const before = edits
  fireEvent.keyDown(sliders()[1]!, { key: 'End' })
  expect(mockMove).toHaveBeenCalledWith(controlNumbers.tiller, 1)
  expect([mockKit.tillers[0]!.value, edits - before]).toEqual([1, 1])
  fireEvent.click(screen.getByRole('switch', { name: 'Tillers beside the pads' }))
  expect(sliders()).toHaveLength(1)
})

test('a controller is learnt, leads it at once, and is kept once it rests', () => {
  press('Add a tiller')
  press('Learn its controller')
  wheel(3)
  expect(handSettings.getState().tillers).toEqual({ 0: 22 })
  const before = edits
  wheel(64)
  wheel(127)
  expect(mockMove).toHaveBeenCalledWith(controlNumbers.tiller, 64 / 127)
  expect(sliders()[0]!.getAttribute('aria-valuenow')).toBe('100')
  expect(edits).toBe(before)
  act(() => void jest.advanceTimersByTime(700))
  expect([mockKit.tillers[0]!.value, edits - before]).toEqual([1, 1])
  press('Let go')
  wheel(0)
  act(() => void jest.advanceTimersByTime(700))
  expect(mockKit.tillers[0]!.value).toBe(1)
})
