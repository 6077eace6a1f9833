import type { PadId } from './ids'
import type { Band, Groove, Kit, Pad, Ray, Tie, Turn } from './kit'
import { mapKept, without } from './list'
import { idsOfCells, tidyAddresses, tidyBeads, tidyBus, tidyKeys, tidySends, tidySource } from './tidy-references'

/**
 * The kit without what names something that is not there: clips of rays that are gone, ties and strings of pads, ways to
 * buses. So it does not matter which of two devices was first when one took a pad away and the other tied it. The very
 * same kit where nothing is to be done. `before`, a tidy kit this one was made from, saves looking at what both share.
 */
export function tidied(kit: Kit, before?: Kit): Kit {
  if (kit === before) return kit
  const padIds = new Set<string>(kit.pads.map((pad) => pad.id))
  const busIds = new Set<string>(kit.buses.map((bus) => bus.id))
  const sources = new Set<string>([...kit.oscillators, ...kit.tillers].map((one) => one.id))
  const gone =
    before !== undefined &&
    (isLess(before.buses, kit.buses) || isLess(before.pads, kit.pads) || isLess(before.oscillators, kit.oscillators) || isLess(before.tillers, kit.tillers)) // prettier-ignore
  const known = gone ? undefined : new Set<unknown>([...(before?.pads ?? []), ...(before?.ties ?? []), ...(before?.buses ?? [])])
  const pads = mapKept(kit.pads, (pad) => (known?.has(pad) ? pad : tidyPad(pad, padIds, busIds, sources)))
  const buses = mapKept(kit.buses, (bus) => (known?.has(bus) ? bus : tidyBus(bus, busIds)))
  const inserts = tidyKeys(kit.inserts, busIds)
  const areCellsSame = pads === before?.pads
  const cells = lazily(() => new Set(pads.flatMap((pad) => idsOfCells(pad))))
  const ties = mapKept(kit.ties, (tie) => (known?.has(tie) && areCellsSame ? tie : tidyTie(tie, padIds, cells)))
  const responses = mapKept(kit.responses, (one) => tidySource(one, sources))
  const { grooves, song } = tidyGrooves(kit, pads, padIds, areCellsSame && !gone ? before : undefined)
  return tidyAddresses(merged(kit, { pads, buses, inserts, ties, responses, grooves, song }))
}

/** Whether something of a list is no longer there. */
function isLess(before: readonly { readonly id: string }[], now: readonly { readonly id: string }[]): boolean {
  if (before === now) return false
  const ids = new Set(now.map(({ id }) => id))
  return before.some(({ id }) => !ids.has(id))
}

function lazily<T>(make: () => T): () => T {
  let made: T | undefined
  return () => (made ??= make())
}

/** The very same object where every field is the very same. */
function merged(kit: Kit, fields: Partial<Kit>): Kit {
  return (Object.keys(fields) as (keyof Kit)[]).every((key) => kit[key] === fields[key]) ? kit : { ...kit, ...fields }
}

/** Grooves of pads that are there, and a song of grooves that are; those of a kit before whose pads are the same stay. */
function tidyGrooves(kit: Kit, pads: readonly Pad[], padIds: ReadonlySet<string>, before: Kit | undefined): Pick<Kit, 'grooves' | 'song'> {
  const grooveIds = new Set<string>(kit.grooves.map(({ id }) => id))
  const known = before && !isLess(before.grooves, kit.grooves) ? new Set(before.grooves) : undefined
  const padOf = new Map<string, Pad>(pads.map((pad) => [pad.id, pad]))
  const grooves = mapKept(kit.grooves, (groove) => (known?.has(groove) ? groove : tidyBeads(tidyGroove(groove, padIds), padOf, grooveIds)))
  return { grooves, song: mapKept(kit.song, (step) => (grooveIds.has(step.groove) ? step : undefined)) }
}

function tidyPad(pad: Pad, padIds: ReadonlySet<string>, busIds: ReadonlySet<string>, sources: ReadonlySet<string>): Pad {
  const rayIds = new Set<string>(pad.rays.map((ray) => ray.id))
  const rays = mapKept(pad.rays, (ray) => tidyRay(ray, rayIds, busIds))
  const bands = tidyBands(pad.bands, rayIds)
  const own = tidyOwn(pad.own, rayIds, busIds, sources)
  const isSame = rays === pad.rays && bands === pad.bands && own === pad.own
  const kept = isSame ? pad : { ...pad, rays, bands, own }
  return kept.leansOn && !padIds.has(kept.leansOn) ? without(kept, 'leansOn') : kept
}

function tidyOwn(own: Pad['own'], rayIds: ReadonlySet<string>, busIds: ReadonlySet<string>, sources: ReadonlySet<string>): Pad['own'] {
  const kept = own.bus && !busIds.has(own.bus) ? without(own, 'bus') : own
  if (!kept.responses) return kept
  const responses = mapKept(kept.responses, (one) => {
    const to = mapKept(one.to, (target) => (target.ray !== undefined && !rayIds.has(target.ray) ? undefined : target))
    if (to.length === 0 && one.to.length > 0) return undefined
    return tidySource(to === one.to ? one : { ...one, to }, sources)
  })
  return responses === kept.responses ? kept : { ...kept, responses }
}

function tidyRay(ray: Ray, rayIds: ReadonlySet<string>, busIds: ReadonlySet<string>): Ray {
  const routed = ray.bus && !busIds.has(ray.bus) ? without(ray, 'bus') : ray
  const sends = tidySends(routed.sends, busIds)
  const sent = sends === routed.sends ? routed : { ...routed, sends }
  if (sent.source.kind !== 'clips' || !sent.source.bands) return sent
  const bands = tidyBands(sent.source.bands, rayIds)
  return bands === sent.source.bands ? sent : { ...sent, source: { ...sent.source, bands } }
}

/** Bands stand from soft to loud, whoever put them in, and hold clips of the pad's rays alone. */
function tidyBands(bands: Band[], rayIds: ReadonlySet<string>): Band[] {
  const kept = mapKept(bands, (band) => {
    const turns = mapKept(band.turns, (turn) => tidyTurn(turn, rayIds))
    return turns === band.turns ? band : { ...band, turns }
  })
  if (kept.length > 0 && kept.every((band) => band.fromVelocity > 1)) return tidyBands(beginAtOne(kept), rayIds)
  const isSorted = kept.every((band, i) => i === 0 || band.fromVelocity >= kept[i - 1]!.fromVelocity)
  return isSorted ? kept : [...kept].sort((a, b) => a.fromVelocity - b.fromVelocity)
}

/** Where the softest band was taken away, the next one reaches down to the softest strike. */
function beginAtOne(bands: readonly Band[]): Band[] {
  const softest = Math.min(...bands.map((band) => band.fromVelocity))
  return bands.map((band) => (band.fromVelocity === softest ? { ...band, fromVelocity: 1 } : band))
}

function tidyTurn(turn: Turn, rayIds: ReadonlySet<string>): Turn {
  const entries = Object.entries(turn.clips)
  if (entries.every(([rayId]) => rayIds.has(rayId))) return turn
  return { ...turn, clips: Object.fromEntries(entries.filter(([rayId]) => rayIds.has(rayId))) }
}

/** A tie among the pads that are there; nothing when it ties nothing any more. */
function tidyTie(given: Tie, padIds: ReadonlySet<string>, cells: () => ReadonlySet<string>): Tie | undefined {
  const tie = tidyReach(given, cells)
  const isHere = (id: PadId) => (padIds.has(id) ? id : undefined)
  switch (tie.kind) {
    case 'choke': {
      const to = mapKept(tie.to, isHere)
      if (!padIds.has(tie.from) || to.length === 0) return undefined
      return to === tie.to ? tie : { ...tie, to }
    }
    case 'alsoStrike': {
      const to = mapKept(tie.to, (one) => (padIds.has(one.pad) ? one : undefined))
      if (!padIds.has(tie.from) || to.length === 0) return undefined
      return to === tie.to ? tie : { ...tie, to }
    }
    case 'openings': {
      const steps = mapKept(tie.steps, (step) => (padIds.has(step.pad) ? step : undefined))
      if (steps.length === 0) return undefined
      return steps === tie.steps ? tie : { ...tie, steps }
    }
    case 'chokeGroup':
    case 'limit':
    case 'takeTurns': {
      const pads = mapKept(tie.pads, isHere)
      if (pads.length === 0) return undefined
      return pads === tie.pads ? tie : { ...tie, pads }
    }
    case 'spots': {
      const spots = mapKept(tie.spots, (one) => (padIds.has(one.pad) ? one : undefined))
      if (spots.length === 0) return undefined
      return spots === tie.spots ? tie : { ...tie, spots }
    }
    case 'parts': {
      const parts = mapKept(tie.parts, (one) => (padIds.has(one.pad) ? one : undefined))
      if (parts.length === 0) return undefined
      return parts === tie.parts ? tie : { ...tie, parts }
    }
  }
}

/** A choke that reaches rays and bands reaches those that are there; all, where none of them is left. */
function tidyReach(tie: Tie, cells: () => ReadonlySet<string>): Tie {
  if (!('reach' in tie) || !tie.reach) return tie
  const { rays, bands } = tie.reach
  const isHere = <Id extends string>(id: Id) => (cells().has(id) ? id : undefined)
  const kept = { rays: rays && mapKept(rays, isHere), bands: bands && mapKept(bands, isHere) }
  if (kept.rays === rays && kept.bands === bands) return tie
  const reach = Object.fromEntries(Object.entries(kept).filter(([, list]) => list && list.length > 0))
  return Object.keys(reach).length === 0 ? without(tie, 'reach' as never) : { ...tie, reach }
}

function tidyGroove(groove: Groove, padIds: ReadonlySet<string>): Groove {
  const strings = mapKept(groove.strings, (string) => (padIds.has(string.padId) ? string : undefined))
  return strings === groove.strings ? groove : { ...groove, strings }
}
