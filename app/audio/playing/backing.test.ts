import { besidePart } from './beside'
import { backingState, chooseBacking, placeWanted, removeBacking, setBacking, setBackingLevel, turnBacking } from './backing'

const RATE = 48000
const mockStarted: { at: number; place: number; rate: number; level: number }[] = []
let mockStopped = 0
const mockEngine = { beat: -1, frame: 0 }
let mockPace: object | undefined = { tempoBpm: 98, firstSeconds: 0.4 }
/** Each sample says where it is. */
const mockSong = Float32Array.from({ length: 96_000 }, (_, i) => i / 96_000)
const mockKit = { inserts: [] as unknown[], tempoBpm: 98 }
const mockPlayer = {
  sampleRateHz: 48000,
  songBeat: () => mockEngine.beat,
  frameNow: () => mockEngine.frame,
  hostFrame: () => 96_000,
  context: {
    destination: {},
    decodeAudioData: (bytes: ArrayBuffer) =>
      bytes.byteLength === 0
        ? Promise.reject(new Error('no'))
        : Promise.resolve({
            duration: 200,
            length: 96_000,
            sampleRate: 48000,
            numberOfChannels: 1,
            getChannelData: () => mockSong,
          }),
    createGain: () => ({ gain: { value: 1 }, connect: (to: unknown) => to, disconnect: () => undefined }),
    createBufferSource: () => {
      const node = {
        buffer: undefined,
        playbackRate: { value: 1 },
        connect: (to: { gain: { value: number } }) => ((node.level = () => to.gain.value), to),
        level: () => 0,
        start: (at: number, place: number) => mockStarted.push({ at, place, rate: node.playbackRate.value, level: node.level() }),
        stop: () => void mockStopped++,
        disconnect: () => undefined,
      }
      return node
    },
  },
}
jest.mock('../engine/sound', () => ({ sound: { getState: () => ({ player: mockPlayer }) }, kitNow: () => mockKit }))
jest.mock('../workers/workers', () => ({ coreWork: () => ({ pace: () => Promise.resolve(mockPace) }) }))
interface Groove {
  playing: boolean
  readonly listeners: Set<(now: object, before: object) => void>
  starts(player: unknown, beat: number): number
}
// What is told at the very import is kept by the stand-in itself.
jest.mock('./groove-player', () => {
  const groove: Groove = { playing: false, listeners: new Set(), starts: () => 0 }
  return {
    groove,
    grooveState: {
      getState: () => ({ playing: groove.playing }),
      subscribe: (listener: (now: object, before: object) => void) => groove.listeners.add(listener),
    },
    onGrooveStarts: (listener: Groove['starts']) => void (groove.starts = listener),
  }
})
const { groove } = jest.requireMock<{ groove: Groove }>('./groove-player')

const file = (name: string, bytes = 4) => ({ name, arrayBuffer: () => Promise.resolve(new ArrayBuffer(bytes)) }) as unknown as File
const play = (playing: boolean) => {
  const before = { playing: groove.playing }
  groove.playing = playing
  for (const listener of groove.listeners) listener({ playing }, before)
}

beforeEach(() => {
  jest.useFakeTimers()
  removeBacking()
  mockStarted.length = mockStopped = 0
  Object.assign(mockEngine, { beat: -1, frame: 0 })
  mockKit.tempoBpm = 98
})
afterEach(() => {
  play(false)
  jest.useRealTimers()
})

test('a song is read with its tempo and first beat; what is said of it is known when it is chosen again', async () => {
  await chooseBacking(file('Night ferry.flac'))
  expect(backingState.getState().backing).toMatchObject({ name: 'Night ferry', tempoBpm: 98, firstSeconds: 0.4, isFound: true })
  setBacking({ firstSeconds: 0.52 })
  mockPace = undefined
  await chooseBacking(file('Other.wav'))
  expect(backingState.getState().backing).toMatchObject({ tempoBpm: 98, firstSeconds: 0, isFound: false })
  await chooseBacking(file('Night ferry.flac'))
  expect(backingState.getState().backing).toMatchObject({ firstSeconds: 0.52, isFound: true })
  mockPace = { tempoBpm: 98, firstSeconds: 0.4 }
})

test('for who listens to the mix it goes from its first beat, at the groove’s tempo and its own level; off there is none', async () => {
  expect(besidePart(98, 0.1, RATE)).toBeUndefined()
  await chooseBacking(file('Ebb tide.wav'))
  setBacking({ firstSeconds: 0.5, tempoBpm: 49 }) // the groove is twice as fast
  const part = besidePart(98, 0.25, RATE)!
  const level = 10 ** (-6 / 20)
  expect(part).toHaveLength(12_000)
  for (const i of [0, 1, 500, 11_999]) expect(part[i]).toBeCloseTo((level * (24_000 + 2 * i)) / 96_000, 5)
  expect(besidePart(98, 3, RATE)!.slice(-10)).toEqual(new Float32Array(10)) // it is over
  turnBacking(false)
  expect(besidePart(98, 0.1, RATE)).toBeUndefined()
  turnBacking(true)
})

test('the groove waits for it a moment, and both begin together: the song on its first beat', async () => {
  await chooseBacking(file('Swell.wav'))
  const frames = groove.starts(mockPlayer, 0)
  expect(mockStarted).toEqual([{ at: (96_000 + frames) / RATE, place: 0.4, rate: 1, level: 10 ** (-6 / 20) }])
  play(true)
  mockEngine.frame = frames + 24_000
  mockEngine.beat = ((24_000 / RATE) * 98) / 60
  jest.advanceTimersByTime(1000)
  expect([mockStarted.length, mockStopped]).toEqual([1, 0]) // it is in time, and left alone
  play(false)
  expect(mockStopped).toBe(1)
})

test('at another tempo it goes along, and where it is out of time it is set right', async () => {
  await chooseBacking(file('Swell.wav'))
  mockKit.tempoBpm = 49
  mockEngine.beat = 4
  expect(placeWanted(mockPlayer, backingState.getState().backing!)!.rate).toBe(0.5)
  play(true)
  const [first] = mockStarted
  expect(first.place).toBeCloseTo(0.4 + (4 * 60) / 98 + 0.05 * 0.5, 6)
  setBacking({ firstSeconds: 1.4 })
  expect(mockStarted[1].place).toBeCloseTo(first.place + 1, 6)
  turnBacking(false)
  expect(mockStopped).toBe(2)
  expect(groove.starts(mockPlayer, 0)).toBe(0)
  turnBacking(true)
  setBackingLevel(0)
  expect(mockStarted).toHaveLength(3)
})

test('before its first sample it waits, after its last it is silent, and what is no audio is told', async () => {
  await chooseBacking(file('Swell.wav'))
  setBacking({ firstSeconds: -2 })
  mockEngine.beat = 0
  play(true)
  expect(mockStarted.at(-1)).toMatchObject({ place: 0, at: 2 + 0.05 + (2 - 0.05) })
  play(false)
  mockEngine.beat = 1000
  mockStarted.length = 0
  play(true)
  expect(mockStarted).toEqual([])
  await chooseBacking(file('notes.txt', 0))
  expect(backingState.getState().problem).toMatch(/^“notes.txt” is no audio that this browser plays/)
})
