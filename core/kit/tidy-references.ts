import type { Bead, Bus, Groove, GrooveString, Kit, Pad, Send } from './kit'
import { mapKept, without } from './list'
import type { Address, KitResponse, Response } from './shape'

/** Buses without ways to buses that are gone. */
export function tidyBus(bus: Bus, busIds: ReadonlySet<string>): Bus {
  const out = bus.out && !busIds.has(bus.out) ? without(bus, 'out') : bus
  const sends = tidySends(out.sends, busIds)
  const inserts = tidyKeys(out.inserts, busIds)
  return sends === out.sends && inserts === out.inserts ? out : { ...out, sends, inserts }
}

export function tidySends(sends: Send[], busIds: ReadonlySet<string>): Send[] {
  return mapKept(sends, (send) => (busIds.has(send.busId) ? send : undefined))
}

/** What is put into a bus listens to itself again where the bus it listened to is gone. */
export function tidyKeys(inserts: Bus['inserts'], busIds: ReadonlySet<string>): Bus['inserts'] {
  return mapKept(inserts, (insert) => (insert.key && !busIds.has(insert.key) ? without(insert, 'key') : insert))
}

/** A response whose oscillator or tiller is gone; it stays, and says of itself that nothing moves it. */
export function tidySource<R extends Response | KitResponse>(response: R, sources: ReadonlySet<string>): R {
  const { from } = response
  return from.id === undefined || sources.has(from.id) ? response : { ...response, from: without(from, 'id') }
}

/** Strings whose beads name nothing but their steps: they need not be looked through again. */
const plain = new WeakSet<GrooveString>()

function namesNothing({ when, band, turn, locks }: Bead): boolean {
  return when === undefined && band === undefined && turn === undefined && locks === undefined
}

/** A groove whose beads name no bead, band or turn that is gone, laid over by a groove that is there. */
export function tidyBeads(groove: Groove, padOf: ReadonlyMap<string, Pad>, grooveIds: ReadonlySet<string>): Groove {
  const beadIds = lazySet(() => groove.strings.flatMap(({ beads }) => beads.map(({ id }) => id)))
  const strings = mapKept(groove.strings, (string) => {
    if (plain.has(string)) return string
    if (string.beads.every(namesNothing)) {
      plain.add(string)
      return string
    }
    const known = lazySet(() => idsOfCells(padOf.get(string.padId)))
    const beads = mapKept(string.beads, (bead) => {
      let kept = bead
      const { when } = kept
      if (when?.after && !beadIds().has(when.after)) kept = { ...kept, when: without(when, 'after') }
      if (kept.when?.unless && !beadIds().has(kept.when.unless)) kept = { ...kept, when: without(kept.when, 'unless') }
      if (kept.band && !known().has(kept.band)) kept = without(kept, 'band')
      if (kept.turn && !known().has(kept.turn)) kept = without(kept, 'turn')
      if (kept.locks?.some(({ ray }) => ray !== undefined && !known().has(ray)))
        kept = { ...kept, locks: kept.locks.filter(({ ray }) => ray === undefined || known().has(ray)) }
      return kept
    })
    return beads === string.beads ? string : { ...string, beads }
  })
  const kept = strings === groove.strings ? groove : { ...groove, strings }
  return kept.feel && !grooveIds.has(kept.feel.grooveId) ? without(kept, 'feel') : kept
}

/** The ids of a pad's rays, bands and turns. */
export function idsOfCells(pad: Pad | undefined): string[] {
  if (!pad) return []
  const lists = [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])]
  return [...pad.rays.map(({ id }) => id), ...lists.flat().flatMap((band) => [band.id, ...band.turns.map(({ id }) => id)])]
}

function lazySet(make: () => readonly string[]): () => ReadonlySet<string> {
  let made: ReadonlySet<string> | undefined
  return () => (made ??= new Set(make()))
}

/** Whether something of a kit is addressed from elsewhere in it at all. */
function hasAddresses(kit: Kit): boolean {
  return kit.responses.length > 0 || kit.tillers.some(({ to }) => to.length > 0) || kit.grooves.some(({ lanes }) => lanes !== undefined)
}

/** The kit without addresses of what is gone: in its responses, its tillers and the lanes of its grooves. */
export function tidyAddresses(kit: Kit): Kit {
  if (!hasAddresses(kit)) return kit
  const ids = new Set<string>([
    ...kit.buses.flatMap(({ id, inserts }) => [`bus ${id}`, ...inserts.map((insert) => `insert ${insert.id}`)]),
    ...kit.inserts.map((insert) => `insert ${insert.id}`),
    ...kit.pads.flatMap((pad) => [`pad ${pad.id}`, ...idsByScope(pad)]),
  ])
  const isThere = ({ scope, id }: Address) => scope === 'kit' || ids.has(`${scope} ${id}`)
  const responses = mapKept(kit.responses, (one) => {
    const to = mapKept(one.to, (address) => (isThere(address) ? address : undefined))
    if (to.length === 0 && one.to.length > 0) return undefined
    return to === one.to ? one : { ...one, to }
  })
  const tillers = mapKept(kit.tillers, (tiller) => {
    const to = mapKept(tiller.to, (one) => (isThere(one.address) ? one : undefined))
    return to === tiller.to ? tiller : { ...tiller, to }
  })
  const grooves = mapKept(kit.grooves, (groove) => {
    if (!groove.lanes) return groove
    const lanes = mapKept(groove.lanes, (lane) => (isThere(lane.address) ? lane : undefined))
    return lanes === groove.lanes ? groove : { ...groove, lanes }
  })
  const isSame = responses === kit.responses && tillers === kit.tillers && grooves === kit.grooves
  return isSame ? kit : { ...kit, responses, tillers, grooves }
}

function idsByScope(pad: Pad): string[] {
  const lists = [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])]
  const bands = lists.flat()
  return [
    ...pad.rays.map(({ id }) => `ray ${id}`),
    ...bands.map(({ id }) => `band ${id}`),
    ...bands.flatMap(({ turns }) => turns.map(({ id }) => `turn ${id}`)),
  ]
}
