import type { AudioHash } from '../../kit/ids'
import { DoneField, PROGRAM_ENTRIES } from '../program/layout'
import { createArena } from './arena'
import type { ClipPlaces, Wants } from './clip-places'
import { sameItems } from './inputs'
import type { Inputs } from './inputs'
import { doneOf, lockTable } from './memory'
import type { EngineMemory } from './memory'

/** The program that an entry of the table has, what it was compiled from, and the samples it plays. */
export interface Loaded {
  readonly programSlot: number
  readonly inputs: Inputs
  readonly keys: readonly string[]
  /** Audio that it wants and that is not there (now). */
  readonly lacks: readonly AudioHash[]
  /** Audio that there was no memory for. */
  readonly refused: readonly AudioHash[]
}

export interface Programs {
  of(entry: number): Loaded | undefined
  all(): Loaded[]
  /** Whether what a program lacked has come, or what was refused may find memory now. */
  mayBeMore(before: Loaded): boolean
  /** Compiles the program of an entry where what it depends on is otherwise. Returns whether it is there; an empty one takes what was there away. */
  load(entry: number, inputs: Inputs, compile: (now: Wants) => Float64Array | undefined): boolean
  remove(entry: number): void
  /** Frees programs that no voice reads any more, once the engine plays a state without them. */
  sweep(): void
  /** Puts the table where the engine reads it, all at once, unless it is there; gives the number of its state, or nothing. */
  publish(): number | undefined
}

/** Programs in the engine's memory by their entries. `letGo` takes a key that a program held, and returns whether samples were given back. */
export function createPrograms(
  memory: EngineMemory,
  clips: Pick<ClipPlaces, 'isAtHand' | 'wasPlaced'>,
  letGo: (key: string) => boolean,
  arenaWritten: (offset: number, length: number) => void,
): Programs {
  const loaded = new Map<number, Loaded>()
  const retired: { programSlot: number; keys: readonly string[]; sinceState: number }[] = []
  const arena = createArena(memory)
  const wanted = new Int32Array(PROGRAM_ENTRIES)
  let state = 0
  /** Whether samples were given back since the table was last published, so that what was refused may find memory now. */
  let hasFreed = false

  const unuse = (keys: readonly string[]) => {
    for (const key of keys) if (letGo(key)) hasFreed = true
  }

  const mayBeMore = (before: Loaded): boolean =>
    (hasFreed && before.refused.length > 0) || before.lacks.some((hash) => clips.isAtHand(hash))

  function put(entry: number, inputs: Inputs, compile: (now: Wants) => Float64Array | undefined): boolean {
    const before = loaded.get(entry)
    const now: Wants = { keys: [], lacks: new Set(), refused: new Set() }
    const program = compile(now)
    const lacks = [...now.lacks]
    // What was let go comes back in a moment: until then the pad sounds as it did.
    if (before && lacks.length > 0 && lacks.every((hash) => clips.wasPlaced(hash))) {
      unuse(now.keys)
      loaded.set(entry, { ...before, lacks })
      return true
    }
    const programSlot = program ? arena.put(program) : 0
    if (programSlot === undefined) {
      unuse(now.keys)
      if (retired.length === 0) throw new Error('The pads of this kit hold more cells than the engine has room for.')
      return false
    }
    if (program) arenaWritten(memory.directory[programSlot], program.length)
    loaded.set(entry, { programSlot, inputs, keys: now.keys, lacks, refused: [...now.refused] })
    wanted[entry] = programSlot
    if (before) retire(before)
    return true
  }

  function retire({ programSlot, keys }: Loaded): void {
    if (programSlot !== 0) retired.push({ programSlot, keys, sinceState: state + 1 })
  }

  const isPublished = (): boolean => {
    for (let entry = 0; entry < PROGRAM_ENTRIES; entry++) if (wanted[entry] !== memory.programTable[entry]) return false
    return true
  }

  return {
    of: (entry) => loaded.get(entry),
    all: () => [...loaded.values()],
    mayBeMore,
    load(entry, inputs, compile) {
      const before = loaded.get(entry)
      return before && !mayBeMore(before) && sameItems(before.inputs, inputs) ? true : put(entry, inputs, compile)
    },
    remove(entry) {
      const before = loaded.get(entry)
      wanted[entry] = 0
      if (before) retire(before)
      loaded.delete(entry)
    },
    sweep() {
      const played = doneOf(memory, DoneField.kit) // asked first: until then an older state may begin more voices
      for (let i = retired.length - 1; i >= 0; i--) {
        const { programSlot, keys, sinceState } = retired[i]
        if (played < sinceState || memory.uses[programSlot] > 0) continue
        arena.free(programSlot)
        unuse(keys)
        retired.splice(i, 1)
      }
    },
    publish() {
      hasFreed = false
      if (isPublished()) return undefined
      state++
      lockTable(memory, true)
      for (let entry = 0; entry < PROGRAM_ENTRIES; entry++) Atomics.store(memory.programTable, entry, wanted[entry])
      lockTable(memory, false)
      return state
    },
  }
}
