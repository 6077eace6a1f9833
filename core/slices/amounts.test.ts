import { seeded } from '../kit/builders'
import type { Slice } from '../kit/clip'
import type { BusId } from '../kit/ids'
import {
  amountsOf, atRandom, copied, drawnAlong, inSteps, movedSpan, onEvery, pasted, resizedSpan, setOn, spanOf, withAmounts,
} from './amounts' // prettier-ignore
import type { Amounts, SliceLane } from './amounts'

const ROOM = 'room' as BusId
const LANES: readonly SliceLane[] = [
  { kind: 'value', param: 'gainDb' },
  { kind: 'value', param: 'pan' },
  { kind: 'send', busId: ROOM },
  { kind: 'send', busId: 'hall' as BusId },
]
const slicesOf = (count: number): Slice[] => Array.from({ length: count }, (_, i) => ({ id: `s${i}`, frame: 100 * i, values: {} }))

const anyAmounts = (random: () => number, count: number): Amounts => Array.from({ length: count }, () => (random() < 0.3 ? undefined : Math.round(-40 * random()))) // prettier-ignore

test('lanes are kept apart: what is drawn on one is read from it again and touches no other; taken off, nothing is left', () => {
  const random = seeded(3)
  for (let round = 0; round < 200; round++) {
    const count = 1 + Math.floor(9 * random())
    const drawn = LANES.map(() => anyAmounts(random, count))
    const slices = LANES.reduce((so, lane, i) => withAmounts(so, lane, drawn[i]), slicesOf(count))
    LANES.forEach((lane, i) => expect(amountsOf(slices, lane)).toEqual(drawn[i]))
    const nothing = LANES.reduce(
      (so, lane) =>
        withAmounts(
          so,
          lane,
          so.map(() => undefined),
        ),
      slices,
    )
    expect(nothing).toEqual(slicesOf(count))
  }
})

test('what is not changed stays the same object', () => {
  const slices = withAmounts(slicesOf(4), LANES[0], [1, 2, undefined, 4])
  const again = withAmounts(slices, LANES[0], [1, 3, undefined, 4])
  expect(again.map((slice, i) => slice === slices[i])).toEqual([true, false, true, true])
})

test('a stretch moved there and back is where it was, when nothing lay under it; one that is moved off the end stops there', () => {
  const random = seeded(5)
  for (let round = 0; round < 200; round++) {
    const count = 4 + Math.floor(12 * random())
    const span = spanOf(Math.floor(count * random()), Math.floor(count * random()))
    const piece = Array.from({ length: span.last - span.first + 1 }, (_, i) => i + 1)
    const alone = pasted(Array<undefined>(count).fill(undefined), span.first, piece)
    const by = Math.floor(40 * random()) - 20
    const there = movedSpan(alone, span, by)
    expect(copied(there.amounts, there.span)).toEqual(piece)
    expect(there.span.first).toBe(Math.min(count - piece.length, Math.max(0, span.first + by)))
    expect(there.amounts.filter((amount) => amount !== undefined)).toHaveLength(piece.length)
    expect(movedSpan(there.amounts, there.span, span.first - there.span.first).amounts).toEqual(alone)
  }
})

test('a stretch drawn over twice as many slices has each amount twice, and back again each once', () => {
  const amounts: Amounts = [undefined, 1, 2, 3, undefined, undefined, undefined, 9]
  const wide = resizedSpan(amounts, { first: 1, last: 3 }, { first: 1, last: 6 })
  expect(wide).toEqual([undefined, 1, 1, 2, 2, 3, 3, 9])
  expect(resizedSpan(wide, { first: 1, last: 6 }, { first: 1, last: 3 })).toEqual(amounts)
})

test('drawing goes through all that lies between, in either direction; alike ones are set together', () => {
  const none: Amounts = Array<undefined>(6).fill(undefined)
  expect(drawnAlong(none, { place: 4, amount: -8 }, { place: 1, amount: -2 })).toEqual([undefined, -2, -4, -6, -8, undefined])
  expect(drawnAlong(none, { place: 2, amount: 5 }, { place: 2, amount: 7 })).toEqual([undefined, undefined, 7, undefined, undefined, undefined]) // prettier-ignore
  expect(setOn(none, [0, 3], -12)).toEqual([-12, undefined, undefined, -12, undefined, undefined])
})

test('by chance amounts lie on steps between their bounds and reach both; stairs and every second are as said', () => {
  const none: Amounts = Array<undefined>(400).fill(undefined)
  const drawn = atRandom(none, { first: 10, last: 389 }, { least: -24, most: 0, step: 6 }, seeded(11)) as number[]
  const inside = drawn.slice(10, 390)
  expect(new Set(inside)).toEqual(new Set([-24, -18, -12, -6, 0]))
  expect([drawn[9], drawn[390]]).toEqual([undefined, undefined])
  expect(inSteps(none.slice(0, 5), { first: 1, last: 4 }, -12, 0)).toEqual([undefined, -12, -8, -4, 0])
  expect(onEvery(none.slice(0, 5), { first: 1, last: 4 }, 2, 0, -60)).toEqual([undefined, 0, -60, 0, -60])
})
