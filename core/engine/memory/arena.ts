import type { EngineMemory } from './memory'
import { PROGRAM_SLOTS } from './memory'

/** Offset 0 is never a program. */
const FIRST = 32

/** First-fit places for programs in the arena. Slot 0 stands for no program. */
export function createArena(memory: EngineMemory) {
  const used = new Map<number, { start: number; length: number }>()
  return {
    /** Nothing where there is no room (now). */
    put(program: Float64Array): number | undefined {
      let slot = 1
      while (used.has(slot)) slot++
      if (slot >= PROGRAM_SLOTS) return undefined
      const runs = [...used.values()].sort((a, b) => a.start - b.start)
      let start = FIRST
      for (const run of runs) {
        if (run.start - start >= program.length) break
        start = run.start + run.length
      }
      if (start + program.length > memory.arena.length) return undefined
      memory.arena.set(program, start)
      memory.directory[slot] = start
      used.set(slot, { start, length: program.length })
      return slot
    },
    free(slot: number): void {
      used.delete(slot)
      memory.directory[slot] = 0
    },
  }
}

/** Small numbers for things by their ids, the same as long as they are there. */
export function createSlots<Id>(first: number, most: number) {
  const slots = new Map<Id, number>()
  const ids = new Map<number, Id>()
  let next = first
  return {
    slots,
    idOf: (slot: number): Id | undefined => ids.get(slot),
    /** Undefined where all are taken. A slot that was given back is given again as late as can be. */
    of(id: Id): number | undefined {
      const known = slots.get(id)
      if (known !== undefined) return known
      if (ids.size >= most - first) return undefined
      while (ids.has(next)) next = next + 1 < most ? next + 1 : first
      slots.set(id, next)
      ids.set(next, id)
      return next
    },
    giveBack(id: Id): void {
      const slot = slots.get(id)
      if (slot === undefined) return
      slots.delete(id)
      ids.delete(slot)
      next = slot + 1 < most ? slot + 1 : first
    },
  }
}
