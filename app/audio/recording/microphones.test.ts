import { listMicrophones, mayListen, NoInput, openInput } from './inputs'

jest.mock('../engine/engine-url', () => ({ engineUrl: async () => '/engine.js' }))
jest.mock('../engine/sound', () => ({ sound: { getState: () => ({}) } }))
const mockPractice = { node: 'practice node', close: jest.fn() }
jest.mock('./practice-microphone', () => ({ PRACTICE_RATE: 44_100, practiceStream: async () => mockPractice }))

class FaultNamed extends Error {
  constructor(override readonly name: string) {
    super()
  }
}
const track = { getSettings: () => ({ sampleRate: 96_000 }), label: 'Deck pair', stop: jest.fn(), addEventListener: jest.fn() }
const stream = { getAudioTracks: () => [track], getTracks: () => [track] }
const ask = jest.fn()
const rates: (number | undefined)[] = []
let refusesRate: boolean
let module: () => Promise<void>
const context = {
  close: jest.fn(async () => undefined),
  resume: jest.fn(async () => undefined),
  createMediaStreamSource: () => 'microphone node',
  audioWorklet: { addModule: () => module() },
}
const ended = jest.fn()
const open = (kind: 'microphone' | 'practice' = 'microphone', deviceId?: string) => openInput(kind, deviceId, ended)
const devices = (given: object | undefined) => Object.defineProperty(navigator, 'mediaDevices', { configurable: true, value: given }) // prettier-ignore

beforeEach(() => {
  jest.clearAllMocks()
  rates.length = 0
  refusesRate = false
  module = async () => undefined
  ask.mockReset().mockResolvedValue(stream)
  devices({ getUserMedia: ask })
  Object.assign(globalThis, {
    DOMException: FaultNamed,
    AudioWorkletNode: function AudioWorkletNode() {},
    isSecureContext: true,
    AudioContext: function AudioContext({ sampleRate }: { sampleRate?: number }) {
      rates.push(sampleRate)
      if (refusesRate && sampleRate !== undefined) throw new Error('not this rate')
      return context
    },
  })
})

test('a microphone is opened at its own rate, with nothing done to its sound, and let go of when it is closed', async () => {
  const input = await open()
  expect(ask.mock.calls).toEqual([[{ audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: { ideal: 2 } } }]])
  expect([rates, input.node, input.output, input.label]).toEqual([[96_000], 'microphone node', 0, 'Deck pair'])
  await input.close()
  expect([track.stop.mock.calls.length, context.close.mock.calls.length]).toEqual([1, 1])
}) // prettier-ignore

test('where a context will not have that rate, its own is taken', async () => {
  refusesRate = true
  await open()
  expect(rates).toEqual([96_000, undefined])
})

test('the practice microphone needs none, and ends with what it was opened for', async () => {
  const input = await open('practice')
  expect([ask.mock.calls.length, rates, input.node, input.label]).toEqual([0, [44_100], 'practice node', 'Practice microphone'])
  await input.close()
  expect(mockPractice.close).toHaveBeenCalledTimes(1)
})

test('one that was chosen is asked for by its name; where it is gone any other is taken', async () => {
  await open('microphone', 'deck')
  expect(ask.mock.lastCall![0]).toMatchObject({ audio: { deviceId: { exact: 'deck' } } })
  ask.mockReset().mockRejectedValueOnce(new FaultNamed('OverconstrainedError')).mockResolvedValueOnce(stream)
  await open('microphone', 'deck')
  expect((ask.mock.lastCall![0] as { audio: object }).audio).not.toHaveProperty('deviceId')
  ask.mockReset().mockRejectedValueOnce(new FaultNamed('OverconstrainedError')).mockRejectedValueOnce(new FaultNamed('NotFoundError'))
  await expect(open('microphone', 'deck')).rejects.toThrow(/^There is no microphone/)
})

test.each([
  ['NotAllowedError', /^The microphone was refused/],
  ['NotFoundError', /^There is no microphone/],
  ['NotReadableError', /^The microphone is in use by another program/],
  ['AbortError', /^The microphone cannot be opened \(AbortError\)/],
  ['OverconstrainedError', /^The microphone cannot be opened/],
])('%s is told with what helps', async (name, words) => {
  ask.mockRejectedValue(new FaultNamed(name))
  await expect(open()).rejects.toThrow(words)
  await expect(open()).rejects.toBeInstanceOf(NoInput)
})

test('a fault of no name is told as it is', async () => {
  ask.mockRejectedValue(new Error('odd'))
  await expect(open()).rejects.toThrow(/Error: odd/)
})

test('where a page may have no microphone it is said which may', async () => {
  devices(undefined)
  await expect(open()).rejects.toThrow(/^This browser gives no microphone here/)
  devices({ getUserMedia: ask })
  Object.assign(globalThis, { isSecureContext: false })
  await expect(open()).rejects.toThrow(/only on https or localhost/)
  Object.assign(globalThis, { isSecureContext: true })
  Reflect.deleteProperty(globalThis, 'AudioWorkletNode')
  await expect(open()).rejects.toThrow(/only on https or localhost/)
})

test('a microphone that goes away is told; one whose context fails is let go of again', async () => {
  await open()
  const [type, gone] = track.addEventListener.mock.lastCall as [string, () => void]
  gone()
  expect([type, ended.mock.lastCall]).toEqual(['ended', ['The microphone went away. What was recorded until then is kept.']])
  module = () => Promise.reject(new Error('no module'))
  await expect(open()).rejects.toThrow('no module')
  expect([track.stop.mock.calls.length, context.close.mock.calls.length]).toEqual([1, 1])
})

test('microphones are listed by their names, or numbered where the browser says none; the usual one is no choice', async () => {
  const device = (deviceId: string, label: string, kind = 'audioinput') => ({ deviceId, label, kind })
  devices({ enumerateDevices: async () => [device('default', 'Usual'), device('a', 'Deck'), device('', 'Nameless'), device('b', ''), device('c', 'Speaker', 'audiooutput')] }) // prettier-ignore
  expect(await listMicrophones()).toEqual([{ id: 'a', label: 'Deck' }, { id: 'b', label: 'Microphone 2' }]) // prettier-ignore
  devices({ enumerateDevices: () => Promise.reject(new Error('no')) })
  expect(await listMicrophones()).toEqual([])
  devices(undefined)
  expect(await listMicrophones()).toEqual([])
})

test('whether it may listen without asking is what the browser says, and no where it says nothing', async () => {
  const says = (query: () => Promise<object>) => Object.defineProperty(navigator, 'permissions', { configurable: true, value: { query } })
  says(async () => ({ state: 'granted' }))
  expect(await mayListen()).toBe(true)
  says(async () => ({ state: 'prompt' }))
  expect(await mayListen()).toBe(false)
  says(() => Promise.reject(new Error('unknown')))
  expect(await mayListen()).toBe(false)
})
