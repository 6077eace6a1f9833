import fc from 'fast-check'

import { bandHz, hitSpectrogram, hitSpectrumDb } from '.'

const RATE = 48000
const COUNT = 96
const sine = (hz: number, level: number) => Float32Array.from({ length: 12000 }, (_, i) => level * Math.sin((2 * Math.PI * hz * i) / RATE))

test('a tone stands in its own band, as loud as it is, whatever it is', () => {
  fc.assert(
    fc.property(fc.double({ min: Math.log(40), max: Math.log(18000), noNaN: true }), fc.constantFrom(1, 0.5, 0.01), (log, level) => {
      const hz = Math.exp(log)
      const bands = hitSpectrumDb(sine(hz, level), RATE, COUNT)
      const best = bands.indexOf(Math.max(...bands))
      expect(Math.abs(1200 * Math.log2(bandHz(best, COUNT) / hz))).toBeLessThan(hz < 200 ? 400 : 130)
      expect(Math.abs(bands[best]! - 20 * Math.log10(level))).toBeLessThan(1.6) // it may fall between two bins
    }),
    { numRuns: 40 },
  )
})

test('silence is nothing, a short hit and a high rate are read as they are', () => {
  expect([...hitSpectrumDb(new Float32Array(0), RATE, 8)].every((db) => db === -Infinity)).toBe(true)
  const click = hitSpectrumDb(Float32Array.of(1), RATE, 24)
  expect(Math.max(...click) - Math.min(...click)).toBeLessThan(0.01) // a click holds all alike
  const fast = hitSpectrumDb(
    Float32Array.from({ length: 9000 }, (_, i) => Math.sin((2 * Math.PI * 1000 * i) / 96000)),
    96000,
    COUNT,
  )
  expect(Math.abs(1200 * Math.log2(bandHz(fast.indexOf(Math.max(...fast)), COUNT) / 1000))).toBeLessThan(130)
})

test('a picture of a falling tone shows it at its pitch at each moment, strongest where it is loudest', () => {
  const rate = 48000
  let phase = 0
  const hzAt = (seconds: number) => 80 * (1 + 5 * Math.exp(-seconds / 0.08))
  const mono = Float32Array.from({ length: rate / 2 }, (_, i) => {
    phase += (2 * Math.PI * hzAt(i / rate)) / rate
    return Math.sin(phase) * Math.exp(-i / rate / 0.2)
  })
  const view = { seconds: 0.4, columns: 40, rows: 96, lowHz: 40, highHz: 2560 }
  const picture = hitSpectrogram(mono, rate, view)
  for (let column = 6; column < 40; column += 3) {
    const heights = Array.from({ length: view.rows }, (_, row) => picture[row * view.columns + column]!)
    const strongest = heights.indexOf(Math.max(...heights))
    const hz = 40 * 64 ** ((95 - strongest) / 95)
    expect([column, Math.abs(12 * Math.log2(hz / hzAt(((column + 0.5) / 40) * 0.4))) < 2]).toEqual([column, true])
  }
  expect(Math.max(...picture)).toBe(255)
  expect(hitSpectrogram(new Float32Array(100), rate, view).some((value) => value > 0)).toBe(false)
})
