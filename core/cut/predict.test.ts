import { seeded } from '../kit/builders'
import { surprises } from './predict'

test('what rings on is foretold, what comes anew is not', () => {
  const random = seeded(3)
  const rings = [310, 1270, 4011].map((hz) => ({ turn: (2 * Math.PI * hz) / 48000, level: 0.2 + random(), phase: 6 * random() }))
  const samples = Float32Array.from({ length: 1600 }, (_, i) =>
    rings.reduce((sum, { turn, level, phase }) => sum + level * Math.exp(-i / 2000) * Math.sin(turn * i + phase), 1e-5 * (random() - 0.5)),
  )
  const calm = surprises(samples, 0, 1000, 1600, 24)
  expect(Math.max(...calm.slice(24).map(Math.abs))).toBeLessThan(0.002)
  samples[1300] += 0.02 // fifty times under what rings
  const struck = surprises(samples, 0, 1000, 1600, 24)
  expect(struck.findIndex((one) => Math.abs(one) > 0.01)).toBe(1300)
  expect(surprises(samples, 40, 44, 60, 24)).toHaveLength(20)
  expect([...surprises(new Float32Array(100), 0, 60, 100, 24)].every((one) => one === 0)).toBe(true)
})
