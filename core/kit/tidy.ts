import type { PadId } from './ids'
import type { Band, Groove, Kit, Pad, Ray, Tie, Turn } from './kit'
import { merge } from './list'

/**
 * The kit without what names something that is not there: clips of rays that are gone, ties and strings of pads, ways to
 * buses. So it does not matter which of two devices was first when one took a pad away and the other tied it. The very
 * same kit where nothing is to be done. `before`, a tidy kit this one was made from, saves looking at what both share.
 */
export function tidied(kit: Kit, before?: Kit): Kit {
  if (kit === before) return kit
  const padIds = new Set<string>(kit.pads.map((pad) => pad.id))
  const busIds = new Set<string>(kit.buses.map((bus) => bus.id))
  const gone = before !== undefined && (before.buses.some((bus) => !busIds.has(bus.id)) || before.pads.some((pad) => !padIds.has(pad.id)))
  const known = gone ? undefined : new Set<unknown>([...(before?.pads ?? []), ...(before?.ties ?? []), ...(before?.grooves ?? [])])
  const pads = mapKept(kit.pads, (pad) => (known?.has(pad) ? pad : tidyPad(pad, padIds, busIds)))
  const ties = mapKept(kit.ties, (tie) => (known?.has(tie) ? tie : tidyTie(tie, padIds)))
  const grooves = mapKept(kit.grooves, (groove) => (known?.has(groove) ? groove : tidyGroove(groove, padIds)))
  return pads === kit.pads && ties === kit.ties && grooves === kit.grooves ? kit : { ...kit, pads, ties, grooves }
}

/** Maps a list, leaving out what comes to nothing; the very same list when every item stays as it is. */
function mapKept<T>(list: T[], change: (item: T) => T | undefined): T[] {
  let changed = false
  const result = list.flatMap((item) => {
    const next = change(item)
    changed ||= next !== item
    return next === undefined ? [] : [next]
  })
  return changed ? result : list
}

function tidyPad(pad: Pad, padIds: ReadonlySet<string>, busIds: ReadonlySet<string>): Pad {
  const rayIds = new Set<string>(pad.rays.map((ray) => ray.id))
  const rays = mapKept(pad.rays, (ray) => tidyRay(ray, rayIds, busIds))
  const bands = tidyBands(pad.bands, rayIds)
  const own = tidyOwn(pad.own, rayIds, busIds)
  const isSame = rays === pad.rays && bands === pad.bands && own === pad.own
  const kept = isSame ? pad : { ...pad, rays, bands, own }
  return kept.leansOn && !padIds.has(kept.leansOn) ? without(kept, 'leansOn') : kept
}

function tidyOwn(own: Pad['own'], rayIds: ReadonlySet<string>, busIds: ReadonlySet<string>): Pad['own'] {
  const kept = own.bus && !busIds.has(own.bus) ? without(own, 'bus') : own
  if (!kept.responses) return kept
  const responses = mapKept(kept.responses, (one) => (one.to.rayId !== undefined && !rayIds.has(one.to.rayId) ? undefined : one))
  return merge(kept, { responses })
}

function tidyRay(ray: Ray, rayIds: ReadonlySet<string>, busIds: ReadonlySet<string>): Ray {
  const routed = ray.bus && !busIds.has(ray.bus) ? without(ray, 'bus') : ray
  const sends = mapKept(routed.sends, (send) => (busIds.has(send.busId) ? send : undefined))
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
function tidyTie(tie: Tie, padIds: ReadonlySet<string>): Tie | undefined {
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
    case 'takeTurns':
    case 'loopParts': {
      const pads = mapKept(tie.pads, isHere)
      if (pads.length === 0) return undefined
      return pads === tie.pads ? tie : { ...tie, pads }
    }
  }
}

function tidyGroove(groove: Groove, padIds: ReadonlySet<string>): Groove {
  const strings = mapKept(groove.strings, (string) => (padIds.has(string.padId) ? string : undefined))
  return strings === groove.strings ? groove : { ...groove, strings }
}

function without<T extends object, K extends keyof T>(of: T, key: K): T {
  const { [key]: _gone, ...rest } = of
  return rest as unknown as T
}
