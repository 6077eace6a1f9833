import { aPerformance } from '../../../testing/a-performance'
import { edgeNear, layStrings, spanOf, strikeNear, strikesWithin, STRING_PX, timesOf } from './strings-layout'
import { edgeAt } from './use-strings-drag'

const performance = aPerformance([
  ['pad-keel', 4800, 100],
  ['pad-oar', 28_800, 20],
  ['pad-keel', 52_800, 127],
])
const layout = layStrings(performance, 544, { from: 0, to: 60_000 }) // 500 px for 60,000 frames

test('time goes to the right and strength upwards, each pad has a string in the order in which it was struck', () => {
  expect(layout.padIds).toEqual(['pad-keel', 'pad-oar'])
  expect([layout.xOf(0), layout.xOf(60_000), layout.frameAt(layout.xOf(12_345))]).toEqual([22, 522, 12_345])
  const [soft, hard] = [1, 127].map((velocity) => layout.yOf({ padId: 'pad-oar' as never, velocity }))
  expect(hard).toBeLessThan(soft)
  expect(hard).toBeGreaterThan(STRING_PX)
  expect(soft).toBeLessThan(2 * STRING_PX)
})

test('a finger takes the strike that is nearest, and none that is far', () => {
  const [first, second] = performance.events
  if (first.type !== 'strike' || second.type !== 'strike') throw new Error('These are strikes.')
  expect(strikeNear(performance, layout, layout.xOf(first.frame) + 9, layout.yOf(first) - 9)?.id).toBe(first.id)
  expect(strikeNear(performance, layout, layout.xOf(second.frame), layout.yOf(second))?.id).toBe(second.id)
  expect(strikeNear(performance, layout, layout.xOf(16_000), 20)).toBeUndefined()
})

test('a drag chooses the strikes of the strings and the time that it went over', () => {
  const ids = performance.events.map(({ id }) => id)
  expect(strikesWithin(performance, layout, { left: 0, top: 0, width: 544, height: STRING_PX - 1 })).toEqual([ids[0], ids[2]])
  expect(strikesWithin(performance, layout, { left: 0, top: 10, width: 300, height: 90 })).toEqual([ids[0], ids[1]])
})

test('edges are taken at their feet alone, and never pass each other', () => {
  const foot = layout.height - 30
  expect(edgeNear(performance, layout, layout.xOf(performance.fromFrame) + 8, foot)).toBe('from')
  expect(edgeNear(performance, layout, layout.xOf(performance.toFrame) - 8, foot)).toBe('to')
  expect(edgeNear(performance, layout, layout.xOf(performance.fromFrame), 30)).toBeUndefined()
  expect(edgeAt(performance, 'from', 1e9)).toEqual({ fromFrame: performance.toFrame - 2400 })
  expect(edgeAt(performance, 'to', 0)).toEqual({ toFrame: performance.fromFrame + 2400 })
  expect(edgeAt(performance, 'from', -50)).toEqual({ fromFrame: 0 })
})

test('times are written as densely as there is room, counted from what is heard first', () => {
  expect(timesOf({ ...performance, fromFrame: 4800 }, layout).map((seconds) => seconds.toFixed(1))).toEqual(['0.0', '0.2', '0.4', '0.6', '0.8', '1.0']) // prettier-ignore
  const tenMinutes = layStrings(performance, 200, { from: 0, to: 48_000 * 600 })
  expect(timesOf({ ...performance, fromFrame: 0 }, tenMinutes)).toEqual([0, 300, 600])
  expect(spanOf(performance)).toEqual({ from: 4800, to: performance.toFrame })
})
