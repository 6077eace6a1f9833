import { repairsDb } from '@heliaster/core/engine'
import { repairsSchema } from '@heliaster/core/kit'
import type { Repairs } from '@heliaster/core/kit'
import fc from 'fast-check'

import { hasTone, movedTone, toggledTone, toneOf, tonePoint, TONES, toneWords } from './tone-points'
import type { Tone } from './tone-points'

const tones = fc.constantFrom(...TONES.map(({ key }) => key))
const merged = (...parts: readonly Partial<Repairs>[]): Repairs =>
  Object.fromEntries(Object.entries(Object.assign({}, ...parts) as Repairs).filter(([, value]) => value !== undefined))

test('whatever is begun, moved and ended, the repairs are ones that a clip may have, and what was ended leaves no trace', () => {
  const act = fc.record({ tone: tones, kind: fc.nat(2), cents: fc.integer({ min: -9000, max: 9000 }), db: fc.integer({ min: -60, max: 60 }), loudest: fc.option(fc.integer({ min: 1, max: 30000 })) }) // prettier-ignore
  fc.assert(
    fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
      let now: Repairs = {}
      for (const { tone, kind, cents, db, loudest } of acts) {
        if (kind === 0) now = merged(now, toggledTone(now, tone, loudest ?? undefined))
        else if (hasTone(now, tone)) now = merged(now, movedTone(tone, toneOf(now, tone), cents, db))
        expect(repairsSchema.safeParse(now).success).toBe(true)
      }
      for (const { key } of TONES) if (hasTone(now, key)) now = merged(now, toggledTone(now, key, undefined))
      expect(now).toEqual({})
    }),
  )
})

test('a point stands where the sound is changed by as much as it says', () => {
  const at: [Tone, Partial<Repairs>][] = [
    ['lowCut', { lowCutHz: 90 }],
    ['lowShelf', { lowShelfDb: -12, lowShelfHz: 180 }],
    ['bell', { bellDb: 9, bellHz: 1200, bellOctaves: 0.6 }],
    ['highShelf', { shelfDb: 8, shelfHz: 3000 }],
  ]
  for (const [tone, repairs] of at) {
    const { hz, db } = tonePoint(tone, toneOf(repairs, tone))
    expect([tone, repairsDb(repairs, hz, 96000)]).toEqual([tone, expect.closeTo(db, 1)])
  }
  expect(toneWords('notch', toneOf({ notchHz: 1500 }, 'notch'))).toBe('1.50 kHz, 0.20 octaves wide')
  expect(toneWords('lowCut', toneOf({ lowCutHz: 90 }, 'lowCut'))).toBe('below 90 Hz')
  expect(toneWords('bell', toneOf({ bellDb: 9 }, 'bell'))).toBe('800 Hz, 9.0 dB')
})
