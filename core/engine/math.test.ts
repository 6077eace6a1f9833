import fc from 'fast-check'

import { cos, dbToGain, exp2, gainToDb, log2, sin, tan, tanh } from './math'

const within = (min: number, max: number) => fc.double({ min, max, noNaN: true })

test('the own functions agree with the built-in ones to their stated error', () => {
  fc.assert(fc.property(within(-100, 100), (x) => Math.abs(exp2(x) / Math.pow(2, x) - 1) < 1e-13))
  fc.assert(fc.property(within(1e-300, 1e300), (x) => Math.abs(log2(x) - Math.log2(x)) < 1e-12))
  fc.assert(fc.property(within(-1000, 1000), (x) => Math.abs(sin(x) - Math.sin(x)) < 1e-11 && Math.abs(cos(x) - Math.cos(x)) < 1e-11))
  fc.assert(fc.property(within(0, 1.54), (x) => Math.abs(tan(x) / Math.tan(x) - 1) < 1e-12 || x === 0))
  fc.assert(fc.property(within(-30, 30), (x) => Math.abs(tanh(x) - Math.tanh(x)) < 1e-13))
})

test('decibels go there and back, and silence is silence', () => {
  fc.assert(fc.property(within(-120, 60), (db) => Math.abs(gainToDb(dbToGain(db)) - db) < 1e-9))
  expect(dbToGain(-Infinity)).toBe(0)
  expect(dbToGain(0)).toBe(1)
  expect(gainToDb(0)).toBe(-Infinity)
})
