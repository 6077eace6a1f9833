import type { Audio } from '../../audio/audio'
import type { AudioHash, PadId } from '../../kit/ids'
import type { Clip, Kit, Pad } from '../../kit/kit'
import { valueOf } from '../../kit/parameters'
import { chokedBy, clipsOfPad, padSettings } from '../../kit/resolve'
import { clipKey, clipSamples } from './clip-region'
import { compilePad } from '../program/compile-pad'
import { dbToGain } from '../math'
import { PROGRAM_SLOTS } from './memory'
import type { EngineMemory } from './memory'
import { Head, KitField, MAX_PADS, StatusField } from '../program/layout'
import type { Region, SampleStore } from './sample-store'

/** Who is told what has changed in memory, where the engine reads a copy of it. */
export interface LoaderEvents {
  arenaWritten(offset: number, length: number): void
  tablesChanged(): void
}

export interface KitLoader {
  /**
   * Brings the engine's memory in step with a kit. Only pads that changed are compiled again. Returns whether all of it is
   * there: pads that found no room while older programs still sound keep theirs, and the kit is to be loaded again soon.
   */
  load(kit: Kit): boolean
  slotOf(padId: PadId): number
  padIdOf(slot: number): PadId | undefined
}

interface Loaded {
  readonly programSlot: number
  readonly inputs: readonly unknown[]
}

interface Placed {
  region: Region
  users: number
}

/**
 * Keeps programs and samples for the pads of one kit. `audioOf` gives decoded audio, or undefined while it is on its
 * way; call `load` again when it has come.
 */
export function createLoader(
  memory: EngineMemory,
  store: SampleStore,
  sampleRateHz: number,
  audioOf: (audio: AudioHash) => Audio | undefined,
  events?: LoaderEvents,
): KitLoader {
  const slots = new Map<PadId, number>()
  const loaded = new Map<PadId, Loaded>()
  const placed = new Map<string, Placed>()
  const retired: { programSlot: number; keys: string[]; sinceFrame: number }[] = []
  const keysOf = new Map<number, string[]>()
  const arena = createArena(memory)

  function slotOf(padId: PadId): number {
    let slot = slots.get(padId)
    if (slot === undefined) {
      const taken = new Set(slots.values())
      slot = 0
      while (taken.has(slot)) slot++
      if (slot >= MAX_PADS) throw new Error(`The engine plays at most ${MAX_PADS} pads.`)
      slots.set(padId, slot)
    }
    return slot
  }

  function regionOf(clip: Clip, keys: string[]): Region | undefined {
    const key = clipKey(clip)
    let entry = placed.get(key)
    if (!entry) {
      const audio = audioOf(clip.audio)
      if (!audio || audio.channels.length === 0) return undefined
      entry = { region: store.place(clipSamples(audio, clip), audio.sampleRateHz), users: 0 }
      placed.set(key, entry)
    }
    entry.users++
    keys.push(key)
    return entry.region
  }

  function loadPad(kit: Kit, pad: Pad): boolean {
    const inputs = padInputs(kit, pad, audioOf)
    const before = loaded.get(pad.id)
    if (before && sameItems(before.inputs, inputs)) return true
    const keys: string[] = []
    const program = compilePad(kit, pad, { sampleRateHz, slotOf, regionOf: (clip) => regionOf(clip, keys) })
    const programSlot = arena.put(program)
    if (programSlot === undefined) {
      for (const key of keys) unuse(key)
      if (retired.length === 0) throw new Error('The pads of this kit hold more cells than the engine has room for.')
      return false
    }
    events?.arenaWritten(memory.directory[programSlot], program.length)
    keysOf.set(programSlot, keys)
    loaded.set(pad.id, { programSlot, inputs })
    Atomics.store(memory.padTable, slotOf(pad.id), programSlot)
    if (before) retire(before.programSlot)
    return true
  }

  function retire(programSlot: number): void {
    retired.push({ programSlot, keys: keysOf.get(programSlot) ?? [], sinceFrame: memory.status[StatusField.frame] })
    keysOf.delete(programSlot)
  }

  /** Frees programs that no voice reads any more, once the engine has surely seen the switch. */
  function sweep(): void {
    for (let i = retired.length - 1; i >= 0; i--) {
      const { programSlot, keys, sinceFrame } = retired[i]
      if (memory.uses[programSlot] > 0 || memory.status[StatusField.frame] - sinceFrame < sampleRateHz / 4) continue
      arena.free(programSlot)
      for (const key of keys) unuse(key)
      retired.splice(i, 1)
    }
  }

  function unuse(key: string): void {
    const entry = placed.get(key)
    if (!entry || --entry.users > 0) return
    store.free(entry.region)
    placed.delete(key)
  }

  return {
    load(kit) {
      sweep()
      memory.kit[KitField.gain] = dbToGain(valueOf(kit, 'gainDb'))
      memory.kit[KitField.maxStrikes] = kit.maxStrikes ?? 64
      memory.kit[KitField.seed] = kit.seed
      const present = new Set(kit.pads.map((pad) => pad.id))
      for (const [padId, entry] of [...loaded]) {
        if (present.has(padId)) continue
        Atomics.store(memory.padTable, slotOf(padId), 0)
        retire(entry.programSlot)
        loaded.delete(padId)
        slots.delete(padId)
      }
      for (const pad of kit.pads) slotOf(pad.id)
      const isWhole = kit.pads.map((pad) => loadPad(kit, pad)).every((done) => done)
      events?.tablesChanged()
      return isWhole
    },
    slotOf,
    padIdOf: (slot) => [...slots].find(([, other]) => other === slot)?.[0],
  }
}

/** What a pad's program depends on, for comparing by reference. */
function padInputs(kit: Kit, pad: Pad, audioOf: (audio: AudioHash) => Audio | undefined): unknown[] {
  const leaders: unknown[] = []
  for (let at = pad.leansOn; at && leaders.length < 128;) {
    const leader = kit.pads.find((other) => other.id === at)
    leaders.push(leader)
    at = leader?.leansOn
  }
  const chokes = chokedBy(kit, pad.id).flatMap((tie) => [tie.padId, tie.fadeSeconds])
  const group = kit.ties.find((tie) => tie.kind === 'chokeGroup' && tie.pads.includes(pad.id))
  const present = clipsOfPad(pad).map((clip) => audioOf(clip.audio) !== undefined)
  const own = padSettings(kit, pad).bus
  const buses = [own, ...pad.rays.map((ray) => ray.bus)].map((id) => id && kit.buses.find((bus) => bus.id === id))
  const links = kit.ties.filter((tie) => concerns(tie, pad.id))
  return [
    pad,
    ...buses,
    ...leaders,
    ...links,
    group?.kind === 'chokeGroup' ? group.maxStrikes : undefined,
    group?.id,
    ...chokes,
    ...present,
  ]
}

/** Whether a tie leads a strike of a pad elsewhere, strikes others along with it, or limits it. */
function concerns(tie: Kit['ties'][number], padId: PadId): boolean {
  if (tie.kind === 'alsoStrike') return tie.from === padId
  if (tie.kind === 'openings') return tie.steps.some((step) => step.pad === padId)
  return (tie.kind === 'takeTurns' || tie.kind === 'limit') && tie.pads.includes(padId)
}

function sameItems(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((item, i) => item === b[i])
}

/** First-fit places for programs in the arena. Slot 0 stands for no program. */
function createArena(memory: EngineMemory) {
  const used = new Map<number, { start: number; length: number }>()
  return {
    /** Nothing where there is no room (now). */
    put(program: Float64Array): number | undefined {
      let slot = 1
      while (used.has(slot)) slot++
      if (slot >= PROGRAM_SLOTS) return undefined
      const runs = [...used.values()].sort((a, b) => a.start - b.start)
      let start: number = Head.length // offset 0 is never a program
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
