import { controlNumbers } from '@heliaster/core/engine'
import { createKit, createPad } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { handSettings, setInput } from './hand-settings'
import { handsState, inputIsGone, letGoAll, onNote, playNote, takeMessage } from './hands'

const mockDone: unknown[][] = []
const mockNote = (name: string) => (...given: unknown[]) => void mockDone.push([name, ...given]) // prettier-ignore
let mockKit: Kit
jest.mock('../../engine/sound', () => ({
  sound: {
    getState: () => ({ player: { moveControl: mockNote('move'), press: mockNote('press'), stopAll: mockNote('stopAll') } }),
  },
  kitNow: () => mockKit,
  strikePad: ({ padId, velocity, note, steadyAtMs }: Record<string, unknown>) => mockDone.push(['strike', padId, velocity, note, steadyAtMs]),
  releasePad: (padId: unknown) => mockDone.push(['release', padId]),
})) // prettier-ignore

const makeId = testIds(3)
const pads = [36, 36, 40].map((note) => createPad(makeId, {}, note))
const [a, b, c] = pads.map(({ id }) => id)
const DOCK = 'Dock pads'

beforeEach(() => {
  mockKit = { ...createKit(makeId, 'Inputs'), pads }
  letGoAll()
  inputIsGone(DOCK)
  mockDone.length = 0
  handSettings.setState({ inputs: {}, isSteady: false })
  handsState.setState({ strokes: {}, heard: undefined, controls: {}, keyPressures: {} })
})

function heard(...bytes: number[]): unknown[][] {
  mockDone.length = 0
  takeMessage(DOCK, Uint8Array.from(bytes), 5)
  return [...mockDone]
}

test('notes strike every pad that answers them, and let go of these whatever the kit has become', () => {
  expect(heard(0x92, 36, 101)).toEqual([['strike', a, 101, 36, undefined], ['strike', b, 101, 36, undefined]]) // prettier-ignore
  expect(handsState.getState()).toMatchObject({ strokes: { [DOCK]: { came: 101, velocity: 101, count: 1 } }, heard: 'note 36, 101 hard, channel 3, Dock pads' }) // prettier-ignore
  mockKit = { ...mockKit, pads: pads.map((pad) => ({ ...pad, notes: [99] })) }
  expect(heard(0x82, 36, 64)).toEqual([['release', a], ['release', b]]) // prettier-ignore
  expect(heard(0x92, 36, 90)).toEqual([])
  expect(heard(0x92, 36, 0)).toEqual([])
})

test('the same note of another channel is another key', () => {
  heard(0x90, 40, 90)
  expect(heard(0x91, 40, 0)).toEqual([])
  expect(heard(0x90, 40, 0)).toEqual([['release', c]])
})

test('controllers, bend and pressure move their controls; pressure on a note presses what it strikes', () => {
  expect(heard(0xb0, 4, 9)).toEqual([['move', 4, 9]])
  expect(heard(0xb0, 1, 127)).toEqual([['move', controlNumbers.wheel, 127]])
  expect(handsState.getState().heard).toContain('wheel at 127')
  expect(heard(0xe0, 127, 127)).toEqual([['move', controlNumbers.bend, 1]])
  expect(heard(0xd3, 127)).toEqual([['move', controlNumbers.pressure, 1]])
  expect(heard(0xa0, 40, 127)).toEqual([['press', c, 1]])
  expect(heard(0xf8)).toEqual([])
})

test('a pedal holds what is let go until it comes up, and moves its control as well', () => {
  heard(0xb0, 64, 127)
  heard(0x90, 40, 90)
  expect(heard(0x80, 40, 0)).toEqual([])
  expect(heard(0xb0, 64, 0)).toEqual([['release', c], ['move', 64, 0]]) // prettier-ignore
})

test('an input that is pulled out lets go of all it holds, and what it bent, pressed and trod goes back', () => {
  heard(0xe0, 0, 0)
  heard(0xb0, 64, 127)
  heard(0xb0, 1, 80)
  heard(0x90, 36, 90)
  playNote('another', 40, 70)
  mockDone.length = 0
  inputIsGone(DOCK)
  expect(mockDone).toEqual([['release', a], ['release', b], ['move', controlNumbers.bend, 0], ['move', controlNumbers.pedal, 0]]) // prettier-ignore
})

test('all notes off lets go and silences', () => {
  heard(0x90, 40, 90)
  expect(heard(0xb0, 123, 0)).toEqual([['release', c], ['stopAll']])
})

test('an input that is off, or another channel than its own, plays nothing', () => {
  setInput(DOCK, { channel: 10 })
  expect(heard(0x90, 40, 90)).toEqual([])
  expect(heard(0x99, 40, 90)).toHaveLength(1)
  setInput(DOCK, { isOn: false })
  expect(heard(0x99, 40, 91)).toEqual([])
  expect(handsState.getState().strokes[DOCK]).toMatchObject({ came: 90, count: 1 })
})

test('strikes go through the curve of their input, and carry their moment where all are to be steady', () => {
  setInput(DOCK, { curve: { points: [{ at: 1, to: 1 }, { at: 127, to: 127 }], steps: 1 } }) // prettier-ignore
  handSettings.setState({ isSteady: true })
  expect(heard(0x90, 40, 3)).toEqual([['strike', c, 127, 40, 5]])
  expect(handsState.getState().strokes[DOCK]).toEqual({ came: 3, velocity: 127, count: 1 })
})

test('who learns is told of each note, until it stops', () => {
  const told = jest.fn()
  const stop = onNote(told)
  heard(0x90, 99, 90)
  stop()
  heard(0x90, 98, 90)
  expect(told.mock.calls).toEqual([[99, DOCK]])
})

test('where controls stand is told as they are moved, and a device that is gone leaves none of its own bent or pressed', () => {
  heard(0xb0, 1, 90)
  heard(0xe0, 0x7f, 0x7f)
  heard(0x90, 40, 80)
  heard(0xa0, 40, 127)
  const { controls, keyPressures } = handsState.getState()
  expect([controls[1], controls[controlNumbers.bend]! > 0.99, keyPressures]).toEqual([90, true, { [c]: 1 }])
  inputIsGone(DOCK)
  expect([handsState.getState().controls[1], handsState.getState().controls[controlNumbers.bend]]).toEqual([90, 0])
})
