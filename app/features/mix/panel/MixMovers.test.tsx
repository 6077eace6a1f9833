import { applyEdit, createBus, createKit } from '@heliaster/core/kit'
import type { BusId, InsertId, Kit, KitEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { LedBy } from './LedBy'
import { MixMovers } from './MixMovers'

let mockEdit: (edits: KitEdit[]) => void
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))

const shed = {
  ...createBus('bus-shed' as BusId, 'Shed'),
  inserts: [{ id: 'insert-hall' as InsertId, kind: 'reverb' as const, values: {}, choices: {}, bypass: false }],
}
let kit: Kit
let ended: number
function Shown({ busId }: { readonly busId?: BusId }) {
  const [doc, set] = useState(kit)
  kit = doc
  mockEdit = (edits) => set((now) => (kit = edits.reduce(applyEdit, now)))
  const gesture = { set: (edits: KitEdit[]) => mockEdit(edits), end: () => void ended++ }
  return (
    <>
      <MixMovers kit={doc} gesture={gesture} {...(busId ? { busId } : {})} />
      <LedBy kit={doc} id={shed.inserts[0]!.id} />
    </>
  )
}
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))

beforeEach(() => {
  ended = 0
  kit = { ...createKit(testIds(3), 'Tide'), buses: [shed] }
})

test('a controller moves an effect of a bus: added, slid, left out and taken away; the whole kit shows nothing of it', () => {
  const { unmount } = render(<Shown busId={shed.id} />)
  press('Let something move it')
  choose('Controller')
  for (let i = 0; i < 7; i++) fireEvent.keyDown(screen.getByRole('slider', { name: 'Number of the controller' }), { key: 'ArrowRight' })
  expect(screen.queryByRole('radio', { name: 'Size' })).toBeNull() // its memory is laid out for it
  choose('Mixed in')
  press('Add')
  const [response] = kit.responses
  expect(response).toMatchObject({ from: { kind: 'controller', number: 11 }, to: [{ scope: 'insert', id: 'insert-hall', param: 'mix' }], amount: 0.25, bypass: false }) // prettier-ignore
  expect(screen.getByText('Of Reverb in Shed.')).toBeTruthy()
  const amount = screen.getByRole('slider', { name: 'Controller 11 moves mixed in' })
  fireEvent.keyDown(amount, { key: 'PageUp' })
  expect([kit.responses[0]!.amount, ended]).toEqual([0.35, 1])
  press('Controller 11 moves mixed in: leave it out')
  expect(kit.responses[0]!.bypass).toBe(true)
  unmount()
  const whole = render(<Shown />)
  expect(screen.queryByRole('slider', { name: /moves/ })).toBeNull()
  whole.unmount()
  render(<Shown busId={shed.id} />)
  press('Controller 11 moves mixed in: no more')
  expect(kit.responses).toEqual([])
})

test('a slow wave is made where there is none, sways the place of a bus, and is as fast as is set', () => {
  render(<Shown busId={shed.id} />)
  press('Let something move it')
  choose('A slow wave')
  choose('Place')
  press('Add')
  expect(kit.oscillators.map(({ runs }) => runs)).toEqual(['always'])
  expect(kit.responses[0]).toMatchObject({ from: { kind: 'oscillator', id: kit.oscillators[0]!.id }, to: [{ scope: 'bus', id: 'bus-shed', param: 'pan' }], amount: 0.5 }) // prettier-ignore
  fireEvent.keyDown(screen.getByRole('slider', { name: 'The slow wave, times a second' }), { key: 'Home' })
  expect(kit.oscillators[0]!.rate).toEqual({ unit: 'Hz', value: 0.05 })
})

test('softer strikes move a bus by the latest strike, and the line says so', () => {
  render(<Shown busId={shed.id} />)
  press('Let something move it')
  choose('Velocity')
  choose('Place')
  press('Add')
  expect(kit.responses[0]).toMatchObject({ from: { kind: 'velocity' }, to: [{ scope: 'bus', id: 'bus-shed', param: 'pan' }], amount: 0.5 })
  expect(screen.getByRole('slider', { name: 'Softer strikes move place' })).toBeTruthy()
  expect(screen.getByText('By the latest strike.')).toBeTruthy()
})

test('what is led by a tiller says so, and what stands still while it sounds is said to be', () => {
  render(<Shown busId={shed.id} />)
  act(() => mockEdit([{ type: 'setKit', fields: { tillers: [{ id: 't', name: 'Depth', value: 0, to: [{ id: 'x', address: { scope: 'insert', id: 'insert-hall', param: 'mix' }, from: 0, to: 1 }] }] } }])) // prettier-ignore
  expect(screen.getByText('Led by Depth: Mixed in.')).toBeTruthy()
  act(() => mockEdit([{ type: 'setKit', fields: { responses: [{ id: 'r', draw: 0, from: { kind: 'wheel' }, to: [{ scope: 'bus', id: 'bus-shed', param: 'pan' }, { scope: 'insert', id: 'insert-hall', param: 'size' }], amount: 0.2, bypass: false }] } }])) // prettier-ignore
  expect(screen.getByRole('slider', { name: 'The wheel moves place, size' })).toBeTruthy()
})
