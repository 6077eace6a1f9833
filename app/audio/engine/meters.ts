import { BUS_METERS, doneOf, DoneField, LOG_RECORDS, MAX_RAYS, readRecord, UNIT_METERS } from '@heliaster/core/engine'
import type { EngineMemory, KitLoader } from '@heliaster/core/engine'

import type { Player, Sounded } from './player'

/** Peaks and reductions since they were taken last; taking one clears it. */
export function metersOf({ meters }: EngineMemory, loader: KitLoader): Pick<Player, 'takePeaks' | 'takeBusPeak' | 'takeReduction'> {
  const taken = (at: number) => {
    const value = meters[at]!
    meters[at] = 0
    return value
  }
  return {
    takePeaks(padId) {
      const row = loader.slotOf(padId) * MAX_RAYS
      const peaks = meters.slice(row, row + MAX_RAYS)
      meters.fill(0, row, row + MAX_RAYS)
      return peaks
    },
    takeBusPeak: (busId) => taken(BUS_METERS + loader.busSlotOf(busId)),
    takeReduction(insertId, busId) {
      const unit = loader.unitOf(insertId, busId)
      return unit === undefined ? 0 : taken(UNIT_METERS + unit)
    },
  }
}

/** What sounded since it was asked last, by names; of more than the log holds the newest. */
export function soundedOf(memory: Pick<EngineMemory, 'log' | 'done'>, loader: KitLoader): () => Sounded[] {
  let read = 0
  const idsOf = (slots: readonly number[]) => slots.flatMap((slot) => loader.padIdOf(slot) ?? [])
  return () => {
    const count = doneOf(memory, DoneField.strikes)
    read = Math.max(read, count - LOG_RECORDS)
    const sounded: Sounded[] = []
    for (; read < count; read++) {
      const record = readRecord(memory.log, read)
      const [padId, struckId] = [loader.padIdOf(record.padSlot), loader.padIdOf(record.struckSlot)]
      sounded.push({ ...record, padId, struckId, chokedIds: idsOf(record.chokedSlots), roomIds: idsOf(record.roomSlots) })
    }
    return sounded
  }
}
