import { bandHz } from '@heliaster/core/cut'

import { inBands } from './mix-spectrum'

jest.mock('./sound', () => ({ sound: {} }))

test('each band has the loudest of its bins, and a low band narrower than a bin the nearest', () => {
  const binHz = 48000 / 8192
  const bins = new Float32Array(4096).fill(-100)
  bins[Math.round(1000 / binHz)] = -12
  bins[Math.round(40 / binHz)] = -30
  const bands = inBands(bins, binHz)
  const at = (hz: number) => bands.findIndex((_, band) => bandHz(band + 0.5, bands.length) > hz)
  expect(bands[at(1000)]).toBe(-12)
  expect(bands[at(40)]).toBe(-30)
  expect(bands.filter((db) => db > -100).length).toBeLessThan(8)
  expect(inBands(new Float32Array(4096).fill(-200), binHz).every((db) => db === -110)).toBe(true)
})
