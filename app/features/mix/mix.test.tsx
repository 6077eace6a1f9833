import { applyEdit, createBus, createKit, createPad, effectKinds, effectStarts, insertSchema } from '@heliaster/core/kit'
import type { Bus, BusId, Insert, Kit, KitEdit, Pad, PadId, Ray } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { busesAfter, movedBus } from '../../kit-view/buses/bus-edits'
import { effectFields, effectWords } from '../../kit-view/buses/effect-words'
import { madeInsert, startedBy } from '../../kit-view/buses/inserts'
import { movedBand, bandOf } from './effects/EqualiserPanel'
import { shortWords } from './effects/short-words'
import { byLoudness } from './lanes/loud-order'
import { lossWords } from './LossLine'
import { MixScreen } from './MixScreen'

let mockKit: Kit
const mockShow: { now: (kit: Kit) => void } = { now: () => undefined }
const mockEdit = jest.fn((edits: KitEdit[]) => {
  mockKit = edits.reduce(applyEdit, mockKit)
  mockShow.now(mockKit)
})
const mockTaken = jest.fn(() => 6.25)
const mockReading = { momentary: -18.25, short: -20, integrated: -21, peakDb: 0.4, truePeakDb: 0.6, rmsDb: -24, correlation: 0.5 }
const mockClear = jest.fn()
const mockOver = jest.fn()
let mockLevel = 0
let mockLoud: PadId | undefined
let mockHighest = 0.6
let mockWide = true
jest.mock('../../audio/engine/outputs-later', () => ({ outputsLater: () => new Promise(() => undefined) }))
jest.mock('expo-router', () => ({ router: { navigate: jest.fn() } }))
jest.mock('../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockWide }))
jest.mock('../../kit-view', () => ({ useKit: () => mockKit, editKit: (_: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))
jest.mock('../../kit-view/PadGlyph', () => ({ PadGlyph: () => null }))
jest.mock('../../kit-view/session', () => ({ session: { setState: jest.fn() } }))
jest.mock('../../kit-view/own-sounds', () => ({
  useOwnSounds: () => [
    {
      id: 'clap',
      name: 'Clap in the shed',
      audio: 'e'.repeat(64),
      info: { name: 'clap.wav', frames: 9, channels: 1, sampleRateHz: 48000 },
    },
  ],
}))
jest.mock('../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sources: { store: createStore(() => ({ entries: {} })) } }
})
jest.mock('./hearing/BalanceSheet', () => ({ BalanceSheet: () => 'levels that would suit' }))
jest.mock('./hearing/HidesSheet', () => ({ HidesSheet: () => 'hidden ones' }))
jest.mock('../../audio/engine/mix-spectrum', () => ({ useMixSpectrum: () => undefined }))
jest.mock('../../audio/engine/mix-meter', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    useMixMeter: () => ({ reading: mockReading, highestDb: mockHighest, hasClipped: mockHighest > 0, over: ['Hulls'] }),
    clearMarks: () => mockClear(),
    markOver: (id: string) => mockOver(id),
    mixMeter: createStore(() => ({ over: ['Hulls'] })),
  }
})
jest.mock('../../audio/playing/groove-player', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    grooveState: createStore(() => ({ playing: false })),
    chosenGroove: () => undefined,
    grooveBeat: () => undefined,
    toggleGroove: jest.fn(),
  }
})
jest.mock('../../audio/engine/sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  const soloed = createStore(() => ({ pads: [], rays: [], buses: [] as string[], bands: [], turns: [] }))
  return {
    busLevel: () => mockLevel,
    raysLevel: (id: string) => new Float64Array(32).fill(id === mockLoud ? 0.8 : 0),
    soloed,
    sound: createStore(() => ({ player: { losses: () => ({ events: 0, strikes: 2, lateBlocks: 1 }) } })),
    strikePad: () => undefined,
    takenByEffect: () => mockTaken(),
    toggleSolo: (kind: 'buses', id: string) => soloed.setState({ [kind]: [id] }),
  }
})

const makeId = testIds(4)
const bus = (id: string, more: Partial<Bus> = {}): Bus => ({ ...createBus(id as BusId, id), ...more })
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const slide = (name: string, key = 'ArrowRight') => fireEvent.keyDown(screen.getByRole('slider', { name }), { key })

beforeEach(() => {
  mockWide = true
  const pad = createPad(makeId, { name: 'Hull thump', bus: 'Hulls' as BusId }, 36)
  const other: Pad = { ...createPad(makeId, { name: 'Oar' }, 38) }
  const rays = [
    { ...other.rays[0]!, name: 'Close' },
    { ...other.rays[0]!, id: makeId('ray') as Ray['id'], name: 'Yard' },
  ]
  mockKit = {
    ...createKit(makeId, 'Mix'),
    pads: [pad, { ...other, rays }],
    buses: [bus('Hulls'), bus('Whole yard'), bus('Boathouse', { isReturn: true })],
  }
})

function Shown() {
  const [, show] = useState(mockKit)
  mockShow.now = show
  return <MixScreen />
}

test('a level is moved by keys on its lane, pads and buses are muted, and a bus sounds alone', () => {
  render(<Shown />)
  slide('Level of Hull thump')
  expect(mockKit.pads[0]!.own.values?.gainDb).toBe(0.5)
  slide('Level of Hulls', 'PageDown')
  expect(mockKit.buses[0]!.values.gainDb).toBe(-3)
  slide('Level of The whole kit', 'Home')
  expect(mockKit.values.gainDb).toBe(-48)
  press('Mute Boathouse')
  expect(mockKit.buses[2]!.mute).toBe(true)
  press('Mute Oar')
  expect(screen.getByRole('button', { name: 'Oar is muted' })).toBeTruthy()
  press('Only Hulls')
  expect(screen.getByRole('button', { name: 'Hulls sounds alone' })).toBeTruthy()
})

test('buses say who comes in, go into each other, send, change places, and are taken out after asking', () => {
  render(<Shown />)
  press('Settings of Hulls')
  expect(screen.getByText('Here go Hull thump.')).toBeTruthy()
  choose('Whole yard')
  press('Boathouse')
  expect(mockKit.buses[0]).toMatchObject({ out: 'Whole yard', sends: [{ busId: 'Boathouse', tap: 'post' }] })
  press('Settings of Boathouse')
  expect(screen.getByText('Sent here from Hulls.')).toBeTruthy()
  press('Move Boathouse up')
  expect(mockKit.buses.map(({ name }) => name)).toEqual(['Hulls', 'Boathouse', 'Whole yard'])
  press('Settings of Hulls')
  press('Remove Hulls')
  expect(mockKit.buses).toHaveLength(3)
  press('Remove it all the same')
  expect(mockKit.buses.map(({ name }) => name)).toEqual(['Boathouse', 'Whole yard'])
  press('Add a return')
  expect(mockKit.buses[2]).toMatchObject({ name: 'Return 2', isReturn: true })
})

test('a pad goes to a bus with all its rays, or each ray by itself', () => {
  render(<Shown />)
  press('Settings of Oar')
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Goes to' })).getByRole('radio', { name: 'Hulls' }))
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Yard goes to' })).getByRole('radio', { name: 'Whole yard' }))
  expect(mockKit.pads[1]!.own.bus).toBe('Hulls')
  expect(mockKit.pads[1]!.rays.map(({ bus: own }) => own)).toEqual([undefined, 'Whole yard'])
  expect(screen.getByText(/Hull thump, Oar, Close/)).toBeTruthy()
})

test('effects are put in, set, switched off, change places and are taken out', () => {
  render(<Shown />)
  press('Settings of Hulls')
  press('Put an effect in')
  press('Compressor')
  const insert = () => mockKit.buses[0]!.inserts[0]!
  expect(insert()).toMatchObject({ kind: 'compressor', values: effectStarts.compressor[0]!.values })
  choose('Lets the stroke through')
  expect(insert().values).toEqual(effectStarts.compressor[1]!.values)
  slide('Above')
  expect(insert().values.threshold1Db).toBeCloseTo(-25.9)
  expect(screen.queryByRole('slider', { name: 'Attack, middle' })).toBeNull()
  choose('Three')
  press('All of it')
  slide('Attack, middle')
  expect(insert()).toMatchObject({ choices: { ranges: '3' } })
  expect(insert().values.attack2Seconds).toBeGreaterThan(0.01)
  fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Listens to' })).getByRole('radio', { name: 'Boathouse' }))
  expect(insert().key).toBe('Boathouse')
  press('One more effect')
  press('Equaliser')
  press('Move Equaliser before')
  expect(mockKit.buses[0]!.inserts.map(({ kind }) => kind)).toEqual(['equaliser', 'compressor'])
  press('Switch Compressor off')
  expect(mockKit.buses[0]!.inserts[1]!.bypass).toBe(true)
  press('Take Equaliser out')
  expect(mockKit.buses[0]!.inserts.map(({ kind }) => kind)).toEqual(['compressor'])
})

test('in a return an effect lets nothing past it; in a bus as much as its start says', () => {
  expect(madeInsert('reverb', true).values.mix).toBe(1)
  expect(madeInsert('reverb', false).values.mix).toBe(0.25)
  expect('mix' in madeInsert('gate', true).values).toBe(false)
  const insert = { ...madeInsert('echo', true), ...startedBy(effectStarts.echo[1]!, 'echo', true) }
  expect(shortWords(mockKit, insert)).toBe('To and fro')
})

test('a room takes a recording as its impulse, and says when it waits for one', () => {
  render(<Shown />)
  press('Settings of Boathouse')
  press('Put an effect in')
  press('Recorded room')
  expect(screen.getByText('waits for an impulse')).toBeTruthy()
  choose('Clap in the shed')
  expect(mockKit.buses[2]!.inserts[0]!.audio).toBe('e'.repeat(64))
  expect(mockKit.audio['e'.repeat(64) as keyof Kit['audio']]).toMatchObject({ name: 'clap.wav' })
})

test('every kind has words and starts that are fit to be kept, and every field is one of its numbers', () => {
  for (const kind of effectKinds) {
    expect(effectWords[kind].name).toMatch(/^[A-Z]/)
    expect(effectStarts[kind].length).toBeGreaterThanOrEqual(3)
    for (const start of effectStarts[kind]) {
      const insert: Insert = { ...madeInsert(kind, false), ...startedBy(start, kind, false), audio: 'a'.repeat(64) as Insert['audio'] }
      expect(insertSchema.safeParse(insert).error?.message).toBeUndefined()
      expect(shortWords(mockKit, insert)).toBe(start.name)
    }
    const row = madeInsert(kind, false)
    for (const { value } of [...effectFields[kind].first, ...effectFields[kind].rest]) expect(insertSchema.safeParse({ ...row, values: { [value]: Number.NaN } }).error?.issues[0]?.path).toEqual(['values', value]) // prettier-ignore
  }
})

test('a point of the equaliser moves its frequency, and its gain or its sharpness', () => {
  const insert = madeInsert('equaliser', false)
  expect(movedBand(insert, '4', bandOf(insert, '4'), 1200, 3)).toMatchObject({ band4Hz: 3000, band4Db: 3 })
  const cut = { ...insert, choices: { band1Kind: 'notch' } }
  expect(movedBand(cut, '1', bandOf(cut, '1'), 0, 6)).toMatchObject({ band1Damping: 0.5 })
})

test('what is loud comes first, what is silent keeps its order', () => {
  const ids = ['a', 'b', 'c', 'd'] as PadId[]
  expect(byLoudness(ids, new Map([['c' as PadId, 0.5], ['b' as PadId, 0.1]]))).toEqual(['c', 'b', 'a', 'd']) // prettier-ignore
})

test('what becomes loud comes first, but not under a hand', () => {
  jest.useFakeTimers()
  render(<Shown />)
  const names = () => screen.getAllByRole('slider', { name: /^Level of (Hull thump|Oar)$/ }).map((lane) => lane.getAttribute('aria-label'))
  expect(names()).toEqual(['Level of Hull thump', 'Level of Oar'])
  mockLoud = mockKit.pads[1]!.id
  for (let i = 0; i < 4; i++) {
    const moved = Object.assign(new MouseEvent('pointermove', { bubbles: true, clientX: 40, clientY: 40 }), {
      pointerId: 1,
      pointerType: 'mouse',
    })
    fireEvent(screen.getByRole('slider', { name: 'Level of Hull thump' }), moved)
    act(() => jest.advanceTimersByTime(1500))
  }
  expect(names()).toEqual(['Level of Hull thump', 'Level of Oar'])
  act(() => jest.advanceTimersByTime(6000))
  expect(names()).toEqual(['Level of Oar', 'Level of Hull thump'])
  mockLoud = undefined
  jest.useRealTimers()
})

test('meters are read in figures, and a mark above full scale stays until it is cleared', () => {
  mockWide = false
  render(<Shown />)
  for (const figure of ['-18.3', '-20.0', '-21.0', '-24.0', '0.50']) expect(screen.getByText(figure)).toBeTruthy()
  press(/Above full scale before the limiter, at most 0.6 dB true peak/)
  expect(mockClear).toHaveBeenCalled()
  expect(screen.getByText('Too loud')).toBeTruthy()
  expect(within(screen.getByRole('slider', { name: 'Level of Hulls' })).getByText(/^too loud/)).toBeTruthy()
  press('Settings of Hull thump')
  expect(screen.getByRole('slider', { name: 'Pan' })).toBeTruthy() // in a sheet
})

test('where only single lanes are marked the marks can be cleared too', () => {
  mockHighest = -3
  render(<Shown />)
  expect(screen.getByText('Clear marks')).toBeTruthy()
  press(/At most -3.0 dB true peak. Clear/)
  expect(mockClear).toHaveBeenCalled()
  mockHighest = 0.6
})

test('balance and who hides whom are opened from the bar, on a phone from behind More', () => {
  const { unmount } = render(<Shown />)
  press('Balance')
  expect(screen.getByText(/levels that would suit/)).toBeTruthy()
  unmount()
  mockWide = false
  render(<Shown />)
  press('More')
  press('Who hides whom')
  expect(screen.getByText(/hidden ones/)).toBeTruthy()
})

test('what is above full scale is marked, and what was so stays marked', () => {
  mockLevel = 1.2
  const frames = jest.spyOn(window, 'requestAnimationFrame').mockReturnValue(1)
  render(<Shown />)
  expect(screen.getByRole('slider', { name: 'Level of Hulls' }).getAttribute('aria-valuetext')).toBe('0.0 dB, was above full scale')
  expect(screen.getByRole('slider', { name: 'Level of Boathouse' }).getAttribute('aria-valuetext')).toBe('0.0 dB')
  for (const [draw] of [...frames.mock.calls]) draw(0) // each asks for the next
  expect(mockOver.mock.calls.map(([id]) => id as string)).toEqual(expect.arrayContaining(['Hulls', 'Whole yard', 'Boathouse']))
  frames.mockRestore()
  mockLevel = 0
})

test('what was lost is told in words, and nothing where nothing was', () => {
  expect(lossWords({ events: 0, strikes: 0, lateBlocks: 0 })).toBeUndefined()
  expect(lossWords({ events: 0, strikes: 2, lateBlocks: 1 })).toBe(
    'Lost since this page was opened: 2 strikes ended early to make room for others; one moment came late and may have crackled.',
  )
})

test('a bus goes only where nothing leads back, and moves within its list', () => {
  const [hulls, yard, room] = mockKit.buses as [Bus, Bus, Bus]
  const kit = {
    ...mockKit,
    buses: [{ ...hulls, out: yard.id }, { ...yard, sends: [{ busId: room.id, values: {}, tap: 'post' as const }] }, room],
  }
  expect(busesAfter(kit, kit.buses[2]!)).toEqual([])
  expect(busesAfter(kit, kit.buses[0]!).map(({ id }) => id)).toEqual(['Whole yard', 'Boathouse'])
  expect(movedBus(kit, kit.buses[0]!, -1)).toEqual([{ type: 'move', at: ['buses'], key: 'Hulls', after: null }])
})
