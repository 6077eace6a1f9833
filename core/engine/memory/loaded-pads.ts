import type { PadId } from '../../kit/ids'
import type { Kit, Pad } from '../../kit/kit'
import { isEmptyPad } from '../../kit/resolve'
import { lockedCents } from '../program/greatest-rate'
import { MAX_PADS } from '../program/layout'
import { createSlots } from './arena'
import { sameItems, sharedInputs } from './inputs'
import type { Inputs } from './inputs'
import type { Loaded, Programs } from './programs'

/**
 * How much is laid out at once of what is new, pads or sounds that have come: `first` and one more pad in any case, so that it ends on a device of
 * any speed; other pads until it is over.
 */
export interface Pace {
  readonly first?: PadId
  isOver(): boolean
}

const isWaiting = (entry: Loaded | undefined): boolean => entry !== undefined && entry.lacks.length + entry.refused.length > 0

/** Pads by their slots, and which of them are laid out. `loadPad` compiles one into its slot where anything of it changed, and says whether it is there. */
export function createLoadedPads(programs: Programs, loadPad: (kit: Kit, pad: Pad, slot: number) => boolean) {
  const { slots, idOf, of, giveBack } = createSlots<PadId>(0, MAX_PADS)
  let last: Kit | undefined
  let lastShared: Inputs = []
  /** Whether some pad waits for audio or for room. */
  let areWaiting = true

  function slotOf(padId: PadId): number {
    const slot = of(padId)
    if (slot === undefined) throw new Error(`The engine plays at most ${MAX_PADS} pads.`)
    return slot
  }

  function removeOthers(kit: Kit): void {
    const present = new Set(kit.pads.map((pad) => pad.id))
    for (const [padId, slot] of [...slots]) {
      if (present.has(padId)) continue
      programs.remove(slot)
      giveBack(padId)
    }
  }

  /** Whether nothing of it is otherwise than it was laid out, but for what it lacks. */
  function isAsBefore(kit: Kit, pad: Pad, before: Loaded): boolean {
    if (pad.leansOn || isEmptyPad(pad)) return false
    return before.inputs[0] === pad && before.inputs[1] === lockedCents(kit, pad)
  }

  function loadAll(kit: Kit, isShared: boolean, pace: Pace | undefined): boolean {
    const inOrder = [...kit.pads.filter(({ id }) => id === pace?.first), ...kit.pads.filter(({ id }) => id !== pace?.first)]
    let isOne = false
    const isLater = (pad: Pad) => isOne && pad.id !== pace?.first && pace?.isOver()
    return inOrder
      .map((pad) => {
        const before = programs.of(slotOf(pad.id))
        const isSame = before !== undefined && isShared && isAsBefore(kit, pad, before)
        if (isSame && !programs.mayBeMore(before)) return true
        const mayWait = !before || (isSame && before.refused.length === 0) // what was refused is tried while there is room
        if (mayWait && isLater(pad)) return false
        isOne ||= mayWait && pad.id !== pace?.first
        return loadPad(kit, pad, slotOf(pad.id))
      })
      .every((done) => done)
  }

  return {
    slotOf,
    padIdOf: idOf,
    isLaidOut: (padId: PadId): boolean => programs.of(slots.get(padId) ?? -1) !== undefined,
    /** Brings pads in step with a kit; whether all of them are there. */
    load(kit: Kit, pace: Pace | undefined): boolean {
      const shared = sharedInputs(kit)
      const isShared = sameItems(shared, lastShared)
      lastShared = shared
      if (isShared && kit.pads === last?.pads && kit.grooves === last.grooves && !areWaiting) return true
      if (kit.pads !== last?.pads) removeOthers(kit)
      for (const pad of kit.pads) slotOf(pad.id)
      const areLoaded = loadAll(kit, isShared, pace)
      areWaiting = !areLoaded || kit.pads.some((pad) => isWaiting(programs.of(slotOf(pad.id))))
      last = kit
      return areLoaded
    },
  }
}
