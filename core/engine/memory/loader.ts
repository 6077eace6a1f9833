import type { Audio } from '../../audio/audio'
import type { AudioHash, BusId, InsertId, PadId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { workedKit } from '../../matter/worked-kit'
import { compileGroove } from '../program/compile-groove'
import type { GrooveChoice } from '../program/compile-groove'
import { compileKit } from '../program/compile-kit'
import { compilePad } from '../program/compile-pad'
import { GROOVE_ENTRY, KIT_ENTRY, MASTER, MAX_BUSES } from '../program/layout'
import { createSlots } from './arena'
import { createBeadSlots } from './bead-slots'
import { createClipPlaces } from './clip-places'
import { contextFor } from './contexts'
import { createEffectPlaces } from './effect-places'
import { grooveInputs, kitInputs, padInputs } from './inputs'
import { createLoadedPads } from './loaded-pads'
import type { Pace } from './loaded-pads'
import type { EngineMemory } from './memory'
import { createPrograms } from './programs'
import type { SampleStore } from './sample-store'
import { createTelling } from './telling'
import type { LoaderEvents } from './telling'

export type { LoaderEvents, Pace }

export interface KitLoader {
  /**
   * Brings the engine's memory in step with a kit, and tells the engine. Only what changed is compiled again; faders compile
   * nothing. `choice` is the groove that plays. Returns whether all of it is there: what found no room while older programs
   * still sound keeps what it had, what is left for later by `pace` is silent or lacks what has come, and the kit is to be loaded again soon.
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

  const busSlotOf = (busId: BusId | undefined): number => (busId === undefined ? MASTER : (buses.slots.get(busId) ?? MASTER))

  /** Whether audio is at hand, or was when it was placed. */
  const isHere = (hash: AudioHash): true | undefined => (clips.wasPlaced(hash) || clips.isAtHand(hash) ? true : undefined)

  const pads = createLoadedPads(programs, (kit, pad, slot) =>
    programs.load(slot, padInputs(kit, pad, isHere, busSlotOf), (now) => compilePad(kit, pad, contextFor(places, now))),
  )
  const telling = createTelling(events, programs, busSlotOf)
  const places = { sampleRateHz, slotOf: pads.slotOf, busSlotOf, beads, clips, effects, audioOf }

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
        pads.load(kit, pace),
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
    isLaidOut: pads.isLaidOut,
    slotOf: pads.slotOf,
    padIdOf: pads.padIdOf,
    busSlotOf,
    unitOf: (insertId, busId) => effects.unitOf(`effect|${busId ?? 'master'}|${insertId}|`),
  }
}
