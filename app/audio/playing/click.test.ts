import { startClick } from './click'

test('a click on every beat in the engine’s time, made ahead, the first of four higher, none while nothing plays', () => {
  jest.useFakeTimers()
  const made: { at: number; hz: number }[] = []
  const engine = { beat: -1, seconds: 5 }
  const context = {
    get currentTime() {
      return engine.seconds
    },
    createOscillator: () => {
      const tone = { frequency: { value: 0 }, connect: (to: unknown) => to, start: (at: number) => made.push({ at, hz: tone.frequency.value }), stop: () => undefined } // prettier-ignore
      return tone
    },
    createGain: () => ({ gain: { setValueAtTime: () => undefined, exponentialRampToValueAtTime: () => undefined }, connect: () => undefined }),
  }
  const player = { context, sampleRateHz: 48000, songBeat: () => engine.beat, frameNow: () => (engine.seconds - 2) * 48000, hostFrame: () => 2 * 48000 }
  const stop = startClick(player as never, () => 120)
  expect(made).toEqual([])
  engine.beat = 0
  const begun = engine.seconds
  for (let i = 0; i < 200; i++) {
    jest.advanceTimersByTime(25)
    engine.seconds += 0.025
    engine.beat = (engine.seconds - begun) * 2
  }
  made.forEach(({ at }, i) => expect(at).toBeCloseTo(begun + i / 2, 3))
  expect(made.length).toBeGreaterThanOrEqual(10)
  expect(new Set(made.map(({ hz }, i) => `${i % 4 === 0} ${hz}`)).size).toBe(2)
  stop()
  const count = made.length
  jest.advanceTimersByTime(1000)
  expect(made).toHaveLength(count)
  jest.useRealTimers()
}) // prettier-ignore
