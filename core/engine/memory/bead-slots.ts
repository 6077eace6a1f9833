import type { BeadId } from '../../kit/ids'
import type { GrooveString, Kit } from '../../kit/kit'
import { MAX_BEADS } from '../groove/play-state'
import type { WrittenRows } from '../program/compile-groove'
import { createSlots } from './arena'

/** Slots of beads, by which the engine remembers what sounded, and rows of strings that were written with them. */
export function createBeadSlots() {
  const beads = createSlots<BeadId>(1, MAX_BEADS)
  let rows = new WeakMap<GrooveString, WrittenRows>()
  let isSwept = false
  let wanted: Kit | undefined
  return {
    /** The kit that is loaded from here on: what it has not is given back where all slots are taken. */
    begin(kit: Kit): void {
      wanted = kit
      isSwept = false
    },
    /** The slot of a bead. Where all are taken, those of beads that are gone are given back first; undefined where none is. */
    of(id: BeadId): number | undefined {
      const slot = beads.of(id)
      if (slot !== undefined || isSwept) return slot
      isSwept = true
      const there = new Set(wanted?.grooves.flatMap(({ strings }) => strings.flatMap((string) => string.beads.map((bead) => bead.id))))
      const gone = [...beads.slots.keys()].filter((other) => !there.has(other))
      for (const other of gone) beads.giveBack(other)
      if (gone.length > 0) rows = new WeakMap()
      return beads.of(id)
    },
    rows: () => rows,
  }
}
