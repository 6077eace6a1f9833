import type { Audio } from '../../audio/audio'
import type { AudioHash, BeadId, BusId, InsertId, PadId } from '../../kit/ids'
import type { GrooveString, Clip, Kit, Pad } from '../../kit/kit'
import { isEmptyPad } from '../../kit/resolve'
import { MAX_BEADS } from '../groove/play-state'
import { workedKit } from '../../matter/worked-kit'
import { log2 } from '../math'
import { EventType } from '../program/codes'
import { compileGroove } from '../program/compile-groove'
import type { EffectMemory, PlacedEffect, Reading } from '../program/context'
import type { GrooveChoice, GrooveContext, WrittenRows } from '../program/compile-groove'
import { compileKit } from '../program/compile-kit'
import { compilePad } from '../program/compile-pad'
import { EventField, GROOVE_ENTRY, KIT_ENTRY, MASTER, MAX_BUSES, MAX_PADS, PROGRAM_ENTRIES, StatusField } from '../program/layout'
import { createArena, createSlots } from './arena'
import { createEffectPlaces } from './effect-places'
import { clipKey, clipSamples } from './clip-region'
import { grooveInputs, kitInputs, padInputs, sameItems, sharedInputs } from './inputs'
import type { Inputs } from './inputs'
import { layLoop, loopKey, loopOfClip } from './loops'
import type { LaidLoop } from './loops'
import { leastRound } from './levels'
import { lockTable, putReadingTable } from './memory'
import type { EngineMemory } from './memory'
import { movedFaders, movedTillers } from './moved-faders'
import { lockedCents } from '../program/greatest-rate'
import { readingUpTo } from './reading-tables'
import type { Region, SampleStore } from './sample-store'

/** How the engine is told, and who else is where it reads a copy of memory. */
export interface LoaderEvents {
  /** An event for the engine, as soon as possible. Returns whether there was room for it. */
  send(event: Float64Array): boolean
  arenaWritten?(offset: number, length: number): void
  tablesChanged?(): void
  /** A table by which clips are read was made. */
  tableMade?(table: number, numbers: Float32Array): void
}

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

/** The program that an entry of the table has, what it was compiled from, and the samples it plays. */
interface Loaded {
  readonly programSlot: number
  readonly inputs: Inputs
  readonly keys: readonly string[]
  /** Audio that it wants and that is not there (now). */
  readonly lacks: readonly AudioHash[]
  /** Audio that there was no memory for. */
  readonly refused: readonly AudioHash[]
}

const isWaiting = (entry: Loaded | undefined): boolean => entry !== undefined && entry.lacks.length + entry.refused.length > 0

/** What a program that is being compiled holds, and what it has to do without. */
interface Wants {
  readonly keys: string[]
  readonly lacks: Set<AudioHash>
  readonly refused: Set<AudioHash>
}

interface Placed {
  region: Region
  users: number
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
  const pads = createSlots<PadId>(0, MAX_PADS)
  const buses = createSlots<BusId>(1, MAX_BUSES)
  const beads = createSlots<BeadId>(1, MAX_BEADS)
  let rowsOfStrings = new WeakMap<GrooveString, WrittenRows>()
  let isSwept = false
  let wantedKit: Kit | undefined

  /** The slot of a bead. Where all are taken, those of beads that are gone are given back first. */
  const beadSlotOf = (id: BeadId): number | undefined => {
    const slot = beads.of(id)
    if (slot !== undefined || isSwept) return slot
    isSwept = true
    const there = new Set(wantedKit?.grooves.flatMap(({ strings }) => strings.flatMap((string) => string.beads.map((bead) => bead.id))))
    const gone = [...beads.slots.keys()].filter((other) => !there.has(other))
    for (const other of gone) beads.giveBack(other)
    if (gone.length > 0) rowsOfStrings = new WeakMap()
    return beads.of(id)
  }
  const loaded = new Map<number, Loaded>()
  const placed = new Map<string, Placed>()
  const effects = createEffectPlaces(store)
  /** Rates of audio that was placed: what lies in memory needs its file no more. */
  const rates = new Map<AudioHash, number>()
  const retired: { programSlot: number; keys: readonly string[]; sinceState: number }[] = []
  const arena = createArena(memory)
  const wanted = new Int32Array(PROGRAM_ENTRIES)
  let state = 0
  let last: Kit | undefined
  /** The kit whose faders the engine was told last. */
  let fadersFrom: Kit | undefined
  let lastShared: Inputs = []
  /** Whether samples were given back since the last load, so that what was refused may find memory now. */
  let hasFreed = false
  /** Whether some pad waits for audio or for room. */
  let arePadsWaiting = true

  const busSlotOf = (busId: BusId | undefined): number => (busId === undefined ? MASTER : (buses.slots.get(busId) ?? MASTER))

  function slotOf(padId: PadId): number {
    const slot = pads.of(padId)
    if (slot === undefined) throw new Error(`The engine plays at most ${MAX_PADS} pads.`)
    return slot
  }

  /** Finds or places the samples of a clip, and notes in `now` what the program holds and what it has to do without. */
  function regionOf(clip: Clip, { mostCents, loops, alongLoop }: Reading, now: Wants): Region | undefined {
    const audio = audioOf(clip.audio)
    const rateHz = audio?.sampleRateHz ?? rates.get(clip.audio) ?? sampleRateHz
    const levels = putTables(mostCents / 1200 + log2(rateHz / sampleRateHz))
    const loop = alongLoop ? loopOfClip(clip, rateHz) : undefined
    const key = `${clipKey(clip)}|${levels}|${loop ? loopKey(loop) : loops}`
    let entry = placed.get(key)
    if (!entry) {
      if (!audio || audio.channels.length === 0) {
        now.lacks.add(clip.audio)
        return undefined
      }
      rates.set(clip.audio, rateHz)
      const plain = clipSamples(audio, clip)
      const { channels, laid } = loop ? layLoop(plain, loop, leastRound(levels)) : { channels: plain, laid: loops }
      const region = placeIfRoom(channels, audio.sampleRateHz, levels, laid)
      if (!region) {
        now.refused.add(clip.audio)
        return undefined
      }
      entry = { region, users: 0 }
      placed.set(key, entry)
    }
    entry.users++
    now.keys.push(key)
    return entry.region
  }

  function placeIfRoom(channels: readonly Float32Array[], rateHz: number, levels: number, round: boolean | LaidLoop): Region | undefined {
    try {
      return store.place(channels, rateHz, levels, round)
    } catch (error) {
      if (error instanceof RangeError) return undefined // the device gives no more memory
      throw error
    }
  }

  /** Holds an effect's place, and notes in `now` that its program does, or that there was no memory for it. */
  function effectOf(key: string, make: () => EffectMemory | undefined, now: Wants): PlacedEffect<EffectMemory> | undefined {
    try {
      const place = effects.hold(key, make)
      if (place) now.keys.push(key)
      return place
    } catch (error) {
      if (error instanceof RangeError) return undefined // the device gives no more memory
      throw error
    }
  }

  /** Whether audio is at hand, or was when it was placed. */
  function isHere(hash: AudioHash): true | undefined {
    return rates.has(hash) || audioOf(hash) !== undefined ? true : undefined
  }

  function isUpToDate(before: Loaded, inputs: Inputs): boolean {
    if (before.refused.length > 0 && hasFreed) return false
    return sameItems(before.inputs, inputs) && !before.lacks.some((hash) => audioOf(hash) !== undefined)
  }

  /** Makes the tables by which clips are read up to so many octaves above the engine's rate; returns the levels they need for that. */
  function putTables(octaves: number): number {
    const { levels, tables } = readingUpTo(octaves)
    for (let table = 0; table < tables; table++) {
      const numbers = putReadingTable(memory, table)
      if (numbers) events.tableMade?.(table, numbers)
    }
    return levels
  }

  /** Compiles the program of an entry anew. Returns whether it found room; an empty one takes what was there away. */
  function put(entry: number, inputs: Inputs, compile: (context: GrooveContext) => Float64Array | undefined): boolean {
    const before = loaded.get(entry)
    const now: Wants = { keys: [], lacks: new Set(), refused: new Set() }
    const { keys, lacks, refused } = now
    const context: GrooveContext = {
      sampleRateHz,
      slotOf,
      busSlotOf,
      beadSlotOf,
      rowsOf: rowsOfStrings,
      regionOf: (clip, reading) => regionOf(clip, reading, now),
      effectOf: <Made extends EffectMemory>(key: string, make: () => Made | undefined) =>
        effectOf(key, make, now) as PlacedEffect<Made> | undefined,
      impulseOf: (hash) => {
        const audio = audioOf(hash)
        if (!audio) lacks.add(hash)
        return audio
      },
    }
    const program = compile(context)
    // What was let go comes back in a moment: until then the pad sounds as it did.
    if (before && lacks.size > 0 && [...lacks].every((hash) => rates.has(hash))) {
      for (const key of keys) unuse(key)
      loaded.set(entry, { ...before, lacks: [...lacks] })
      return true
    }
    const programSlot = program ? arena.put(program) : 0
    if (programSlot === undefined) {
      for (const key of keys) unuse(key)
      if (retired.length === 0) throw new Error('The pads of this kit hold more cells than the engine has room for.')
      return false
    }
    if (program) events.arenaWritten?.(memory.directory[programSlot], program.length)
    loaded.set(entry, { programSlot, inputs, keys, lacks: [...lacks], refused: [...refused] })
    wanted[entry] = programSlot
    if (before) retire(before)
    return true
  }

  function retire({ programSlot, keys }: Loaded): void {
    if (programSlot !== 0) retired.push({ programSlot, keys, sinceState: state + 1 })
  }

  /** Frees programs that no voice reads any more, once the engine plays a state without them. */
  function sweep(): void {
    for (let i = retired.length - 1; i >= 0; i--) {
      const { programSlot, keys, sinceState } = retired[i]
      if (memory.uses[programSlot] > 0 || memory.status[StatusField.kitState] < sinceState) continue
      arena.free(programSlot)
      for (const key of keys) unuse(key)
      retired.splice(i, 1)
    }
  }

  function unuse(key: string): void {
    if (effects.letGo(key)) return
    const entry = placed.get(key)
    if (!entry || --entry.users > 0) return
    store.free(entry.region)
    placed.delete(key)
    hasFreed = true
  }

  function removePads(kit: Kit): void {
    const present = new Set(kit.pads.map((pad) => pad.id))
    for (const [padId, slot] of [...pads.slots]) {
      if (present.has(padId)) continue
      const entry = loaded.get(slot)
      wanted[slot] = 0
      if (entry) retire(entry)
      loaded.delete(slot)
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
        const isNew = !loaded.has(slotOf(pad.id))
        if (isNew && isLater(pad)) return false
        isOne ||= isNew && pad.id !== pace?.first
        return loadPad(kit, pad, isShared)
      })
      .every((done) => done)
    arePadsWaiting = !areLoaded || kit.pads.some((pad) => isWaiting(loaded.get(slotOf(pad.id))))
    return areLoaded
  }

  function loadPad(kit: Kit, pad: Pad, isShared: boolean): boolean {
    const entry = slotOf(pad.id)
    const before = loaded.get(entry)
    const isSame = before?.inputs[0] === pad && before.inputs[1] === lockedCents(kit, pad)
    // What it lacks has not come: nothing of it can be otherwise.
    const isSettled = before && !before.lacks.some((hash) => audioOf(hash) !== undefined) && !(hasFreed && before.refused.length > 0)
    if (isShared && isSettled && isSame && !pad.leansOn && !isEmptyPad(pad)) return true
    const inputs = padInputs(kit, pad, isHere, busSlotOf)
    if (before && isUpToDate(before, inputs)) return true
    return put(entry, inputs, (context) => compilePad(kit, pad, context))
  }

  function loadBuses(kit: Kit): void {
    if (kit.buses === last?.buses) return
    const present = new Set(kit.buses.map(({ id }) => id))
    for (const id of [...buses.slots.keys()]) if (!present.has(id)) buses.giveBack(id)
    for (const { id } of kit.buses) buses.of(id)
  }

  function loadProgram(entry: number, inputs: Inputs, compile: (context: GrooveContext) => Float64Array | undefined): boolean {
    const before = loaded.get(entry)
    return before !== undefined && isUpToDate(before, inputs) ? true : put(entry, inputs, compile)
  }

  function send(type: number, padSlot: number, note: number, value: number): boolean {
    const event = new Float64Array(EventField.length)
    event[EventField.frame] = -1
    event[EventField.type] = type
    event[EventField.padSlot] = padSlot
    event[EventField.note] = note
    event[EventField.velocity] = value
    return events.send(event)
  }

  /** Moves the faders and tillers that stand elsewhere than they did. */
  function moveFaders(before: Kit, kit: Kit): boolean {
    const faders = movedFaders(before, kit, busSlotOf).map(([slot, fader, value]) => send(EventType.fader, slot, fader, value))
    const tillers = movedTillers(before, kit).map(([control, value]) => send(EventType.controller, 0, control, value))
    return [...faders, ...tillers].every((sent) => sent)
  }

  /** Puts the table where the engine reads it, all at once, and tells the engine. */
  function publish(): boolean {
    state++
    lockTable(memory, true)
    for (let entry = 0; entry < PROGRAM_ENTRIES; entry++) Atomics.store(memory.programTable, entry, wanted[entry])
    lockTable(memory, false)
    events.tablesChanged?.()
    return send(EventType.kit, 0, state, 0)
  }

  const isPublished = (): boolean => {
    for (let entry = 0; entry < PROGRAM_ENTRIES; entry++) if (wanted[entry] !== memory.programTable[entry]) return false
    return true
  }
  let isTold = true

  return {
    load(given, choice, pace) {
      const kit = workedKit(given)
      wantedKit = kit
      isSwept = false
      sweep()
      loadBuses(kit)
      const kitBefore = loaded.get(KIT_ENTRY)?.programSlot
      const parts = [
        loadPads(kit, pace),
        loadProgram(KIT_ENTRY, kitInputs(kit), (context) => compileKit(kit, context)),
        loadProgram(GROOVE_ENTRY, grooveInputs(kit, choice, isHere), (context) => compileGroove(kit, choice, context)),
      ]
      const isSameKit = kitBefore !== undefined && kitBefore === loaded.get(KIT_ENTRY)?.programSlot
      const areFadersTold = !fadersFrom || !isSameKit || fadersFrom === kit || moveFaders(fadersFrom, kit)
      if (areFadersTold) fadersFrom = kit
      hasFreed = false
      if (!isPublished() || !isTold) isTold = publish()
      last = kit
      return parts.every((done) => done) && isTold && areFadersTold
    },
    lacking: () => new Set([...loaded.values()].flatMap(({ lacks }) => lacks)),
    refused: () => new Set([...loaded.values()].flatMap(({ refused }) => refused)),
    isLaidOut: (padId) => loaded.has(pads.slots.get(padId) ?? -1),
    slotOf,
    padIdOf: (slot) => [...pads.slots].find(([, other]) => other === slot)?.[0],
    busSlotOf,
    unitOf: (insertId, busId) => effects.unitOf(`effect|${busId ?? 'master'}|${insertId}|`),
  }
}
