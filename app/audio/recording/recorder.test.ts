import type { Source } from '@heliaster/core/kit'

import type { OpenInput } from './inputs'
import type { TakeReport } from './journal-work'
import { arm, changeRecorder, disarm, recorder, startTake, stopTake } from './recorder'

/** Inputs that are being opened, each until it is let in; and what is open. */
const mockOpenings: { kind: string; comes: () => void; fails: (reason: string) => void }[] = []
const mockOpen = new Set<string>()
const mockBegin = jest.fn()
/** What the journal says while it listens, and what a take has become. */
let mockReport: (report: TakeReport) => void
let mockTold: object
let mockFinished: () => Promise<unknown>
let mockEnds: (reason: string) => void
const mockForget = jest.fn()
const mockCreate = jest.fn((_source: Source) => Promise.resolve())
jest.mock('./inputs', () => ({
  openInput: (kind: string, _device: unknown, ends: (reason: string) => void) =>
    new Promise<OpenInput>((resolve, reject) => {
      const name = `${kind} ${mockOpenings.length}`
      const opened = {
        context: { currentTime: 1, sampleRate: 48000, destination: {} },
        node: { connect: () => undefined, disconnect: () => undefined },
        output: 0,
        label: name,
        close: () => Promise.resolve(void mockOpen.delete(name)),
      }
      mockEnds = ends
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
    listen: (_port: unknown, settings: object, report: typeof mockReport) => {
      mockReport = report
      mockTold = settings
      return Promise.resolve({ onDisk: true })
    },
    whenFlushed: () => Promise.resolve(),
    finish: () => mockFinished(),
    forget: (name: string) => Promise.resolve(void mockForget(name)),
    letGo: () => Promise.resolve(),
    begin: (frame: number) => Promise.resolve(void mockBegin(frame)),
  }),
}))
jest.mock('../../documents', () => ({
  device: { filesKept: () => undefined },
  sources: { store: { getState: () => ({ entries: {} }) }, create: (source: Source) => mockCreate(source) },
}))
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

describe('a take', () => {
  const info = { name: 'r.wav', sampleRateHz: 48000, frames: 48000, channels: 1 }
  const finished = { hash: 'a'.repeat(64), info, lostFrames: 0, journal: 'take-1', startFrame: 0 }
  const taken = jest.fn()
  const report = async (now: TakeReport['state']) => {
    mockReport({ state: now, peaks: [0.5], clips: 0, pieceSeconds: 0.02, seconds: 1, hits: [] })
    await settle()
  }
  beforeEach(async () => {
    jest.clearAllMocks()
    mockFinished = () => Promise.resolve(finished)
    recorder.setState({ news: undefined })
    changeRecorder({ waitsForSound: false, channels: 'stereo', thresholdDb: -36, silenceSeconds: 0 })
  })
  const begin = async () => {
    void startTake(taken)
    await settle()
    await come(0)
  }

  test('that waits for sound begins with it, and ends by itself where its silence says so', async () => {
    changeRecorder({ waitsForSound: true })
    await begin()
    expect(state()).toBe('waiting')
    await report('ended') // nothing has begun
    expect(state()).toBe('waiting')
    await report('running')
    expect(state()).toBe('recording')
    await report('ended')
    expect(state()).toBe('closed')
    expect(taken.mock.calls).toEqual([[expect.objectContaining({ name: 'Recording 1', audio: finished.hash, origin: 'recorded' })]])
    expect([recorder.getState().news, mockForget.mock.calls]).toEqual([undefined, [['take-1']]])
  })

  test('is told what it waits for and what ends it, by 8 dB less than began it; the pads need none of it', async () => {
    void arm()
    await settle()
    await come(0)
    expect(mockTold).toEqual({ sampleRateHz: 48000, preRollSeconds: 1, channels: 'stereo', bits: 24 })
    changeRecorder({ waitsForSound: true, thresholdDb: -30, silenceSeconds: 2.5, channels: 'left' })
    await settle()
    await come(1)
    expect(mockTold).toMatchObject({ channels: 'left', gate: { openDb: -30, closeDb: -38, holdSeconds: 2.5 }, goesOn: false })
    changeRecorder({ silenceSeconds: 0 })
    await settle()
    await come(2)
    expect(mockTold).toMatchObject({ gate: { holdSeconds: 1 }, goesOn: true })
    changeRecorder({ input: 'pads' })
    await settle()
    await come(3)
    expect(mockTold).toEqual({ sampleRateHz: 48000, preRollSeconds: 0, channels: 'stereo', bits: 32 })
    changeRecorder({ channels: 'stereo', thresholdDb: -36 })
    await settle()
    await come(4)
  })

  test('is one at a time: another press while it runs begins none', async () => {
    await begin()
    const begun = mockBegin.mock.calls.length
    await startTake(taken)
    expect([mockBegin.mock.calls.length - begun, state()]).toEqual([0, 'recording'])
  })

  test('goes on while it is reported to run, and is kept where the disk is full, which is said', async () => {
    await begin()
    await report('running')
    expect(state()).toBe('recording')
    await report('full')
    expect(taken).toHaveBeenCalledTimes(1)
    expect(recorder.getState().news?.words).toMatch(/^There is no more room on this device, so recording stopped\./)
  })

  test('whose input goes away is kept until then, and says why it ended', async () => {
    await begin()
    mockEnds('The deck was unplugged.')
    await settle()
    expect(taken).toHaveBeenCalledTimes(1)
    expect(recorder.getState()).toMatchObject({
      state: 'closed',
      problem: 'The deck was unplugged.',
      news: { words: 'The deck was unplugged.' },
    })
  })

  test('in which nothing came is none; one with gaps says how much was lost', async () => {
    mockFinished = () => Promise.resolve(undefined)
    await begin()
    await expect(stopTake()).resolves.toBeUndefined()
    expect([taken.mock.calls.length, recorder.getState().news?.words]).toEqual([
      0,
      'Nothing came in, so nothing was recorded. Check the input and try again.',
    ])
    mockFinished = () => Promise.resolve({ ...finished, lostFrames: 2400 })
    void startTake(taken)
    await settle()
    await come(1)
    await stopTake()
    expect(recorder.getState().news?.words).toMatch(/^This device lost 50 ms while recording; silence stands in their place\./)
  })

  test('that cannot be put on the list is said to be safe on the disk, and where room is missing, what to do', async () => {
    for (const [fault, words] of [
      [new DOMException('over', 'QuotaExceededError'), /^There is no room .* free some room and reload/],
      [new Error('broken'), /^The recording is on this device’s disk/],
    ] as const) {
      mockFinished = () => Promise.reject(fault)
      mockOpenings.length = 0
      await begin()
      await stopTake()
      expect([state(), taken.mock.calls.length]).toEqual(['closed', 0])
      expect(recorder.getState().news?.words).toMatch(words)
    }
  })
})

test('on a new device a take of the microphone begins at the press and ends at the press, with both channels', () => {
  localStorage.clear()
  jest.isolateModules(() => {
    const fresh = jest.requireActual<{ recorder: typeof recorder }>('./recorder').recorder
    expect(fresh.getState()).toEqual({ state: 'closed', onDisk: true, settings: { input: 'microphone', channels: 'stereo', waitsForSound: false, thresholdDb: -36, silenceSeconds: 0, listens: true } }) // prettier-ignore
  })
})
