import type { Audio } from '../../audio/audio'
import type { AudioHash, BusId, InsertId, PadId } from '../../kit/ids'
import type { Kit, Pad } from '../../kit/kit'
import { isEmptyPad } from '../../kit/resolve'
import { workedKit } from '../../matter/worked-kit'
import { compileGroove } from '../program/compile-groove'
import type { GrooveChoice } from '../program/compile-groove'
import { compileKit } from '../program/compile-kit'
import { compilePad } from '../program/compile-pad'
import { lockedCents } from '../program/greatest-rate'
import { GROOVE_ENTRY, KIT_ENTRY, MASTER, MAX_BUSES, MAX_PADS } from '../program/layout'
import { createSlots } from './arena'
import { createBeadSlots } from './bead-slots'
import { createClipPlaces } from './clip-places'
import { contextFor } from './contexts'
import { createEffectPlaces } from './effect-places'
import { grooveInputs, kitInputs, padInputs, sameItems, sharedInputs } from './inputs'
import type { Inputs } from './inputs'
import type { EngineMemory } from './memory'
import { createPrograms } from './programs'
import type { Loaded } from './programs'
import type { SampleStore } from './sample-store'
import { createTelling } from './telling'
import type { LoaderEvents } from './telling'

export type { LoaderEvents }

/**
 * How much of a kit that is new is laid out at once: `first` and one more pad in any case, so that it ends on a device of any speed; other pads
 * that are not there yet until it is over.
 */
export interface Pace {
  readonly first?: PadId
  isOver(): boolean
}

export interface KitLoader {
  /**
   * Brings the engine's memory in step with a kit, and tells the engine. Only what changed is compiled again; faders compile
   * nothing. `choice` is the groove that plays. Returns whether all of it is there: what found no room while older programs
   * still sound keeps what it had, what is left for later by `pace` is silent, and the kit is to be loaded again soon.
   */
  load(kit: Kit, choice?: GrooveChoice, pace?: Pace): boolean
  /** Whether a pad was laid out, with its samples or without. */
  isLaidOut(padId: PadId): boolean
  /** Audio that is wanted and not at hand: what was placed is not wanted again before a clip of it changes. */
  lacking(): ReadonlySet<AudioHash>
  /** Audio that does not play because the device gives no more memory: tried again once other samples were given back. */
  refused(): ReadonlySet<AudioHash>
  slotOf(padId: PadId): number
  padIdOf(slot: number): PadId | undefined
  /** The slot of a bus, 0 for the master. */
  busSlotOf(busId: BusId | undefined): number
  /** The row of an effect among the engine's, while it is played. */
  unitOf(insertId: InsertId, busId: BusId | undefined): number | undefined
}

const isWaiting = (entry: Loaded | undefined): boolean => entry !== undefined && entry.lacks.length + entry.refused.length > 0

/**
 * Keeps programs and samples for one kit. `audioOf` gives decoded audio, or undefined while it is not at hand; call `load`
 * again when it has come. What was placed may be let go of.
 */
export function createLoader(
  memory: EngineMemory,
  store: SampleStore,
  sampleRateHz: number,
  audioOf: (audio: AudioHash) => Audio | undefined,
  events: LoaderEvents,
): KitLoader {
  const pads = createSlots<PadId>(0, MAX_PADS)
  const buses = createSlots<BusId>(1, MAX_BUSES)
  const beads = createBeadSlots()
  const clips = createClipPlaces(memory, store, sampleRateHz, audioOf, (table, numbers) => events.tableMade?.(table, numbers))
  const effects = createEffectPlaces(store)
  const programs = createPrograms(
    memory,
    clips,
    (key) => !effects.letGo(key) && clips.letGo(key),
    (offset, length) => events.arenaWritten?.(offset, length),
  )
  let last: Kit | undefined
  /** The kit whose faders the engine was told last. */
  let fadersFrom: Kit | undefined
  let lastShared: Inputs = []
  /** Whether some pad waits for audio or for room. */
  let arePadsWaiting = true

  const busSlotOf = (busId: BusId | undefined): number => (busId === undefined ? MASTER : (buses.slots.get(busId) ?? MASTER))

  function slotOf(padId: PadId): number {
    const slot = pads.of(padId)
    if (slot === undefined) throw new Error(`The engine plays at most ${MAX_PADS} pads.`)
    return slot
  }

  const telling = createTelling(events, programs, busSlotOf)
  const places = { sampleRateHz, slotOf, busSlotOf, beads, clips, effects, audioOf }

  /** Whether audio is at hand, or was when it was placed. */
  const isHere = (hash: AudioHash): true | undefined => (clips.wasPlaced(hash) || clips.isAtHand(hash) ? true : undefined)

  function removePads(kit: Kit): void {
    const present = new Set(kit.pads.map((pad) => pad.id))
    for (const [padId, slot] of [...pads.slots]) {
      if (present.has(padId)) continue
      programs.remove(slot)
      pads.giveBack(padId)
    }
  }

  function loadPads(kit: Kit, pace: Pace | undefined): boolean {
    const shared = sharedInputs(kit)
    const isShared = sameItems(shared, lastShared)
    lastShared = shared
    if (isShared && kit.pads === last?.pads && kit.grooves === last.grooves && !arePadsWaiting) return true
    if (kit.pads !== last?.pads) removePads(kit)
    for (const pad of kit.pads) slotOf(pad.id)
    const pads = [...kit.pads.filter(({ id }) => id === pace?.first), ...kit.pads.filter(({ id }) => id !== pace?.first)]
    let isOne = false
    const isLater = (pad: Pad) => isOne && pad.id !== pace?.first && pace?.isOver()
    const areLoaded = pads
      .map((pad) => {
        const isNew = !programs.of(slotOf(pad.id))
        if (isNew && isLater(pad)) return false
        isOne ||= isNew && pad.id !== pace?.first
        return loadPad(kit, pad, isShared)
      })
      .every((done) => done)
    arePadsWaiting = !areLoaded || kit.pads.some((pad) => isWaiting(programs.of(slotOf(pad.id))))
    return areLoaded
  }

  function loadPad(kit: Kit, pad: Pad, isShared: boolean): boolean {
    const entry = slotOf(pad.id)
    const before = programs.of(entry)
    const isSame = before?.inputs[0] === pad && before.inputs[1] === lockedCents(kit, pad)
    // What it lacks has not come: nothing of it can be otherwise.
    if (isShared && before && !programs.mayBeMore(before) && isSame && !pad.leansOn && !isEmptyPad(pad)) return true
    return programs.load(entry, padInputs(kit, pad, isHere, busSlotOf), (now) => compilePad(kit, pad, contextFor(places, now)))
  }

  function loadBuses(kit: Kit): void {
    if (kit.buses === last?.buses) return
    const present = new Set(kit.buses.map(({ id }) => id))
    for (const id of [...buses.slots.keys()]) if (!present.has(id)) buses.giveBack(id)
    for (const { id } of kit.buses) buses.of(id)
  }

  return {
    load(given, choice, pace) {
      const kit = workedKit(given)
      beads.begin(kit)
      programs.sweep()
      loadBuses(kit)
      const kitBefore = programs.of(KIT_ENTRY)?.programSlot
      const parts = [
        loadPads(kit, pace),
        programs.load(KIT_ENTRY, kitInputs(kit), (now) => compileKit(kit, contextFor(places, now))),
        programs.load(GROOVE_ENTRY, grooveInputs(kit, choice, isHere), (now) => compileGroove(kit, choice, contextFor(places, now))),
      ]
      const isSameKit = kitBefore !== undefined && kitBefore === programs.of(KIT_ENTRY)?.programSlot
      const areFadersTold = !fadersFrom || !isSameKit || fadersFrom === kit || telling.moveFaders(fadersFrom, kit)
      if (areFadersTold) fadersFrom = kit
      const isTold = telling.publish()
      last = kit
      return parts.every((done) => done) && isTold && areFadersTold
    },
    lacking: () => new Set(programs.all().flatMap(({ lacks }) => lacks)),
    refused: () => new Set(programs.all().flatMap(({ refused }) => refused)),
    isLaidOut: (padId) => programs.of(pads.slots.get(padId) ?? -1) !== undefined,
    slotOf,
    padIdOf: (slot) => [...pads.slots].find(([, other]) => other === slot)?.[0],
    busSlotOf,
    unitOf: (insertId, busId) => effects.unitOf(`effect|${busId ?? 'master'}|${insertId}|`),
  }
}
