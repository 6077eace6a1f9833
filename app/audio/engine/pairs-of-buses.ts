import { MAX_BUSES } from '@heliaster/core/engine'
import type { BusId } from '@heliaster/core/kit'

const NONE: readonly number[] = new Array<number>(MAX_BUSES).fill(0)

/**
 * By which pair of outputs each bus leaves, told to the engine by slots: a bus has its slot once its kit is loaded, so it is
 * told again after each load, and only where it changed.
 */
export function pairsOfBuses(slotOf: (busId: BusId) => number, tell: (ofSlot: readonly number[]) => void) {
  let pairs: ReadonlyMap<BusId, number> = new Map()
  let told = NONE
  const tellAgain = () => {
    const ofSlot = [...NONE]
    for (const [busId, pair] of pairs) {
      const slot = slotOf(busId)
      if (slot > 0) ofSlot[slot] = pair
    }
    if (ofSlot.every((pair, slot) => pair === told[slot])) return
    told = ofSlot
    tell(ofSlot)
  }
  return {
    set(given: ReadonlyMap<BusId, number>): void {
      pairs = given
      tellAgain()
    },
    tellAgain,
  }
}
