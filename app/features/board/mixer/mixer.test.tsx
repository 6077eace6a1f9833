import { createBus, createKit, createPad } from '@heliaster/core/kit'
import type { Bus, BusId, Kit, KitEdit, Send } from '@heliaster/core/kit'
import { applyEdit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { lossWords } from './LossLine'
import { MixerSheet } from './MixerSheet'
import { Sends } from './Sends'
import { busesAfter, widthOf, withWidth } from '../edits/bus-edits'

let doc: Kit
const mockEdit = jest.fn((_id: unknown, edits: KitEdit[]) => {
  doc = edits.reduce(applyEdit, doc)
})
jest.mock('../../../kit-view', () => ({ editKit: (id: unknown, edits: KitEdit[]) => mockEdit(id, edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: () => undefined, end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))
jest.mock('../../../audio/engine/sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    busLevel: () => 0,
    raysLevel: () => new Float64Array(32),
    soloed: createStore(() => ({ pads: [], rays: [], bands: [], turns: [] })),
    sound: createStore(() => ({ player: { losses: () => ({ events: 0, strikes: 2, lateBlocks: 1 }) } })),
    strikePad: () => undefined,
    toggleSolo: () => undefined,
  }
})

const makeId = testIds(4)
const bus = (id: string, more: Partial<Bus> = {}): Bus => ({ ...createBus(id as BusId, id), ...more })
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  const pad = createPad(makeId, { name: 'Hull thump', bus: 'Hulls' as BusId }, 36)
  doc = { ...createKit(makeId, 'Mix'), pads: [pad], buses: [bus('Hulls'), bus('Whole yard'), bus('Boathouse', { isReturn: true })] }
})

function Shown() {
  const [kit, setKit] = useState(doc)
  mockEdit.mockImplementation((_id, edits) => setKit((doc = edits.reduce(applyEdit, doc))))
  return <MixerSheet kit={kit} onClose={() => undefined} />
}

test('buses and returns are added, go into each other, send, and say what comes in', () => {
  render(<Shown />)
  press('Add a return')
  expect(doc.buses.map(({ name, isReturn }) => [name, isReturn])[3]).toEqual(['Return 2', true])
  press('Settings of Hulls')
  expect(screen.getByText('Here go Hull thump.')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Whole yard' }))
  press('Boathouse')
  expect(doc.buses[0]).toMatchObject({ out: 'Whole yard', sends: [{ busId: 'Boathouse', tap: 'post' }] })
  fireEvent.click(screen.getByRole('radio', { name: 'Before it' }))
  expect(doc.buses[0].sends[0].tap).toBe('pre')
  press('Settings of Boathouse')
  expect(screen.getByText('Sent here from Hulls.')).toBeTruthy()
  press('Send Hulls to Boathouse no more')
  press('Settings of Whole yard')
  press('Remove Whole yard')
  expect(doc.buses.map(({ name, out, sends }) => [name, out, sends.length])).toEqual([['Hulls', undefined, 0], ['Boathouse', undefined, 0], ['Return 2', undefined, 0]]) // prettier-ignore
})

test('what was lost is said, each kind counted, and nothing where nothing was', () => {
  render(<Shown />)
  expect(screen.getByRole('status').textContent).toBe('Lost since this page was opened: 2 strikes ended early to make room for others; one moment came late and may have crackled.') // prettier-ignore
  expect(lossWords({ events: 0, strikes: 0, lateBlocks: 0 })).toBeUndefined()
})

test('a bus is offered none that leads back to it', () => {
  const buses = [
    bus('a', { out: 'b' as BusId }),
    bus('b', { sends: [{ busId: 'c' as BusId, values: {}, tap: 'post' }] }),
    bus('c'),
    bus('d'),
  ]
  const after = (id: string) =>
    busesAfter(
      { ...doc, buses },
      buses.find((one) => one.id === id)!,
    ).map((one) => one.id)
  expect([after('a'), after('b'), after('c'), after('d')]).toEqual([['b', 'c', 'd'], ['c', 'd'], ['d'], ['a', 'b', 'c']])
})

test('a bus gets an effect for its width, and keeps the others', () => {
  const echo = { id: 'echo' as never, kind: 'echo' as const, values: {}, choices: {}, bypass: false }
  const wide = withWidth(bus('a', { inserts: [echo] }), 1.5)
  expect([wide.inserts.map(({ kind }) => kind), widthOf(wide)]).toEqual([['echo', 'width'], 1.5])
  const again = withWidth(wide, 0.5)
  expect([again.inserts.length, again.inserts[1].id, widthOf(again), widthOf(bus('b'))]).toEqual([2, wide.inserts[1].id, 0.5, 1])
})

test('a send begins quietly, and its level and place can be moved', () => {
  const change = jest.fn()
  const sends: Send[] = [{ busId: 'room' as BusId, values: { gainDb: -6 }, tap: 'post' }]
  render(<Sends from="Near" sends={sends} targets={[bus('room'), bus('hall')]} onSlide={change} onDone={() => undefined} onChange={change} />) // prettier-ignore
  press('hall')
  expect(change).toHaveBeenLastCalledWith([...sends, { busId: 'hall', values: { gainDb: -12 }, tap: 'post' }])
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Sent to room' }), { key: 'ArrowRight' })
  expect((change.mock.lastCall as [Send[]])[0][0].values.gainDb).toBeGreaterThan(-6)
})
