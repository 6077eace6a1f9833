import fc from 'fast-check'

import { hashOf, testIds } from '../kit/builders'
import type { Clip, RayId } from '../kit'
import { wholeClip } from '../kit/make'
import { asLoud } from './as-loud'

const rayId = 'ray-1' as RayId
const takeOf = (loudnessDb: number, i: number) => ({ clip: { ...wholeClip(hashOf('a'), { frames: 1000, channels: 1 }), startFrame: i }, loudnessDb }) // prettier-ignore

/** By band, the takes that lie in it, and how loud each clip is before velocity lowers it. */
function laidOut(levels: readonly number[]) {
  const { bands, response, velocities } = asLoud(testIds(), rayId, levels.map(takeOf))
  const cells = bands.flatMap(({ turns }, band) => turns.map(({ clips }) => ({ band, clip: clips[rayId] as Clip })))
  return { bands, response, velocities, cells: new Map(cells.map(({ band, clip }) => [clip.startFrame, { band, gainDb: clip.gainDb }])) }
}

test('each velocity lies in the band of its take and plays any take of that band as loud as its own was', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: -48, max: 0, noNaN: true }), { minLength: 1, maxLength: 60 }), fc.nat(3), (drawn, repeats) => {
      const levels = [...drawn, ...Array.from({ length: repeats }, () => drawn[0])]
      const { bands, response, velocities, cells } = laidOut(levels)
      const edges = [...bands.map(({ fromVelocity }) => fromVelocity), 128]
      expect(edges[0]).toBe(1)
      expect(edges.every((edge, i) => i === 0 || edge > edges[i - 1])).toBe(true)
      levels.forEach((level, i) => {
        const { band } = cells.get(i)!
        expect(velocities[i]).toBeGreaterThanOrEqual(edges[band])
        expect(velocities[i]).toBeLessThan(edges[band + 1])
        const lowered = response.amount * (velocities[i] / 127 - 1)
        const within = response.amount / 127 / (velocities[i] === 1 ? 1 : 2) + 1e-9
        for (const other of cells) if (other[1].band === band) expect(Math.abs(levels[other[0]] + other[1].gainDb + lowered - level)).toBeLessThan(within) // prettier-ignore
      })
    }),
  )
})

test('what is very soft beside the loudest stays as soft by its own take, within what sliders reach', () => {
  const levels = [-90, -3, -20]
  const { response, velocities, cells } = laidOut(levels)
  expect(response.amount).toBe(48)
  levels.forEach((level, i) => {
    const heard = level + cells.get(i)!.gainDb + response.amount * (velocities[i] / 127 - 1)
    expect(Math.abs(heard - level)).toBeLessThan(0.4)
  })
})

test('softer than all that was struck can still be struck, and takes of one level stay in one band at the full velocity', () => {
  const { bands, velocities } = laidOut([-20, -20, -20, -20])
  expect([bands.length, new Set(velocities)]).toEqual([1, new Set([127])])
  expect(Math.min(...laidOut([-44, -6, -30, -12, -43, -31]).velocities)).toBeGreaterThan(20)
  expect(Math.min(...laidOut([-48, -6, -30, -12, -47, -31]).velocities)).toBeGreaterThan(15) // as far as sliders reach
})

test('of more takes than a band holds each has its velocity', () => {
  const { velocities, bands } = laidOut(Array.from({ length: 300 }, (_, i) => -12 - (i % 2) / 10))
  expect(bands.reduce((sum, { turns }) => sum + turns.length, 0)).toBe(128)
  expect(velocities.filter((velocity) => velocity >= 126)).toHaveLength(300)
})
