import type { OpenInput } from './inputs'
import { arm, changeRecorder, disarm, recorder, startTake } from './recorder'

/** Inputs that are being opened, each until it is let in; and what is open. */
const mockOpenings: { kind: string; comes: () => void; fails: (reason: string) => void }[] = []
const mockOpen = new Set<string>()
const mockBegin = jest.fn()
jest.mock('./inputs', () => ({
  openInput: (kind: string) =>
    new Promise<OpenInput>((resolve, reject) => {
      const name = `${kind} ${mockOpenings.length}`
      const opened = {
        context: { currentTime: 1, sampleRate: 48000, destination: {} },
        node: { connect: () => undefined, disconnect: () => undefined },
        output: 0,
        label: name,
        close: () => Promise.resolve(void mockOpen.delete(name)),
      }
      mockOpenings.push({
        kind,
        comes: () => {
          mockOpen.add(name)
          resolve(opened as unknown as OpenInput)
        },
        fails: (reason) => reject(new Error(reason)),
      })
    }),
}))
jest.mock('comlink', () => ({
  proxy: (given: unknown) => given,
  transfer: (given: unknown) => given,
  wrap: () => ({
    listen: () => Promise.resolve({ onDisk: true }),
    letGo: () => Promise.resolve(),
    begin: (frame: number) => Promise.resolve(void mockBegin(frame)),
  }),
}))
jest.mock('../../documents', () => ({ device: {}, sources: { store: { getState: () => ({ entries: {} }) } } }))
jest.mock('../../documents/last-cut', () => ({ cutToBeginWith: () => ({}) }))
jest.mock('../files/measure-later', () => ({ measureLater: () => undefined }))
jest.mock('./strike-log', () => ({ strikesOf: () => [], watchStrikes: () => undefined }))

const port = { postMessage: () => undefined }
Object.assign(globalThis, {
  Worker: class {},
  AudioWorkletNode: class {
    port = port
    connect = () => undefined
    disconnect = () => undefined
  },
  MessageChannel: class {
    port1 = port
    port2 = port
  },
})

const settle = async () => {
  for (let i = 0; i < 20; i++) await Promise.resolve()
}
const come = async (n: number) => {
  mockOpenings[n].comes()
  await settle()
}
const state = () => recorder.getState().state

beforeEach(async () => {
  recorder.setState({ state: 'armed' })
  await disarm()
  changeRecorder({ input: 'microphone' })
  mockOpenings.length = 0
  mockOpen.clear()
  mockBegin.mockClear()
})

test('a press before the input is open records as soon as it is, once', async () => {
  void startTake(() => undefined)
  void startTake(() => undefined)
  await settle()
  expect(mockOpenings).toHaveLength(1)
  expect(state()).toBe('opening')
  await come(0)
  expect(state()).toBe('recording')
  expect(mockBegin.mock.calls).toEqual([[48000]])
})

test('another input that is chosen just before the press is the one that is recorded; the first one is let go of', async () => {
  void arm()
  await come(0)
  expect(state()).toBe('armed')
  changeRecorder({ input: 'practice' })
  void startTake(() => undefined)
  await settle()
  await come(1)
  expect(mockOpenings.map(({ kind }) => kind)).toEqual(['microphone', 'practice'])
  expect([...mockOpen]).toEqual(['practice 1'])
  expect(state()).toBe('recording')
  expect(mockBegin).toHaveBeenCalledTimes(1)
})

test('an input that is chosen while another is still being opened takes its place, in whatever order they come', async () => {
  void startTake(() => undefined)
  await settle()
  changeRecorder({ input: 'practice' })
  await settle()
  await come(1)
  await come(0)
  expect(state()).toBe('recording')
  expect(recorder.getState().label).toBe('practice 1')
  expect([...mockOpen]).toEqual(['practice 1'])
})

test('an input that cannot be opened says why, and nothing is recorded', async () => {
  void startTake(() => undefined)
  await settle()
  mockOpenings[0].fails('The microphone was refused.')
  await settle()
  expect(recorder.getState()).toMatchObject({ state: 'closed', problem: 'The microphone was refused.' })
  expect(mockBegin).not.toHaveBeenCalled()
})

test('what is let go of while it is being opened stays closed', async () => {
  void arm()
  await settle()
  await disarm()
  await come(0)
  expect(state()).toBe('closed')
  expect([...mockOpen]).toEqual([])
})

test('whatever can be chosen for recording is still chosen when the page is opened again', () => {
  for (const channels of ['mono', 'stereo', 'left', 'right'] as const) {
    changeRecorder({ channels, waitsForSound: true, thresholdDb: -60, silenceSeconds: 30, listens: false, input: 'practice' })
    jest.isolateModules(() => {
      const again = jest.requireActual<{ recorder: typeof recorder }>('./recorder').recorder
      expect(again.getState().settings).toEqual(recorder.getState().settings)
    })
  }
})
