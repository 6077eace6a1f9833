import { stringOf, timedBeads } from '@heliaster/core/groove'
import type { Groove, Kit, KitEdit } from '@heliaster/core/kit'
import { applyEdit } from '@heliaster/core/kit'

import { aGroovyKit } from '../../testing/a-groove'
import { beginTake, endTake, finishTake, heardBeat, takeSettings, takeState } from './groove-take'

const RATE = 48000
const mockEngine = { beat: -1, frame: 0, tempo: 120 }
let mockListener: ((sounded: readonly object[]) => void) | undefined
let mockStops: (() => void) | undefined
let mockKit: Kit
let mockShown: KitEdit[] = []
let mockAnswer: (() => void) | undefined
const mockGestures: KitEdit[][] = []
const mockPlayer = {
  sampleRateHz: 48000,
  context: { outputLatency: 0.01 },
  clock: { burstFrames: () => 480 },
  songBeat: () => mockEngine.beat,
  frameNow: () => mockEngine.frame,
  sleep: { isAsleep: () => false },
  /** A question that the engine answers as it comes to it. */
  stands: () => new Promise<void>((resolve) => (mockAnswer = resolve)),
}
jest.mock('../engine/sound', () => ({
  kitNow: () => undefined,
  sound: { getState: () => ({ player: mockPlayer }) },
  onSounded: (listener: typeof mockListener) => {
    mockListener = listener
    return () => (mockListener = undefined)
  },
}))
jest.mock('./groove-player', () => ({
  grooveState: { getState: () => ({ playing: true }) },
  onGrooveStops: (stop: () => void) => {
    mockStops = stop
    return () => (mockStops = undefined)
  },
  playAlone: () => undefined,
  startGroove: () => undefined,
}))
jest.mock('./hands/midi-clock', () => ({ clockState: { getState: () => ({ leads: false }) } }))
jest.mock('../../documents', () => ({
  kits: {
    store: { getState: () => ({ entries: { 'kit-g': { doc: mockKit } } }) },
    gesture: () => ({
      set: (edits: KitEdit[]) => void (mockShown = edits),
      end: () => void mockGestures.push(mockShown),
    }),
  },
}))

const perBeat = RATE / 2
/** What of the engine's is late: a burst before it sounds, and the way out. */
const LATE = 480 + 480

/** A hand strikes on a beat as it is heard; it sounds, and the page is told a little after. */
function strike(padId: string, beat: number, more: object = {}): void {
  const frame = Math.round(beat * perBeat) + LATE
  mockEngine.frame = frame + 800
  mockEngine.beat = mockEngine.frame / perBeat
  mockListener!([{ padId, struckId: padId, velocity: 90, frame, cameBy: 'hand', ...more }])
}
const later = (beats: number) => {
  mockEngine.frame += beats * perBeat
  mockEngine.beat = mockEngine.frame / perBeat
  mockListener!([])
}
const shown = (): Groove => mockShown.reduce(applyEdit, mockKit).grooves[0]!
const beatsOn = (row: number) => timedBeads(shown(), stringOf(shown(), mockKit.pads[row]!.id)).map(({ beat }) => Number(beat.toFixed(3)))

beforeEach(() => {
  mockKit = { ...aGroovyKit(), tempoBpm: 120 }
  mockShown = []
  mockGestures.length = 0
  takeSettings.setState({ isInstead: false, share: 0, hasClick: false })
  beginTake(mockKit.id, mockKit.grooves[0]!)
})
afterEach(endTake)

test('strikes of hands become beads where they were heard, in whatever lap, once their time is over; one pass is one gesture', () => {
  strike('pad-3', 0.55)
  expect(mockShown).toEqual([]) // laid now, it would sound beside the strike
  later(0.5)
  expect(beatsOn(2)).toEqual([0.55])
  strike('pad-3', 6.02)
  endTake()
  expect(beatsOn(2)).toEqual([0.55, 2.02])
  expect(beatsOn(0)).toEqual([0, 1, 2, 3])
  expect([mockGestures.length, takeState.getState().isOn]).toEqual([1, false])
})

test('what a bead, another pad or a tie strikes is not recorded', () => {
  strike('pad-3', 0.5, { cameBy: 'bead' })
  strike('pad-3', 0.6, { struckId: 'pad-1' })
  strike('pad-3', 0.7, { cameBy: 'alsoStrike' })
  endTake()
  expect(mockShown).toEqual([])
})

test('instead: a pad that is struck begins its string anew; drawn to the steps as far as is asked', () => {
  takeSettings.setState({ isInstead: true, share: 1 })
  strike('pad-1', 1.3)
  later(1)
  expect(beatsOn(0)).toEqual([1.25])
  expect(beatsOn(1)).toEqual([1, 3])
})

/** The engine has come on by so many frames, and answers what it was asked. */
const comeOn = async (frames: number) => {
  mockEngine.frame += frames
  mockAnswer!()
  for (let i = 0; i < 5; i++) await Promise.resolve()
}

test('it ends when the groove is stopped', async () => {
  strike('pad-3', 0.5)
  mockStops!()
  await comeOn(5000)
  expect([takeState.getState().isOn, mockListener, beatsOn(2)]).toEqual([false, undefined, [0.5]])
})

test('what was struck just before the end is in it, though it sounds only then; and where the groove stopped under it, too', async () => {
  for (const stops of [false, true]) {
    takeSettings.setState({ isInstead: false, share: 0 })
    beginTake(mockKit.id, mockKit.grooves[0]!)
    later(1)
    const struck = mockEngine.beat
    if (stops) mockStops!()
    else void finishTake()
    const frame = mockEngine.frame
    await comeOn(100) // not yet past it
    expect(takeState.getState().isOn).toBe(true)
    mockEngine.beat = stops ? -1 : (mockEngine.frame + 800) / perBeat
    mockEngine.frame += 800
    mockListener!([{ padId: 'pad-3', struckId: 'pad-3', velocity: 90, frame: frame + LATE, cameBy: 'hand' }])
    await comeOn(5000)
    expect(takeState.getState().isOn).toBe(false)
    expect(beatsOn(2)).toEqual([Number((struck % 4).toFixed(3))])
  }
})

test('the beat that was heard is that before the way out and the burst', () => {
  mockEngine.frame = 100_000
  mockEngine.beat = 8
  expect(heardBeat(mockPlayer as never, 100_000, 120, 8)).toBeCloseTo(8 - LATE / perBeat, 9)
})
