/** @jest-environment node */
import type { AudioHash, Kit, Pad } from '@heliaster/core/kit'
import fc from 'fast-check'

import { after, aKitOf, aPad } from '../../../testing/a-kit'
import { measureTuning, nearestOctave, octavesAway, tuneEdits } from './tune-to-notes'

/** The pitch that a file is heard at, Hz; others have none. */
let mockHz: Record<string, number>
jest.mock('../../../audio/files/audio-files', () => ({ decodedAudio: async (hash: string) => ({ audio: hash }) }))
jest.mock('../../../audio/workers/workers', () => ({ coreWork: () => ({ clipPitchHz: async (hash: string) => mockHz[hash[0]!] }) }))

const at = (file: string, ...notes: number[]): Pad => {
  const pad = aPad(1)
  const bands = pad.bands.map((band) => ({
    ...band,
    turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as object), audio: file.repeat(64) as AudioHash }])) })),
  })) // prettier-ignore
  return { ...pad, notes, bands } as Pad
}
const of = (...pads: Pad[]): Kit => ({ ...aKitOf(...pads), tuningA4Hz: 440 })
const cents = (wanted: readonly { readonly cents: number }[]) => wanted.map((one) => one.cents)
const wanted = (...all: number[]) => all.map((one) => ({ pad: at('a', 60), cents: one }))

test('each pad needs what lies between its note and the pitch it was recorded at', async () => {
  mockHz = { a: 440, b: 220 * 2 ** (0.5 / 12) }
  const kit = of(at('a', 69), at('a', 72), at('b', 57, 80))
  const tuning = await measureTuning(kit, kit.pads)
  expect(cents(tuning.wanted)).toEqual([0, 300, -50])
  expect(tuning.words).toBe('')
  const lower = await measureTuning({ ...kit, tuningA4Hz: 432 }, kit.pads.slice(0, 1))
  expect(cents(lower.wanted)).toEqual([-32])
})

test('a noise on neighbouring notes makes a row from its lowest; what has no clip or no note stays, and is counted', async () => {
  mockHz = {}
  const kit = of(at('a', 62), at('a', 60), at('a', 65), at('b', 40), { ...aPad(0), notes: [50] }, at('a'))
  const tuning = await measureTuning(kit, kit.pads)
  expect(cents(tuning.wanted)).toEqual([200, 0, 500, 0])
  expect(tuning.words).toMatch(
    /^4 had no clear pitch: the lowest note of the same file, E2 at the lowest, .* 2 have no clip or no note and stay\.$/,
  )
})

test('how many octaves away the farthest pad is counts from beyond one', () => {
  expect([[], [300, -1200], [1300], [-1300], [1900, 100], [-4900, 300]].map((all) => octavesAway(wanted(...all)))).toEqual([
    0, 0, 1, -1, 2, -4,
  ])
})

test('in the octave they sound in a row stays a row, and none is moved by more than one', () => {
  expect(cents(nearestOctave(wanted(2400, 2500, 2700)))).toEqual([0, 100, 300])
  expect(cents(nearestOctave(wanted(0, 100, 6000)))).toEqual([0, 100, 0])
  expect(nearestOctave([])).toEqual([])
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -9000, max: 9000 }), { minLength: 1, maxLength: 12 }), (all) => {
      const near = cents(nearestOctave(wanted(...all)))
      near.forEach((one, i) => {
        expect(Math.abs(one)).toBeLessThanOrEqual(1200)
        expect(Math.abs((one - all[i]!) % 1200)).toBe(0)
      })
    }),
  )
})

test('pads are tuned in one step, and those beyond ten octaves stay and are counted', () => {
  const kit = of(at('a', 60), at('b', 62), at('c', 64))
  const [a, b, c] = kit.pads as [Pad, Pad, Pad]
  const { edits, words } = tuneEdits([{ pad: a, cents: 12_000 }, { pad: b, cents: -12_001 }, { pad: c, cents: -40 }]) // prettier-ignore
  expect(after(kit, edits).pads.map((pad) => pad.own.values?.tuneCents)).toEqual([12_000, undefined, -40])
  expect(words).toBe('2 pads are tuned to their notes. 1 would have to be tuned further than ten octaves and stay.')
  expect(tuneEdits([{ pad: a, cents: 5 }]).words).toBe('1 pad is tuned to its note.')
})
