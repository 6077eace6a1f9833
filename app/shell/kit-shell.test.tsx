import type { Kit } from '@heliaster/core/kit'
import { act, render, screen } from '@testing-library/react'

import { session } from '../kit-view/session'
import { aKitOf, aPad } from '../testing/a-kit'
import { KitShell } from './KitShell'

let mockPath = '/kit/kit-1/board'
let mockWide = false
let mockLow = false
let mockCell = (heard: object) => heard
let mockSilent: string
let mockFaint: string | undefined
const mockCalls: string[] = []
const mockPlay = jest.fn()
const mockLit = jest.fn()
const mockRemember = jest.fn()
const mockListeners: Record<string, ((given?: unknown) => void) | undefined> = {}
function mockConnect(name: string) {
  return (listener?: (given?: unknown) => void) => {
    mockCalls.push(`${name} on`)
    mockListeners[name] = listener
    return () => void mockCalls.push(`${name} off`)
  }
}
function mockTold(name: string) {
  return (...given: unknown[]) => void mockCalls.push([name, ...given].join(' '))
}
jest.mock('expo-router', () => ({ Slot: () => <span>the place</span>, usePathname: () => mockPath }))
jest.mock('../ui/layout/use-is-wide', () => ({ LOW_PX: 600, useIsWide: () => mockWide, useIsLow: () => mockLow }))
jest.mock('../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { kits: { store: createStore(() => ({ entries: {} })) } }
})
jest.mock('../documents/gathered', () => ({ gatherFor: mockTold('gather for') }))
jest.mock('../audio/playing/hands/computer-keys', () => ({ connectKeys: mockConnect('keys') }))
jest.mock('../audio/playing/hands/hands', () => ({ letGoAll: mockTold('let go') }))
jest.mock('../audio/playing/hands/midi-inputs', () => ({ connectMidi: mockConnect('midi') }))
jest.mock('../audio/playing/hands/practice', () => ({ connectPractice: mockConnect('practice') }))
jest.mock('../audio/playing/groove-player', () => ({ playSong: mockTold('song'), stopGroove: mockTold('groove stopped') }))
jest.mock('../audio/playing/groove-take', () => ({ endTake: mockTold('take ended') }))
jest.mock('../audio/playing/round', () => ({ stopRound: mockTold('round stopped') }))
jest.mock('../audio/engine/arriving', () => ({ onArrived: mockConnect('arrived') }))
jest.mock('../audio/engine/solo', () => ({ ALL_SOUND: { pads: [] }, heardCell: (_pad: unknown, heard: object) => mockCell(heard) }))
jest.mock('../audio/engine/sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    onSounded: mockConnect('sounded'),
    onWaiting: mockConnect('waiting'),
    playKit: (kit: unknown) => mockPlay(kit) as unknown,
    soloed: createStore(() => ({ pads: ['alone'] })),
    sound: createStore(() => ({})),
  }
})
jest.mock('./remember-playing', () => ({ rememberPlaying: () => undefined }))
jest.mock('../kit-view/recent-strikes', () => ({
  forgetStrikes: mockTold('strikes forgotten'),
  rememberStrikes: (...given: unknown[]) => mockRemember(...given) as unknown,
}))
jest.mock('../kit-view/sounding', () => ({ lightUp: (pads: unknown) => mockLit(pads) as unknown, putOut: mockTold('put out') }))
jest.mock('../kit-view/why-silent', () => ({
  NOT_ARRIVED: 'not arrived',
  ON_ITS_WAY: 'on its way',
  whySilent: () => mockSilent,
  whyHardlyHeard: () => mockFaint,
}))
jest.mock('../kit-view/use-kit', () => ({ useKitId: () => 'kit-1' }))
jest.mock('../kit-view/use-undo', () => ({ useUndoKeys: () => undefined }))
jest.mock('../ui/layout/notices', () => ({ NoticesHere: () => <span>what is said</span> }))
jest.mock('./KitHeader', () => ({ KitHeader: () => <span>its head</span> }))
jest.mock('./KitMissing', () => ({ KitMissing: () => <span>it is missing</span> }))
jest.mock('./PadStrip', () => ({ PadStrip: () => <span>its pads</span> }))
jest.mock('./RecordingMark', () => ({ RecordingMark: () => null }))
jest.mock('./SoloBar', () => ({ SoloBar: () => null }))
jest.mock('./TakeBar', () => ({ TakeBar: () => null }))
jest.mock('./TideNav', () => ({ TideNav: () => <span>the places</span> }))
jest.mock('./TillerStrip', () => ({ TillerStrip: () => null }))

const documents = jest.requireMock<{ kits: { store: { setState(state: object): void } } }>('../documents')
const engine = jest.requireMock<{ soloed: { getState(): object }; sound: { setState(state: object, whole?: boolean): void } }>('../audio/engine/sound') // prettier-ignore
let kit: Kit
const put = (doc: Kit | undefined) => act(() => documents.kits.store.setState({ entries: doc ? { 'kit-1': { doc } } : {} }))
const heard = (...strikes: object[]) => act(() => mockListeners.sounded!(strikes))
const strike = (pad: number, more: object = {}) => ({ padId: kit.pads[pad]!.id, frame: 480, voices: 1, velocity: 90, band: 0, turn: 0, ...more }) // prettier-ignore
/** The frame stands, and its place after it. */
const momentsPass = () => act(() => new Promise((resolve) => setTimeout(resolve)))
const says = (words: string) => screen.queryByText(words) !== null

beforeEach(() => {
  jest.clearAllMocks()
  Object.assign(performance, { getEntriesByName: () => [{}], mark: () => undefined })
  mockCalls.length = 0
  mockPath = '/kit/kit-1/board'
  mockWide = mockLow = false
  mockCell = (of) => of
  mockSilent = 'nothing is on it'
  mockFaint = undefined
  kit = aKitOf(aPad(1), aPad(1))
  put(kit)
  act(() => {
    session.setState({ lit: {}, silent: undefined })
    engine.sound.setState({}, true)
  })
})

test('on the Board pads are not shown a second time, elsewhere they stand below; a kit that is gone says so', async () => {
  const { unmount } = render(<KitShell />)
  await momentsPass()
  expect([says('the place'), says('its pads'), says('the places'), says('what is said')]).toEqual([true, false, true, true])
  unmount()
  mockPath = '/kit/kit-1/mix'
  render(<KitShell />)
  await momentsPass()
  expect(says('its pads')).toBe(true)
  put(undefined)
  expect([says('the place'), says('it is missing'), says('its pads')]).toEqual([false, true, false])
})

test('the places are along the foot of a phone alone; what is said waits while the kit is not in front, or the window is low', () => {
  mockWide = true
  const first = render(<KitShell />)
  expect([says('the places'), says('what is said')]).toEqual([false, true])
  first.unmount()
  mockLow = true
  const low = render(<KitShell />)
  expect(says('what is said')).toBe(false)
  low.unmount()
  mockLow = false
  mockPath = '/'
  render(<KitShell />)
  expect(says('what is said')).toBe(false)
})

test('what keeps all from sounding is said', () => {
  render(<KitShell />)
  expect(screen.queryByRole('alert')).toBeNull()
  act(() => engine.sound.setState({ problem: 'The browser gives no sound.' }))
  expect(screen.getByRole('alert').textContent).toBe('The browser gives no sound.')
})

test('the engine follows the kit, and only when it changed; leaving the kit ends all that plays it', () => {
  const { unmount } = render(<KitShell />)
  expect(mockPlay.mock.calls).toEqual([[kit]])
  put(kit)
  expect(mockPlay).toHaveBeenCalledTimes(1)
  const next = { ...kit, name: 'Another' }
  put(next)
  expect(mockPlay.mock.lastCall).toEqual([next])
  expect(mockCalls).toEqual(['gather for kit-1', 'keys on', 'midi on', 'practice on', 'waiting on', 'arrived on', 'sounded on'])
  mockCalls.length = 0
  unmount()
  expect(mockCalls).toEqual(['take ended', 'groove stopped', 'song false', 'round stopped', 'let go', 'put out', 'strikes forgotten', 'gather for ', 'keys off', 'midi off', 'practice off', 'waiting off', 'arrived off', 'sounded off']) // prettier-ignore
  expect(engine.soloed.getState()).toEqual({ pads: [] })
  put(kit)
  expect(mockPlay).toHaveBeenCalledTimes(2)
})

test('what sounded is lit with its cell, what did not says why, and the last of them is what is said', () => {
  render(<KitShell />)
  heard(strike(0, { voices: 0 }), strike(1, { band: 2, turn: 3, velocity: 40 }))
  expect(session.getState().lit).toEqual({ [kit.pads[1]!.id]: { band: 2, turn: 3, at: 480, velocity: 40 } })
  expect(session.getState().silent).toBeUndefined()
  expect(mockLit).toHaveBeenLastCalledWith([kit.pads[1]!.id])
  heard(strike(0, { voices: 0 }))
  expect(session.getState().silent).toEqual({ padId: kit.pads[0]!.id, why: 'nothing is on it' })
  mockFaint = 'its level is at the bottom'
  heard(strike(1))
  expect(session.getState().silent).toEqual({ padId: kit.pads[1]!.id, why: 'its level is at the bottom' })
  expect(Object.keys(session.getState().lit)).toEqual([kit.pads[1]!.id])
  expect(mockRemember.mock.lastCall!.slice(0, 2)).toEqual([kit, [strike(1)]])
})

test('the cell that is lit is the one that sounds alone; a strike of no pad lights none', () => {
  mockCell = () => ({ band: 7, turn: 8 })
  render(<KitShell />)
  heard(strike(0), { ...strike(1), padId: undefined })
  expect(session.getState().lit).toEqual({ [kit.pads[0]!.id]: { band: 7, turn: 8, at: 480, velocity: 90 } })
  expect(mockLit).toHaveBeenLastCalledWith([kit.pads[0]!.id])
})

test('a strike that waits for its sound says so until sounds have arrived; another reason stays', () => {
  render(<KitShell />)
  const padId = kit.pads[0]!.id
  act(() => mockListeners.waiting!(padId))
  expect(session.getState().silent).toEqual({ padId, why: 'on its way' })
  act(() => mockListeners.arrived!())
  expect(session.getState().silent).toBeUndefined()
  mockSilent = 'not arrived'
  heard(strike(0, { voices: 0 }))
  act(() => mockListeners.arrived!())
  expect(session.getState().silent).toBeUndefined()
  mockSilent = 'silent: the pad is muted'
  heard(strike(0, { voices: 0 }))
  act(() => mockListeners.arrived!())
  expect(session.getState().silent?.why).toBe('silent: the pad is muted')
})
