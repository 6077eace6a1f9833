import fc from 'fast-check'

import { centsTo, hzAt, levelOfTyped, levelText, levelUnits, secondsOf, sinkingsOf, sinkingWords, timeText, timeUnits, usefulHz } from '.'

const clock = { sampleRateHz: 44100, tempoBpm: 93 }

test('what is shown in any unit is taken back as what it was', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 20000 }), fc.constantFrom(...timeUnits), (tenths, unit) => {
      const seconds = tenths / 10000
      expect(Math.abs(secondsOf(Number(timeText(seconds, unit, clock)), unit, clock) - seconds)).toBeLessThan(0.0004)
    }),
  )
  for (const unit of levelUnits) for (const level of [1, 0.5, 0.01]) expect(levelOfTyped(Number(levelText(level, unit)), unit)).toBeCloseTo(level, 2)
  expect([levelText(0, 'dB'), levelOfTyped(-90, 'dB'), levelText(0, '%')]).toEqual(['-\u221e', 0, '0.0'])
  expect(timeText(0.5, 'beats', clock)).toBe('0.775')
  expect(hzAt(centsTo(55, 41.3), 41.3)).toBeCloseTo(55, 9)
}) // prettier-ignore

test('a hit that sinks while it is loud is warned of, and one that is over by then is not', () => {
  const levels = Float32Array.from({ length: 100 }, (_, i) => Math.exp(-i / 40))
  const hz = (seconds: number) => (seconds < 0.25 ? 50 : seconds < 0.5 ? 30 : 18)
  const found = sinkingsOf(levels, 1, hz)
  expect(found).toEqual([{ fromSeconds: 0.25, toSeconds: 1, lowestHz: 18 }])
  expect(sinkingWords(found)).toBe('Sinks to 18 Hz from 250 ms on, below hearing, while it is still loud.')
  expect(sinkingWords(sinkingsOf(levels.subarray(0, 40), 0.4, hz))).toMatch(/Sinks to 30 Hz from 250 ms on, hardly heard/)
  expect(
    sinkingsOf(
      Float32Array.from(levels, (level, i) => (i < 25 ? level : 0.001)),
      1,
      hz,
    ),
  ).toEqual([])
  expect(sinkingsOf(new Float32Array(10), 1, hz)).toEqual([])
  expect(sinkingWords([])).toBeUndefined()
  expect([usefulHz('kick'), usefulHz('hat')]).toEqual([[40, 60], undefined])
})
