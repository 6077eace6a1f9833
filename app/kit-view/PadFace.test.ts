import { asBands } from '@heliaster/core/place'

import { aPad } from '../testing/a-kit'
import { velocityAt } from './PadFace'

test('a strike nearer the star’s centre is softer, and each ring gives the velocities of its band', () => {
  const single = aPad(1)
  const layered = aPad(4, asBands)
  expect(velocityAt(single, 0)).toBeLessThan(velocityAt(single, 0.6))
  expect(velocityAt(single, 1)).toBe(127)
  expect(velocityAt(layered, 1)).toBe(127)
  for (let share = 0, last = 0; share <= 1; share += 0.02) {
    const velocity = velocityAt(layered, share)
    expect(velocity).toBeGreaterThanOrEqual(last)
    last = velocity
  }
})
