/** @jest-environment node */
import { createMemory, DoneField, LOG_RECORDS, MAX_RAYS } from '@heliaster/core/engine'
import type { KitLoader } from '@heliaster/core/engine'

import { metersOf, soundedOf } from './meters'

/** Pads, buses and effects stand in slots of their number. */
const loader = {
  slotOf: (id: string) => Number(id.slice(4)),
  busSlotOf: (id?: string) => (id ? Number(id.slice(4)) : 0),
  unitOf: (id: string) => (id === 'gone' ? undefined : 3),
  padIdOf: (slot: number) => (slot < 0 || slot === 9 ? undefined : `pad-${slot}`),
} as unknown as KitLoader

test('a peak is the highest since it was taken last, of its own pad, bus or effect alone', () => {
  const memory = createMemory(false)
  const meters = metersOf(memory, loader)
  memory.meters.fill(0.25)
  expect([...meters.takePeaks('pad-2' as never)]).toEqual(new Array(MAX_RAYS).fill(0.25))
  expect([...meters.takePeaks('pad-2' as never)]).toEqual(new Array(MAX_RAYS).fill(0))
  expect([...meters.takePeaks('pad-3' as never)]).toEqual(new Array(MAX_RAYS).fill(0.25))
  expect([meters.takeBusPeak(), meters.takeBusPeak(), meters.takeBusPeak('bus-1' as never)]).toEqual([0.25, 0, 0.25])
  expect([meters.takeReduction('one' as never), meters.takeReduction('one' as never), meters.takeReduction('gone' as never)]).toEqual([0.25, 0, 0]) // prettier-ignore
})

test('what sounded is told once, in its order; of more than the log holds the newest', () => {
  const memory = createMemory(false)
  const sounded = soundedOf(memory, loader)
  expect(sounded()).toEqual([])
  memory.done[DoneField.strikes] = 3
  expect(sounded()).toHaveLength(3)
  expect(sounded()).toEqual([])
  memory.done[DoneField.strikes] = 3 + 5 * LOG_RECORDS
  expect(sounded()).toHaveLength(LOG_RECORDS)
})
