import fc from 'fast-check'

import { focused, frameAt, gainFor, gainToFill, nextHeight, panned, taller, wholeView, xOf, zoomed } from './view'
import type { View } from './view'

const FRAMES = 48000
const views = fc
  .tuple(fc.integer({ min: 0, max: FRAMES - 64 }), fc.integer({ min: 64, max: FRAMES }), fc.double({ min: 1, max: 100, noNaN: true }))
  .map(([start, length, gain]): View => ({ start: Math.min(start, FRAMES - length), end: Math.min(start, FRAMES - length) + length, gain }))
const lengthOf = ({ start, end }: View) => end - start
const isWithin = ({ start, end }: View) => start >= 0 && end <= FRAMES + 1e-6

test('wherever one pans, zooms or looks, what is seen lies within the recording and is never less than can be seen', () => {
  fc.assert(
    fc.property(views, fc.double({ min: 0.01, max: 100, noNaN: true }), fc.nat(FRAMES), fc.integer({ min: -9e4, max: 9e4 }), (view, factor, at, by) => {
      for (const next of [zoomed(view, factor, at, FRAMES), panned(view, by, FRAMES), focused(view, at, at + 500, FRAMES)]) {
        expect(isWithin(next)).toBe(true)
        expect(lengthOf(next)).toBeGreaterThanOrEqual(64 - 1e-6)
      }
      expect(lengthOf(panned(view, by, FRAMES))).toBeCloseTo(lengthOf(view), 6)
    }),
  ) // prettier-ignore
})

test('the place one zooms at stays where it is, as far as the recording goes', () => {
  fc.assert(
    fc.property(views, fc.double({ min: 0.3, max: 3, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (view, factor, share) => {
      const at = frameAt(view, share * 400, 400)
      const next = zoomed(view, factor, at, FRAMES)
      if (next.start > 0 && next.end < FRAMES) expect(xOf(next, at, 400)).toBeCloseTo(share * 400, 6)
    }),
  )
})

test('a place on the screen and its frame are each other’s way back', () => {
  fc.assert(
    fc.property(views, fc.double({ min: 0, max: 400, noNaN: true }), (view, x) => expect(xOf(view, frameAt(view, x, 400), 400)).toBeCloseTo(x, 6)),
  ) // prettier-ignore
})

test('a stretch is seen whole, with room on both sides', () => {
  const next = focused({ start: 0, end: 100, gain: 3 }, 20_000, 24_000, FRAMES)
  expect(next).toEqual({ start: 18_800, end: 25_200, gain: 3 })
  expect(focused(next, 100, 200, FRAMES).start).toBe(0)
})

test('a quiet recording fills the height; a silent one is raised no further than is of use, and a loud one is left', () => {
  expect(gainToFill(Float32Array.of(-0.1, 0), Float32Array.of(0, 0.05))).toBeCloseTo(9.2, 5)
  expect(gainToFill(Float32Array.of(-0.02, 0), Float32Array.of(0, 0.23))).toBeCloseTo(4, 5)
  expect(gainToFill(Float32Array.of(0), Float32Array.of(0))).toBeCloseTo(1000, 3)
  expect(gainToFill(Float32Array.of(-2), Float32Array.of(1))).toBe(1)
  const level = (high: number) => ({ framesPerPoint: 1, low: Float32Array.of(0), high: Float32Array.of(high) })
  expect(gainFor({ frames: 1, levels: [level(1), level(0.46)] })).toBeCloseTo(2, 5)
  expect(gainFor({ frames: 1, levels: [level(0.001)] })).toBe(64)
})

test('the height goes round: automatic, as recorded, twice as tall each time, automatic again', () => {
  const round: (number | 'auto')[] = []
  let view: View = { ...wholeView(FRAMES), isAuto: true, gain: 5 }
  for (let i = 0; i < 8; i++) {
    round.push(view.isAuto ? 'auto' : view.gain)
    view = nextHeight(view)
  }
  expect(round).toEqual(['auto', 1, 2, 4, 8, 16, 32, 'auto'])
  expect(nextHeight({ ...wholeView(FRAMES), gain: 5 }).gain).toBe(8)
})

test('drawn taller by hand the wave is automatic no more, and stays between once and a thousand times', () => {
  const auto: View = { ...wholeView(FRAMES), isAuto: true, gain: 5 }
  expect(taller(auto, 2)).toMatchObject({ isAuto: false, gain: 10 })
  expect(taller(auto, 0.01).gain).toBe(1)
  expect(taller(auto, 1e6).gain).toBe(1000)
})
