import fc from 'fast-check'
import { render } from '@testing-library/react'

import { Rim, rimPath, rimShare, rimTeeth } from './Rim'
import type { RimLook } from './Rim'

/** A hit that rings so long at such a frequency. */
const aHit = (decaySeconds: number, centreHz: number, clipSeconds = 2): RimLook => {
  const high = Float32Array.from({ length: 40 }, (_, i) => Math.exp((-3.5 * i * clipSeconds) / (40 * Math.max(1e-3, decaySeconds))))
  return { low: high.map((value) => -value), high, clipSeconds, decaySeconds, centreHz }
}
/** The points of a path, as radius and angle clockwise from the top. */
const pointsOf = (path: string) =>
  [...path.matchAll(/(-?[\d.]+) (-?[\d.]+)(?= *[LAZ]|$)/g)].map(([, x, y]) => ({ radius: Math.hypot(+x!, +y!), angle: (Math.atan2(+x!, -y!) + 2 * Math.PI) % (2 * Math.PI) })) // prettier-ignore

test('whatever the hit: its rim stays on the face, outside the star, and begins at the top', () => {
  const seconds = fc.double({ min: 0, max: 60, noNaN: true })
  fc.assert(
    fc.property(seconds, seconds, fc.double({ min: 0, max: 24000, noNaN: true }), (decay, clip, hz) => {
      const path = rimPath(aHit(decay, hz, clip), 50)
      expect(path).not.toMatch(/NaN|Infinity/)
      const points = pointsOf(path)
      for (const { radius } of points) {
        expect(radius).toBeGreaterThan(39)
        expect(radius).toBeLessThanOrEqual(50)
      }
      expect(Math.min(points[0]!.angle, 2 * Math.PI - points[0]!.angle)).toBeLessThan(0.01)
    }),
  )
})

test('the longer a hit, the further round it goes; the brighter, the more teeth', () => {
  const shares = [0.02, 0.1, 0.4, 1.6, 4, 20].map(rimShare)
  expect(shares).toEqual([...shares].sort((a, b) => a - b))
  expect([shares[0]! > 0, shares.at(-1)]).toEqual([true, 1])
  const furthest = (decay: number) => Math.max(...pointsOf(rimPath(aHit(decay, 100), 50)).slice(0, -2).map(({ angle }) => (angle > 6.2 ? 0 : angle))) // prettier-ignore
  expect(furthest(0.1)).toBeLessThan(furthest(0.8))
  const teeth = [60, 350, 1000, 4000, 9000].map(rimTeeth)
  expect(teeth.slice(0, 2)).toEqual([0, 0])
  expect(teeth.slice(1)).toEqual([...teeth.slice(1)].sort((a, b) => a - b))
})

test('a kick, a hat and a bell are three forms', () => {
  const paths = [aHit(0.25, 70), aHit(0.07, 9000), aHit(2, 1400)].map((look) => {
    const { container } = render(<Rim look={look} size={60} colour="red" />)
    return container.querySelector('path')!.getAttribute('d')!
  })
  /** How often the outline turns from out to in. */
  const turns = paths.map((path) => {
    const radii = pointsOf(path).map(({ radius }) => radius)
    return radii.filter((radius, i) => i > 0 && i < radii.length - 1 && radius > radii[i - 1]! + 0.3 && radius > radii[i + 1]! + 0.3).length // prettier-ignore
  })
  expect(turns[0]).toBeLessThan(3)
  expect(turns[1]).toBeGreaterThan(5)
  expect(turns[2]).toBeGreaterThan(turns[1]!)
  expect(new Set(paths).size).toBe(3)
})
