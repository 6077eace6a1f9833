import { playedInTime } from '@heliaster/core/kit'

import { cutToBeginWith, rememberCut } from './last-cut'

const long = { frames: 48000 * 8, sampleRateHz: 48000 }
const hit = { frames: 48000, sampleRateHz: 48000 }
const usual = { waterLine: 0.3, findsLevel: true, minGapSeconds: 0.06 }

beforeEach(() => rememberCut(usual))

test('a first recording is cut where it divides, its strikes 60 ms apart', () => {
  expect(cutToBeginWith('Deck', long)).toEqual(usual)
})

test('the next one begins in the way chosen last, on a line of its own', () => {
  rememberCut({ waterLine: 0.8, minGapSeconds: 0.2, attack: 'slow', snap: 'up' })
  expect(cutToBeginWith('Deck', long)).toEqual({ ...usual, minGapSeconds: 0.2, attack: 'slow', snap: 'up' })
})

test('that someone kept a pulse is known of that recording alone', () => {
  rememberCut(playedInTime(usual, true))
  expect(cutToBeginWith('Deck', long)).toEqual(usual)
  rememberCut(playedInTime({ ...usual, minGapSeconds: 0.2 }, true))
  expect(cutToBeginWith('Deck', long)).toEqual({ ...usual, minGapSeconds: 0.2 })
})

test('a grid is taken over by what is long enough, with its own tempo where its file or its name says one', () => {
  rememberCut({ ...usual, grid: { kind: 'beats', tempoBpm: 93, firstSeconds: 1.5, beats: 0.5 } })
  const grid = (name: string, told = {}) => cutToBeginWith(name, long, told).grid
  expect(grid('Deck')).toMatchObject({ kind: 'beats', tempoBpm: 93, firstSeconds: 0, beats: 0.5 })
  expect(grid('Deck 120bpm')).toMatchObject({ tempoBpm: 120, beats: 0.5 })
  expect(grid('Deck 120bpm', { tempoBpm: 101 })).toMatchObject({ tempoBpm: 101 })
  expect(cutToBeginWith('Deck', hit).grid).toBeUndefined()
  const lasting = (seconds: number) => cutToBeginWith('Deck', { frames: 48000 * seconds, sampleRateHz: 48000 }).grid
  expect([lasting(1.99), lasting(2)].map((grid) => grid === undefined)).toEqual([true, false])
  rememberCut({ ...usual, grid: { kind: 'parts', count: 16 } })
  expect(grid('Deck 120bpm')).toEqual({ kind: 'parts', count: 16 })
})
