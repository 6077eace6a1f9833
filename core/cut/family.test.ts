import fc from 'fast-check'

import { broadFamily, families, familiesAmong, familyWords, isOfFamily, kindsOfFamily } from '../kit'
import type { Family } from '../kit'
import { familyInName, familyOf, familyTyped } from '.'

const RATE = 48000
const anyFamily = fc.constantFrom(...families)

/** Noise and sines that fall, as plain as can be: `tones` and `noise` above `fromHz` (a first difference), both with one decay. */
function struck(seconds: number, decay: number, tones: readonly (readonly [hz: number, level: number])[], noise: number, brighter = 0) {
  let state = 1
  const white = () => ((state = (state * 48271) % 2147483647) / 2147483647) * 2 - 1
  let hiss = Float32Array.from({ length: seconds * RATE }, white)
  for (let pass = 0; pass < brighter; pass++) hiss = hiss.map((value, i) => (value - (hiss[i - 1] ?? 0)) / 2)
  return {
    sampleRateHz: RATE,
    channels: [
      hiss.map((value, i) => {
        const tone = tones.reduce((sum, [hz, level]) => sum + level * Math.sin((2 * Math.PI * hz * i) / RATE), 0)
        return 0.8 * Math.exp((-3.45 * i) / RATE / decay) * (tone + noise * value)
      }),
    ],
  }
}

test('plain cases of each kind that a guess tells apart', () => {
  const guess = (...of: Parameters<typeof struck>) => familyOf(struck(...of))
  expect(guess(0.5, 0.15, [[50, 1]], 0)).toBe('kick')
  expect([75, 110, 180].map((hz) => guess(1, 0.5, [[hz, 1]], 0))).toEqual(['lowTom', 'midTom', 'highTom'])
  expect(guess(0.6, 0.2, [[190, 0.5]], 0.6)).toBe('snare')
  expect(guess(0.4, 0.06, [], 0.7, 3)).toBe('closedHat')
  expect(guess(1, 0.5, [], 0.7, 3)).toBe('openHat')
  expect(guess(2.5, 2, [], 0.7, 3)).toBe('cymbal')
  expect(guess(2, 1, [[900, 0.6], [1730, 0.3]], 0)).toBe('bell') // prettier-ignore
  expect(guess(0.3, 0.05, [[900, 0.9]], 0)).toBe('wood')
  expect(familyOf({ sampleRateHz: RATE, channels: [new Float32Array(RATE)] })).toBe('other')
})

test('what a file is called counts before how it sounds; parts of longer words do not', () => {
  const bright = struck(0.4, 0.06, [], 0.7, 3)
  const named: Record<string, Family> = {
    'Barrel floor tom 03.wav': 'lowTom',
    'HiHat_Open-2.aiff': 'openHat',
    'hh cl soft.wav': 'closedHat',
    '04 Ride.wav': 'ride',
    'rideBell_v3.wav': 'bell',
    'Bass Drum.wav': 'kick',
    'hatch that chest.wav': 'closedHat',
    'kickstand.wav': 'closedHat',
    'strawberry crashed.wav': 'closedHat',
  }
  for (const [name, family] of Object.entries(named)) expect([name, familyOf(bright, name)]).toEqual([name, family])
  expect(familyInName('hatch that chest.wav')).toBeUndefined()
})

test('any kind is found by its own words, is among its family, and its family is one', () => {
  fc.assert(
    fc.property(anyFamily, fc.array(anyFamily), (family, list) => {
      expect(familyTyped(familyWords(family), families)).toBe(family)
      expect(isOfFamily(family, broadFamily(family))).toBe(true)
      expect(broadFamily(broadFamily(family))).toBe(broadFamily(family))
      expect(kindsOfFamily(family).every((kind) => broadFamily(kind) === family)).toBe(true)
      const there = familiesAmong([family, ...list])
      expect(there).toContain(family)
      for (const one of there) expect([family, ...list].some((kind) => isOfFamily(kind, one))).toBe(true)
    }),
  )
})
