import { withOwnTiming } from '@heliaster/core/groove'

import { aGroovyKit } from '../../../testing/a-groove'
import { beadsWithin, beadX, beadY, layStrings, lineY, placeAtPoint, ROW_PX, rowsIn, rowTop, stepX } from './strings-layout'

const kit = aGroovyKit()
const [groove] = kit.grooves
const padIds = kit.pads.map(({ id }) => id)
const layout = layStrings({ ...groove, swing: 0.6 }, padIds, 80)

test('a point means the string that it lies on, the step that is nearest as it swings, and the bead that is there', () => {
  for (let step = 0; step < 16; step++) {
    const place = placeAtPoint(layout, stepX(layout, {}, step) + 3, rowTop(2) + 10)
    expect(place).toEqual({ padId: padIds[2], row: 2, step })
  }
  expect(placeAtPoint(layout, stepX(layout, {}, 4) - 5, rowTop(0) + 30)?.bead?.step).toBe(4)
  expect(placeAtPoint(layout, stepX(layout, {}, 6), rowTop(0) + 30)?.bead).toBeUndefined()
  expect(placeAtPoint(layout, 40, 5)).toBeUndefined() // the ruler
  expect(placeAtPoint(layout, 40, rowTop(3) + 4)).toBeUndefined() // under the last string
  expect(placeAtPoint(layout, stepX(layout, {}, 15) + 60, rowTop(2) + 4)).toBeUndefined() // behind its end
})

test('a bead that stands off its step is found where it stands', () => {
  const [string] = groove.strings
  const off = { ...groove, strings: [{ ...string, beads: [{ ...string.beads[1], offset: 0.45 }] }] }
  const own = layStrings(off, padIds, 160)
  const x = beadX(own, off.strings[0], off.strings[0].beads[0])
  expect(placeAtPoint(own, x + 2, rowTop(0) + 4)?.bead?.id).toBe(string.beads[1].id)
})

test('a bead that is early on the first step is seen whole, and found there', () => {
  const [string] = groove.strings
  const early = { ...groove, strings: [{ ...string, beads: [{ ...string.beads[0], step: 0, offset: -0.5, velocity: 127 }] }] }
  const own = layStrings(early, padIds, 160)
  const x = beadX(own, early.strings[0], early.strings[0].beads[0])
  expect(x).toBeGreaterThanOrEqual(13) // as wide as its ring
  expect(x).toBeLessThan(stepX(own, string, 0))
  expect(placeAtPoint(own, x, rowTop(0) + 4)?.bead?.id).toBe(string.beads[0].id)
})

test('a string of its own division has steps of its own, and the strings are as long as the longest', () => {
  const own = withOwnTiming(groove, padIds[1], { lengthSteps: 15, stepsPerBeat: 3 })
  const laid = layStrings(own, padIds, 80)
  expect(laid.beats).toBe(5)
  const string = own.strings.find(({ padId }) => padId === padIds[1])!
  expect(placeAtPoint(laid, stepX(laid, string, 14), rowTop(1) + 4)?.step).toBe(14)
})

test('a box takes the beads of the strings and the time that it covers', () => {
  const box = { left: stepX(layout, {}, 3), top: rowTop(0) + 20, width: stepX(layout, {}, 9) - stepX(layout, {}, 3), height: ROW_PX }
  expect([...beadsWithin(layout, box)].sort()).toEqual(['pad-1.4', 'pad-1.8', 'pad-2.4'])
})

test('higher is harder, always within its row; only rows in sight are drawn', () => {
  for (const velocity of [1, 64, 127]) {
    expect(beadY(1, velocity)).toBeGreaterThan(rowTop(1))
    expect(beadY(1, velocity)).toBeLessThan(lineY(1))
  }
  expect(beadY(0, 127)).toBeLessThan(beadY(0, 1))
  expect(rowsIn({ padIds: Array.from({ length: 128 }, () => padIds[0]) }, { left: 0, top: 440, width: 300, height: 200 })).toEqual([9, 15])
})

test('as wide as its longest string and an end to either side, as high as its ruler and its rows', () => {
  const longer = layStrings(
    { ...groove, strings: groove.strings.map((string, i) => (i === 0 ? { ...string, lengthSteps: 48 } : string)) },
    padIds,
    50,
  )
  const [beats, ends] = [longer.beats, longer.width - 50 * longer.beats]
  expect(beats).toBeGreaterThan(layout.beats)
  expect(ends).toBe(2 * stepX(longer, {}, 0))
  expect(layout.width).toBe(80 * layout.beats + ends)
  expect(longer.height).toBe(rowTop(padIds.length))
})
