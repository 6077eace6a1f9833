import { applyPerformanceEdit, createKit, createPad } from '@heliaster/core/kit'
import type { Kit, PadId, Performance, PerformanceEdit } from '@heliaster/core/kit'
import type * as vanilla from 'zustand/vanilla'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../documents/make-id'
import { aPerformance } from '../../../testing/a-performance'
import { layOut } from '../../../testing/lay-out'
import { PerformanceBench } from './PerformanceBench'

let mockEdit: (edits: PerformanceEdit[]) => void
const mockHear = jest.fn((..._heard: unknown[]) => undefined)
const mockResound = jest.fn((_wanted: unknown) => Promise.resolve({ audio: { sampleRateHz: 48000, channels: [[0], [0]] }, fell: [] }))
const mockWav = jest.fn((..._asked: unknown[]) => Promise.resolve(new ArrayBuffer(4)))
const mockUnanswered = jest.fn((..._asked: unknown[]) => Promise.resolve<string[]>([]))
const mockSave = jest.fn((..._file: unknown[]) => undefined)
const mockNotify = jest.fn((..._words: unknown[]) => undefined)
jest.mock('../../../documents', () => ({
  performances: {
    store: jest.requireActual<typeof vanilla>('zustand/vanilla').createStore(() => ({ entries: {} })),
    edit: (_id: string, edits: PerformanceEdit[]) => mockEdit(edits),
    gesture: () => ({ set: (edits: PerformanceEdit[]) => mockEdit(edits), end: () => undefined }),
    hideMany: () => Promise.resolve(() => undefined),
  },
  kits: { store: jest.requireActual<typeof vanilla>('zustand/vanilla').createStore(() => ({ entries: {}, elsewhere: {} })) },
  device: { fetchDocument: () => undefined },
}))
const mockKitEdit = jest.fn((..._edits: unknown[]) => undefined)
jest.mock('../../../kit-view', () => ({ editKit: (...edits: unknown[]) => mockKitEdit(...edits) }))
jest.mock('../../../kit-view/midi-work', () => ({ midiWork: () => Promise.resolve(jest.requireActual('@heliaster/core/groove/midi')) }))
jest.mock('../../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name }))
jest.mock('../../../audio/performances/hear', () => ({
  hearing: jest.requireActual<typeof vanilla>('zustand/vanilla').createStore(() => ({ seconds: 0, lit: [] })),
  hearResounded: (...heard: unknown[]) => mockHear(...heard),
  stopHearing: () => undefined,
}))
jest.mock('../../../audio/performances/resound', () => ({
  resound: (wanted: unknown) => mockResound(wanted),
  resoundedWav: (...asked: unknown[]) => mockWav('wav', ...asked),
  resoundedPads: (...asked: unknown[]) => mockWav('pads', ...asked),
  drawnStrikes: (...asked: unknown[]) => mockWav('draws', ...asked),
  unanswered: (...asked: unknown[]) => mockUnanswered(...asked),
}))
jest.mock('../../../ui/device/choose-files', () => ({ saveFile: (...file: unknown[]) => mockSave(...file) }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (...words: unknown[]) => mockNotify(...words) }))

let shown: Performance
function kitOf(): Kit {
  const pad = (id: string, name: string, note?: number) => ({ ...createPad(makeId, { name }, note), id: id as PadId })
  return { ...createKit(makeId, 'Low Tide'), tempoBpm: 96, pads: [pad('pad-keel', 'Keel drop', 36), pad('pad-oar', 'Oar, low', 37), pad('pad-buoy', 'Buoy bell', 38)] } // prettier-ignore
}
const kit = kitOf()

function Shown({ onLeave }: { readonly onLeave?: () => void }) {
  const [doc, setDoc] = useState(() =>
    aPerformance([
      ['pad-keel', 4800, 100],
      ['pad-oar', 11_000, 20],
      ['pad-keel', 16_900, 90],
    ]),
  )
  shown = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyPerformanceEdit, now))
  return <PerformanceBench kit={kit} performance={doc} onLeave={onLeave} />
}

const strings = () => screen.getByTestId('strings')
function pointer(type: string, x: number, y: number, more: object = {}) {
  const event = new MouseEvent(type, { bubbles: true, clientX: x, clientY: y, ...more })
  fireEvent(strings(), Object.assign(event, { pointerId: 1, pointerType: 'mouse' }))
}
const tap = (x: number, y: number, more: object = {}) => (pointer('pointerdown', x, y, more), pointer('pointerup', x, y, more))
const key = (name: string, more: object = {}) => fireEvent.keyDown(strings(), { key: name, ...more })
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const frames = () => shown.events.map(({ frame }) => frame)

beforeEach(() => {
  jest.clearAllMocks()
  Element.prototype.setPointerCapture = () => undefined
  render(<Shown />)
  layOut(544, 150) // 500 px for 16,900 frames from the first strike on
})

test('a strike that is tapped says what it is, gets another strength, and moves by a finger or by a step', () => {
  tap(22, 27)
  expect(screen.getByText('Keel drop, at 0.000 s')).toBeTruthy()
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strength' }), { key: 'PageDown' })
  expect(shown.events[0]).toMatchObject({ velocity: 90 })
  press('Later')
  expect(frames()[0]).toBe(4800 + 480)
  choose('1 ms')
  press('Earlier')
  expect(frames()[0]).toBe(4800 + 432)
  pointer('pointerdown', 22 + 13, 27)
  pointer('pointermove', 22 + 113, 27)
  pointer('pointerup', 22 + 113, 27)
  expect(frames()[0]).toBe(4800 + 432 + Math.round((100 * 16_900) / 500))
  expect(screen.getByText(/^Changed since/)).toBeTruthy()
})

test('arrow keys go from strike to strike, with Shift they choose both, with Alt they move, and Delete removes', () => {
  key('ArrowRight')
  key('ArrowRight')
  expect(screen.getByText('Oar, low, at 0.129 s')).toBeTruthy()
  key('ArrowRight', { shiftKey: true })
  expect(screen.getByText('2 strikes of several pads, from 0.129 s')).toBeTruthy()
  expect(screen.getByText('Strength (mixed)')).toBeTruthy()
  key('ArrowLeft', { altKey: true })
  expect(frames()).toEqual([4800, 11_000 - 48, 16_900 - 48])
  key('Delete')
  expect(frames()).toEqual([4800])
  expect(screen.getByText('1 strike in 0.4 s')).toBeTruthy()
})

test('a drag over empty ground chooses what it goes over, a foot of an edge sets what is heard', () => {
  pointer('pointerdown', 200, 40)
  pointer('pointermove', 420, 100)
  pointer('pointerup', 420, 100)
  expect(screen.getByText('2 strikes of several pads, from 0.129 s')).toBeTruthy()
  tap(120, 20) // empty ground lets go of them
  expect(screen.getByText(/^Tap a strike/)).toBeTruthy()
  pointer('pointerdown', 520, 112)
  pointer('pointermove', 300, 112)
  pointer('pointerup', 300, 112)
  expect(shown.toFrame).toBe(4800 + Math.round((278 * 16_900) / 500))
  expect(screen.getByText('2 strikes in 0.2 s')).toBeTruthy()
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Heard from' }), { key: 'ArrowRight' })
  expect(shown.fromFrame).toBe(4800 + 480)
})

test('strikes are drawn to the grid by a share, in the tempo of the kit where that is asked for', () => {
  choose('Grid')
  expect(screen.getByText(/Strikes are 4 ms off at most/)).toBeTruthy()
  press('Draw to the grid')
  expect(frames()).toEqual([4800, 10_800, 16_800])
  expect((screen.getByRole('button', { name: 'Draw to the grid' }) as HTMLButtonElement).getAttribute('aria-disabled')).toBe('true')
  press('Take the kit’s tempo, 96 BPM')
  expect(shown.tempoBpm).toBe(96)
})

test('all strikes of a pad go on another one', () => {
  choose('Pads')
  fireEvent.click(screen.getAllByRole('button', { name: 'Put on another' })[0]!)
  choose('Buoy bell')
  expect(shown.events.map((event) => 'padId' in event && event.padId)).toEqual(['pad-buoy', 'pad-oar', 'pad-buoy'])
})

test('it is heard as it was or as the kit is now, once or going round', async () => {
  await act(async () => press('Hear it'))
  expect(mockResound).toHaveBeenLastCalledWith({ performance: shown, on: { as: 'played' } })
  choose('The kit as it is now')
  fireEvent.click(screen.getByRole('checkbox', { name: 'Go round' }))
  await act(async () => press('Hear it'))
  expect(mockResound).toHaveBeenLastCalledWith({ performance: shown, on: { as: 'kit', kit } })
  expect(mockHear).toHaveBeenLastCalledWith(shown.id, expect.anything(), { loopSeconds: 16_900 / 48000 })
  mockResound.mockRejectedValueOnce(new Error('This audio is not on this device.'))
  await act(async () => press('Hear it'))
  expect(mockNotify).toHaveBeenLastCalledWith('This audio is not on this device.')
})

test('pads that nothing answers on other clips are named, on its own ones none', async () => {
  mockUnanswered.mockResolvedValue(['pad-oar', 'pad-gone'])
  await act(async () => choose('The kit as it is now'))
  expect(mockUnanswered).toHaveBeenLastCalledWith(shown, kit)
  expect(screen.getByText(/^Nothing there is like Oar, low, a pad that is gone: silent/)).toBeTruthy()
  await act(async () => choose('As it was played'))
  expect(screen.queryByText(/^Nothing there/)).toBeNull()
  mockUnanswered.mockResolvedValue([])
})

test('it leaves as audio, by pads, as MIDI, and one strike many times over', async () => {
  choose('Take out')
  await act(async () => press('WAV'))
  expect(mockWav).toHaveBeenLastCalledWith('wav', { performance: shown, on: { as: 'played' } }, 24)
  expect(mockSave).toHaveBeenLastCalledWith('Slipway 1.wav', expect.anything(), 'audio/wav')
  choose('16 bit')
  await act(async () => press('A WAV for each pad'))
  expect(mockWav).toHaveBeenLastCalledWith('pads', { performance: shown, on: { as: 'played' } }, kit, 16)
  press('As a groove')
  expect(mockKitEdit).toHaveBeenLastCalledWith(kit.id, [{ type: 'putGroove', groove: expect.objectContaining({ name: 'Slipway 1', strings: [expect.objectContaining({ padId: 'pad-keel' }), expect.objectContaining({ padId: 'pad-oar' })] }) }]) // prettier-ignore
  await act(async () => press('MIDI'))
  expect(mockSave).toHaveBeenLastCalledWith('Slipway 1.mid', expect.any(Uint8Array), 'audio/midi')
  expect(screen.getByText(/^Choose one strike above/)).toBeTruthy()
  tap(22, 27)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Times' }), { key: 'ArrowRight' })
  await act(async () => press('Take it out 9 times'))
  expect(mockWav).toHaveBeenLastCalledWith(
    'draws',
    expect.objectContaining({ padId: 'pad-keel', velocity: 100, count: 9 }),
    'Keel drop 100',
    16,
  )
  expect(mockSave).toHaveBeenLastCalledWith('Keel drop 100 x9.zip', expect.anything(), 'application/zip')
})
