import { readClock } from '@heliaster/core/hands'

import { clockSettings, clockState, connectClock, takeClock } from './midi-clock'

const mockPlayer = { sampleRateHz: 48000, frame: 0, beat: -1, led: [] as number[][] }
const mockGroove = { playing: false, begun: [] as unknown[][], stopped: 0 }
jest.mock('../../engine/sound', () => ({
  kitNow: () => ({ id: 'kit-a', tempoBpm: 120, inserts: [] }),
  sound: {
    getState: () => ({
      player: {
        sampleRateHz: 48000,
        context: { outputLatency: 0.01 },
        clock: { frameOf: (ms: number) => Math.round(ms * 48) + 480, burstFrames: () => 480 },
        seeClock: () => undefined,
        frameNow: () => mockPlayer.frame,
        songBeat: () => mockPlayer.beat,
        leadGroove: (...led: number[]) => void mockPlayer.led.push(led),
      },
    }),
  },
}))
jest.mock('../groove-player', () => ({
  grooveState: { getState: () => ({ playing: mockGroove.playing }) },
  startGroove: (...begun: unknown[]) => {
    mockGroove.begun.push(begun)
    mockGroove.playing = true
  },
  stopGroove: () => {
    mockGroove.stopped++
    mockGroove.playing = false
  },
}))

const take = (atMs: number, ...bytes: number[]) => takeClock('Dock', Uint8Array.from(bytes), atMs)

beforeEach(() => {
  Object.assign(mockPlayer, { frame: 0, beat: -1, led: [] })
  Object.assign(mockGroove, { playing: false, begun: [], stopped: 0 })
  clockSettings.setState({ follows: '', sends: [] })
})

test('only a clock is taken, and only that which is followed acts: it begins, leads and stops the groove', () => {
  expect(take(0, 0x90, 36, 100)).toBe(false)
  expect(take(0, 0xfa)).toBe(true)
  take(10, 0xf8)
  expect(mockGroove.begun).toEqual([])
  clockSettings.setState({ follows: 'Dock' })
  take(1000, 0xfa)
  for (let pulse = 0; pulse < 25; pulse++) take(1000 + pulse * 25, 0xf8) // 100 beats a minute
  expect(mockGroove.begun).toEqual([['kit-a', 0, 48 * 1000 + 480]])
  const [beat, framesPerBeat, frame] = mockPlayer.led[mockPlayer.led.length - 1]!
  expect([beat, Math.round(framesPerBeat!), frame]).toEqual([1, 28800, 48 * 1600 + 480])
  expect(clockState.getState()).toMatchObject({ leads: true })
  expect(clockState.getState().tempoBpm).toBeCloseTo(100, 6)
  take(1700, 0xfc)
  expect([mockGroove.stopped, clockState.getState().leads]).toEqual([1, false])
})

test('what plays is sent as it is heard: start, each pulse once and in its time, stop; begun in the middle, from a position', () => {
  jest.useFakeTimers()
  const sent: { output: string; words: string; atMs: number }[] = []
  const stop = connectClock((output, bytes, atMs) => {
    const message = readClock(Uint8Array.from(bytes))!
    sent.push({ output, words: message.type === 'position' ? `at ${message.beat}` : message.type, atMs })
  })
  clockSettings.setState({ sends: ['Winch'] })
  for (let ms = 0; ms <= 500; ms += 25) {
    Object.assign(mockPlayer, { frame: ms * 48, beat: ms / 500 })
    jest.advanceTimersByTime(25)
  }
  mockPlayer.beat = -1
  jest.advanceTimersByTime(25)
  const pulses = sent.filter(({ words }) => words === 'pulse')
  expect([sent[0]!.words, sent[sent.length - 1]!.words]).toEqual(['start', 'stop'])
  expect(pulses.length).toBe(24 + 5) // one beat, and what is sent ahead
  pulses.forEach(({ atMs }, i) => expect(atMs).toBeCloseTo(10 + (i * 500) / 24, 3))
  sent.length = 0
  Object.assign(mockPlayer, { frame: 0, beat: 2.1 })
  jest.advanceTimersByTime(25)
  expect(sent.map(({ words }) => words).slice(0, 2)).toEqual(['at 2.25', 'continue'])
  stop()
  expect(sent[sent.length - 1]!.words).toBe('stop')
  jest.useRealTimers()
})
