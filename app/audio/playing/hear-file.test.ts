import { fileLevel, hearFile, setFileLevel, stopFile } from './hear-file'

type Read = { ok: true; decoded: { audio: { channels: Float32Array[]; sampleRateHz: number } } } | { ok: false; message: string }
const mockDecode = jest.fn<Promise<Read>, [File]>()
jest.mock('../workers/workers', () => ({ coreWork: () => ({ decode: (file: File) => mockDecode(file) }) }))

/** What plays, in the order in which it began: how many channels and frames, and whether it was stopped. */
const played: { channels: number; frames: number; isStopped: boolean; end(): void }[] = []
const gain = { value: 1 }
class FakeContext {
  destination = {}
  resume = async () => undefined
  createGain = () => ({ gain, connect: (to: object) => to })
  createAnalyser = () => ({
    fftSize: 0,
    connect: (to: object) => to,
    getFloatTimeDomainData: (into: Float32Array) => void into.fill(-0.25),
  })
  createBuffer = (channels: number, frames: number) => ({ channels, frames, copyToChannel: () => undefined })
  createBufferSource() {
    const source = {
      buffer: undefined as unknown as { channels: number; frames: number },
      onended: () => undefined,
      connect: () => undefined,
      start: () => void played.push(one),
      stop: () => void (one.isStopped = true),
    }
    const one = {
      get channels() {
        return source.buffer.channels
      },
      get frames() {
        return source.buffer.frames
      },
      isStopped: false,
      end: () => source.onended(),
    }
    return source
  }
}

const file = (name: string) => new File([], name)
const sound = (frames: number, channels = 1): Read => ({ ok: true, decoded: { audio: { channels: Array.from({ length: channels }, () => new Float32Array(frames)), sampleRateHz: 48000 } } }) // prettier-ignore
const ended = jest.fn()

beforeEach(() => {
  jest.clearAllMocks()
  played.length = 0
  ;(globalThis as { AudioContext?: unknown }).AudioContext = FakeContext
})

test('a file is heard whole, at its level, and says when it has ended', async () => {
  expect(fileLevel()).toBe(0)
  mockDecode.mockResolvedValueOnce(sound(4800, 2))
  expect(await hearFile(file('oar.wav'), -6, ended)).toBeUndefined()
  expect(played.map(({ channels, frames }) => [channels, frames])).toEqual([[2, 4800]])
  expect([gain.value, fileLevel()].map((one) => one.toFixed(2))).toEqual(['0.50', '0.25'])
  setFileLevel(0)
  expect(gain.value).toBe(1)
  played[0]!.end()
  expect(ended).toHaveBeenCalledTimes(1)
})

test('one at a time: the next stops the last, and one that is decoded too late is not heard', async () => {
  mockDecode.mockResolvedValueOnce(sound(10))
  await hearFile(file('a.wav'), 0, ended)
  let late: (read: Read) => void = () => undefined
  mockDecode.mockReturnValueOnce(new Promise((resolve) => (late = resolve)))
  const first = hearFile(file('slow.wav'), 0, ended)
  expect(played[0]!.isStopped).toBe(true)
  mockDecode.mockResolvedValueOnce(sound(30))
  await hearFile(file('b.wav'), 0, ended)
  late(sound(20))
  await first
  expect(played.map(({ frames }) => frames)).toEqual([10, 30])
  played[0]!.end() // what was stopped has nothing to say any more
  expect(ended).not.toHaveBeenCalled()
  stopFile()
  expect([played[1]!.isStopped, fileLevel()]).toEqual([true, 0])
})

test('what cannot be read, and what is empty, is said', async () => {
  mockDecode.mockResolvedValueOnce({ ok: false, message: 'This is no audio.' })
  expect(await hearFile(file('notes.txt'), 0, ended)).toBe('This is no audio.')
  mockDecode.mockResolvedValueOnce(sound(0))
  expect(await hearFile(file('empty.wav'), 0, ended)).toBe('There is no sound in it.')
  expect(played).toEqual([])
})
