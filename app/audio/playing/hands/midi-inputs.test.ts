import { handSettings } from './hand-settings'
import { handsState } from './hands'
import { connectMidi, midiState, switchMidi } from './midi-inputs'

const mockMove = jest.fn()
jest.mock('../../engine/sound', () => ({
  sound: { getState: () => ({ player: { moveControl: (...moved: unknown[]) => mockMove(...moved), stopAll: jest.fn() } }) },
  kitNow: () => undefined,
  strikePad: jest.fn(),
  releasePad: jest.fn(),
}))

interface FakeInput {
  name: string
  state: string
  onmidimessage: ((event: { data: Uint8Array; timeStamp: number }) => void) | null
}
const anInput = (name: string): FakeInput => ({ name, state: 'connected', onmidimessage: null })
const send = (input: FakeInput, ...data: number[]) => input.onmidimessage?.({ data: Uint8Array.from(data), timeStamp: 1 })
const give = (request: () => Promise<unknown>) => Object.assign(navigator, { requestMIDIAccess: request })
const anAccess = () => ({ inputs: new Map<string, FakeInput>(), onstatechange: null as (() => void) | null })
let stop: () => void

beforeEach(() => {
  jest.clearAllMocks()
  handSettings.setState({ inputs: {} })
  stop = connectMidi()
})
afterEach(async () => {
  stop()
  await switchMidi(false)
  delete (navigator as { requestMIDIAccess?: unknown }).requestMIDIAccess
})

test('a browser without MIDI, and one that does not allow it, are told apart', async () => {
  await switchMidi(true)
  expect(midiState.getState().status).toBe('none')
  give(() => Promise.reject(new Error('no')))
  await switchMidi(true)
  expect(midiState.getState().status).toBe('refused')
})

test('inputs are heard when they are plugged in, alike ones are told apart, and one that is pulled out stays nowhere bent', async () => {
  const access = anAccess()
  give(() => Promise.resolve(access))
  await switchMidi(true)
  expect(midiState.getState()).toEqual({ status: 'on', devices: [], outputs: [] })
  const [first, second] = [anInput('Dock pads'), anInput('Dock pads')]
  access.inputs.set('1', first).set('2', second)
  access.onstatechange!()
  expect(midiState.getState().devices).toEqual(['Dock pads', 'Dock pads 2'])
  send(second, 0xe0, 0, 127)
  expect(handsState.getState().heard).toContain('Dock pads 2')
  mockMove.mockClear()
  second.state = 'disconnected'
  access.onstatechange!()
  expect(mockMove.mock.calls).toEqual([[128, 0]])
  expect(midiState.getState().devices).toEqual(['Dock pads'])
})

test('switched off, or with no kit open, nothing is heard', async () => {
  const access = anAccess()
  const input = anInput('Dock pads')
  access.inputs.set('1', input)
  give(() => Promise.resolve(access))
  await switchMidi(true)
  stop()
  send(input, 0xb0, 1, 3)
  expect(handsState.getState().heard).toBeUndefined()
  await switchMidi(false)
  expect([input.onmidimessage, access.onstatechange, midiState.getState().devices]).toEqual([null, null, []])
})

test('one who thinks better of it while the browser asks is not listened to', async () => {
  let answer: (access: unknown) => void = () => undefined
  give(() => new Promise((resolve) => (answer = resolve)))
  const asked = switchMidi(true)
  await switchMidi(false)
  answer(anAccess())
  await asked
  expect(midiState.getState().status).toBe('off')
})
