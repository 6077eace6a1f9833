import { createKit, createPad, wholeClip } from '@heliaster/core/kit'
import type { AudioHash, Kit, TieId } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { begins, ends } from './in-time'

let mockKit: Kit
const mockPlayer = { sampleRateHz: 48000, now: 0, beat: -1, silent: true }
jest.mock('../../engine/sound', () => ({
  kitNow: () => mockKit,
  sound: {
    getState: () => ({
      player: {
        sampleRateHz: 48000,
        frameNow: () => mockPlayer.now,
        grooveBeat: () => mockPlayer.beat,
        isSilent: () => mockPlayer.silent,
      },
    }),
  },
}))

const makeId = testIds(9)
const [rope, bell] = [createPad(makeId, {}, 36), createPad(makeId, {}, 37)]
const clip = wholeClip('d'.repeat(64) as AudioHash, { frames: 96000, channels: 1 })
const kitWith = (startsEveryBeats?: number): Kit => ({
  ...createKit(makeId, 'Rope'),
  tempoBpm: 120,
  pads: [rope, bell],
  ties: [
    { id: 'tie-p' as TieId, kind: 'parts', clip, parts: [{ id: 'a', pad: rope.id }], ...(startsEveryBeats ? { startsEveryBeats } : {}) },
  ],
})
const at = (now: number, beat = -1, silent = false) => Object.assign(mockPlayer, { now, beat, silent })

test('only where it is asked for; the first begins at once, the next in step with it, and is held as long as the hand held it', () => {
  mockKit = kitWith()
  at(1000)
  expect(begins(rope.id, 1)).toBeUndefined()
  mockKit = kitWith(1)
  expect(begins(bell.id, 1)).toBeUndefined()
  at(1000, -1, true)
  expect(begins(rope.id, 1)).toBeUndefined()
  at(11_000)
  expect(begins(rope.id, 2)).toBe(25_000)
  at(13_000)
  expect(ends(rope.id, 2)).toBe(27_000)
  at(30_000)
  expect(ends(rope.id, 2)).toBeUndefined()
})

test('where a groove plays it is its beat that counts; one that has fallen silent counts no more', () => {
  mockKit = kitWith(2)
  at(500_000, 2.5)
  expect(begins(rope.id, 1)).toBe(500_000 + 36_000)
  at(900_000, -1, true)
  expect(begins(rope.id, 1)).toBeUndefined()
})
