import type { Slice } from '../kit/clip'
import type { BusId } from '../kit/ids'
import { amountsOf, withAmounts } from './amounts'
import { beatsWithin, MOST_SLICES, slicedAt, withBorder, withSlices } from './places'

const RATE = 44100
const SEND = { kind: 'send', busId: 'room' as BusId } as const
const slicesOf = (count: number): Slice[] => Array.from({ length: count }, (_, i) => ({ id: `s${i}`, frame: 100 * i, values: {} }))

test('slices begin with the clip, each frame once, at most so many; what was set stays, and a new one is as the one it is cut from', () => {
  let made = 0
  const makeId = () => `new${made++}`
  const clip = { startFrame: 1000, endFrame: 9000, slices: undefined }
  const first = slicedAt(clip, [500, 4000, 4000, 2000.4, 9000], makeId)
  expect(first.map(({ frame }) => frame)).toEqual([1000, 2000, 4000])
  const set = withAmounts(first, SEND, [undefined, -6, undefined])
  const again = slicedAt({ ...clip, slices: set }, [2000, 3000, 4000], makeId)
  expect(again.map(({ id }) => id)).toEqual(['new0', 'new1', 'new3', 'new2'])
  expect(amountsOf(again, SEND)).toEqual([undefined, -6, -6, undefined])
  const many = Array.from({ length: 900 }, (_, i) => 1001 + i)
  expect(slicedAt(clip, many, makeId)).toHaveLength(MOST_SLICES)
})

test('a border stays between its neighbours, and the first one where the clip begins', () => {
  const clip = { startFrame: 0, endFrame: 400 }
  const at = (place: number, frame: number) => withBorder(clip, slicesOf(4), place, frame, 10).map((slice) => slice.frame)
  expect(at(2, 150)).toEqual([0, 100, 150, 300])
  expect(at(2, 1000)).toEqual([0, 100, 290, 300])
  expect(at(2, -5)).toEqual([0, 100, 110, 300])
  expect(at(3, 1000)).toEqual([0, 100, 200, 390])
  expect(at(0, 50)).toEqual([0, 100, 200, 300])
})

test('a clip whose slices are all taken off has none', () => {
  const clip = { startFrame: 0, endFrame: 9, slices: slicesOf(1) } as never
  expect('slices' in withSlices(clip, [])).toBe(false)
  expect(withSlices(clip, slicesOf(2)).slices).toHaveLength(2)
})

test('beats stand in their steps from the start of a stretch on, rounded one by one, and have an end', () => {
  expect(beatsWithin({ startFrame: 100, endFrame: 100 + 2 * RATE }, RATE, 121, 1).map((frame) => frame - 100)).toEqual(
    [0, 1, 2, 3, 4].map((beat) => Math.round((beat * 60 * RATE) / 121)),
  )
  expect(beatsWithin({ startFrame: 0, endFrame: 100 * RATE }, RATE, 300, 0.25).length).toBe(512)
})
