import type { Band, Bus, Groove, Kit, Pad } from './kit'

/** What a kit must hold beyond the form of its parts; the sentence says which rule is broken. */
export function brokenRule(kit: Pick<Kit, 'pads' | 'ties' | 'buses' | 'grooves' | 'inserts'>): string | undefined {
  const doubled =
    doubledId('pads', kit.pads) ?? doubledId('buses', kit.buses) ?? doubledId('ties', kit.ties) ?? doubledId('grooves', kit.grooves)
  const inserts = [...kit.inserts, ...kit.buses.flatMap((bus) => bus.inserts)]
  return (
    doubled ??
    doubledId('effects', inserts) ??
    circleOf(kit.pads) ??
    busCircleOf(kit.buses) ??
    firstOf(kit.pads, brokenPadRule) ??
    firstOf(kit.grooves, brokenGrooveRule)
  )
}

const goodGrooves = new WeakSet<Groove>()

/** The rules of one groove: its beads have an id each. */
function brokenGrooveRule(groove: Groove): string | undefined {
  if (goodGrooves.has(groove)) return undefined
  const fault = doubledId('beads', groove.strings.flatMap(({ beads }) => beads)) // prettier-ignore
  if (!fault) goodGrooves.add(groove)
  return fault
}

/** What buses send, and what they are keyed by, never comes back to where it came from. */
function busCircleOf(buses: readonly Bus[]): string | undefined {
  const next = new Map<string, string[]>(
    buses.map((bus) => [bus.id, [bus.out, ...bus.sends.map(({ busId }) => busId)].filter((id) => id !== undefined)]),
  )
  const done = new Set<string>()
  const way = new Set<string>()
  const comesBack = (id: string): boolean => {
    if (way.has(id)) return true
    if (done.has(id)) return false
    way.add(id)
    const found = (next.get(id) ?? []).some(comesBack)
    way.delete(id)
    done.add(id)
    return found
  }
  return buses.some(({ id }) => comesBack(id)) ? 'Buses cannot send to each other in a circle.' : undefined
}

const goodPads = new WeakSet<Pad>()

/** The rules of one pad: its rays, bands and turns have an id each. Pads looked at before are not looked at again. */
export function brokenPadRule(pad: Pad): string | undefined {
  if (goodPads.has(pad)) return undefined
  const lists = [pad.bands, ...pad.rays.map((ray): Band[] => (ray.source.kind === 'clips' && ray.source.bands) || [])]
  const fault =
    doubledId('rays', pad.rays) ??
    firstOf(lists, (bands) => doubledId('bands', bands)) ??
    doubledId('turns', lists.flat().flatMap((band) => band.turns)) // prettier-ignore
  if (!fault) goodPads.add(pad)
  return fault
}

function doubledId(what: string, list: readonly { readonly id: string }[]): string | undefined {
  const seen = new Set<string>()
  for (const { id } of list) {
    if (seen.has(id)) return `Two ${what} have the same id, ${id}.`
    seen.add(id)
  }
  return undefined
}

/** Pads lean on each other in a line that ends. */
function circleOf(pads: readonly Pad[]): string | undefined {
  const leaders = new Map<string, string | undefined>(pads.map((pad) => [pad.id, pad.leansOn]))
  const ends = new Set<string>()
  for (const pad of pads) {
    if (!pad.leansOn) continue
    const way = new Set<string>()
    for (let at: string | undefined = pad.id; at && !ends.has(at); at = leaders.get(at)) {
      if (way.has(at)) return 'Pads cannot lean on each other in a circle.'
      way.add(at)
    }
    for (const id of way) ends.add(id)
  }
  return undefined
}

function firstOf<T>(list: readonly T[], fault: (item: T) => string | undefined): string | undefined {
  for (const item of list) {
    const found = fault(item)
    if (found) return found
  }
  return undefined
}
