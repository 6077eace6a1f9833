import type { Audio } from '@heliaster/core/audio'
import type { PadId } from '@heliaster/core/kit'

import { sound } from '../engine/sound'
import { FILM, hearing, hearResounded, runFilm, stopHearing } from './hear'

jest.mock('../engine/sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sound: createStore(() => ({})) }
})

const letSleep = jest.fn()
const made: { start: jest.Mock; stop: jest.Mock; disconnect: jest.Mock; onended: (() => void) | null; loop?: boolean; loopEnd?: number; buffer?: { length: number } }[] = [] // prettier-ignore
const context = {
  currentTime: 10,
  destination: {},
  createBuffer: (_channels: number, length: number) => ({ length, copyToChannel: jest.fn() }),
  createBufferSource: () => {
    const source = { start: jest.fn(), stop: jest.fn(), connect: jest.fn(), disconnect: jest.fn(), onended: null }
    made.push(source)
    return source
  },
}
const player = {
  context,
  sampleRateHz: 48_000,
  hostFrame: () => 1000,
  sleep: { hold: () => letSleep },
  resume: jest.fn(async () => undefined),
}
const audio = { sampleRateHz: 48_000, channels: [new Float32Array(96_000), new Float32Array(96_000)] } as unknown as Audio
const fell = [
  { frame: 0, padId: 'oar' as PadId, band: 0, turn: 0 },
  { frame: 48_000, padId: 'bell' as PadId, band: 0, turn: 0 },
]
let pictures: (() => void)[]
/** Lets the context's clock go on, and a picture be drawn. */
function at(seconds: number) {
  context.currentTime = 10 + seconds
  pictures.splice(0).forEach((draw) => draw())
  return hearing.getState()
}

beforeEach(() => {
  jest.clearAllMocks()
  made.length = 0
  pictures = []
  jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((draw) => pictures.push(draw as () => void))
  jest.spyOn(globalThis, 'cancelAnimationFrame').mockImplementation(() => void pictures.splice(0))
  context.currentTime = 10
  sound.setState({ player: player as never }, true)
})
afterEach(() => {
  stopHearing()
  jest.restoreAllMocks()
})

test('what was played is heard from its beginning, and tells where it is and which pads were just struck', () => {
  hearResounded('take', { audio, fell })
  expect(made[0]!.start).toHaveBeenCalledWith(0, 0)
  expect(player.resume).toHaveBeenCalled()
  expect(hearing.getState()).toEqual({ name: 'take', seconds: 0, lit: ['oar'] })
  expect(at(0.11)).toMatchObject({ seconds: expect.closeTo(0.11, 9) as number, lit: ['oar'] })
  expect(at(0.13).lit).toEqual([])
  expect(at(0.99).lit).toEqual([])
  const lit = at(1.0).lit
  expect(lit).toEqual(['bell'])
  expect(at(1.05).lit).toBe(lit) // the very same while nothing changed
})

test('from a second on, and round from there', () => {
  hearResounded('take', { audio, fell }, { fromSeconds: 0.9, loopSeconds: 1.5 })
  expect(made[0]).toMatchObject({ loop: true, loopEnd: 1.5 })
  expect(made[0]!.start).toHaveBeenCalledWith(0, 0.9)
  expect(at(0.11)).toMatchObject({ seconds: expect.closeTo(1.01, 9) as number, lit: ['bell'] })
  expect(at(0.65)).toMatchObject({ seconds: expect.closeTo(0.05, 9) as number, lit: ['oar'] })
  stopHearing()
  context.currentTime = 10
  hearResounded('take', { audio, fell }, { fromSeconds: 1.4 })
  expect([made[1]!.loop, at(0.3).seconds]).toEqual([undefined, expect.closeTo(1.7, 9)])
})

test('it ends by itself or is stopped; the engine may sleep again, and another takes its place', () => {
  hearResounded('one', { audio, fell })
  hearResounded('two', { audio, fell })
  expect([made[0]!.stop, made[0]!.disconnect, letSleep].map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1])
  expect(hearing.getState().name).toBe('two')
  made[1]!.onended!()
  expect(hearing.getState()).toEqual({ seconds: 0, lit: [] })
  expect([letSleep.mock.calls.length, pictures.length, made[1]!.onended]).toEqual([2, 0, null])
  stopHearing()
  expect(letSleep).toHaveBeenCalledTimes(2)
})

test('without an engine, or without a sound, nothing is heard', () => {
  hearResounded('take', { audio: { ...audio, channels: [new Float32Array(0)] } as Audio, fell })
  sound.setState({}, true)
  hearResounded('take', { audio, fell })
  expect([made.length, hearing.getState().name, runFilm(0, undefined)]).toEqual([0, undefined, undefined])
})

test('a film’s clock begins a moment later than asked, and says at which frame of the engine that is', () => {
  expect(runFilm(4, undefined)).toBe(Math.round(10.1 * 48_000) - 1000)
  expect([made.length, hearing.getState().name]).toEqual([0, FILM])
  expect(at(0.05).seconds).toBe(4)
  expect(at(1.1).seconds).toBeCloseTo(5, 9)
  stopHearing()
  expect(hearing.getState().name).toBeUndefined()
})

test.each([[3, 2.5, 10.1, 0.5], [3, 3, 10.1, 0], [1, 3, 12.1, 0]] as const)(
  'run from second %s of a film, what lies against its second %s begins at %s of the clock, %s s into it',
  (from, filmSeconds, startsAt, within) => {
    runFilm(from, { audio, filmSeconds } as never)
    expect(made[0]!.start).toHaveBeenCalledWith(expect.closeTo(startsAt, 9), within)
  },
) // prettier-ignore

test('what lies against a film and is over there already never begins, and can be stopped all the same', () => {
  runFilm(6, { audio, filmSeconds: 3 } as never)
  expect(made[0]!.start).not.toHaveBeenCalled()
  made[0]!.stop.mockImplementation(() => {
    throw new Error('It never began.')
  })
  stopHearing()
  expect([made[0]!.disconnect.mock.calls.length, letSleep.mock.calls.length]).toEqual([1, 1])
})
