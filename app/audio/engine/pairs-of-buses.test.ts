import { MAX_BUSES } from '@heliaster/core/engine'
import type { BusId } from '@heliaster/core/kit'

import { pairsOfBuses } from './pairs-of-buses'

const [drums, room] = ['drums', 'room'] as BusId[]

test('pairs are told by slots, once a bus has one, and only where they changed', () => {
  const slots = new Map<BusId, number>()
  const told: (readonly number[])[] = []
  const pairs = pairsOfBuses((busId) => slots.get(busId) ?? -1, (ofSlot) => told.push(ofSlot)) // prettier-ignore
  pairs.tellAgain()
  pairs.set(new Map([[drums!, 2]]))
  expect(told).toEqual([])

  slots.set(drums!, 1)
  pairs.tellAgain()
  pairs.tellAgain()
  expect(told).toHaveLength(1)
  expect(told[0]).toHaveLength(MAX_BUSES)
  expect(told[0]![1]).toBe(2)

  slots.set(room!, 3)
  pairs.set(new Map([[drums!, 2], [room!, 1]])) // prettier-ignore
  expect(told[1]!.slice(0, 4)).toEqual([0, 2, 0, 1])
  pairs.set(new Map())
  expect(told).toHaveLength(3)
  expect(told[2]!.every((pair) => pair === 0)).toBe(true)
})
