import type { BeadId, PadId } from '../../kit/ids'
import type { Bead, Groove } from '../../kit/grooves'
import { bare, beadIdAt, beadsOf, divisionOf, placeAt, stepsOf, straightBeat, stringOf, takenIds, withString } from './places'
import type { PlacedBead } from './places'

type Ids = ReadonlySet<BeadId>
type Fields = Partial<Omit<Bead, 'id'>>

/** A groove, and what of it is chosen after an edit. */
export interface Edited {
  readonly groove: Groove
  readonly ids: ReadonlySet<BeadId>
}

/** Puts a bead on a step of a pad's string, beside what stands there; gives its id too. */
export function withNewBead(
  groove: Groove,
  padId: PadId,
  step: number,
  velocity: number,
): { readonly groove: Groove; readonly id: BeadId } {
  const id = beadIdAt(padId, takenIds(groove), step)
  return { groove: withString(groove, padId, (beads) => [...beads, { id, step, velocity }]), id }
}

/** The groove with the chosen beads changed; a field of `undefined` is taken away. */
export function withBeads(groove: Groove, ids: Ids, change: (placed: PlacedBead) => Fields): Groove {
  if (ids.size === 0) return groove
  const strings = groove.strings.map((string) => {
    if (!string.beads.some(({ id }) => ids.has(id))) return string
    const beads = string.beads.map((bead) => (ids.has(bead.id) ? bare({ ...bead, ...change({ bead, string }) }) : bead))
    return { ...string, beads: beads.sort((a, b) => a.step - b.step || (a.offset ?? 0) - (b.offset ?? 0)) }
  })
  return { ...groove, strings }
}

/** Without the chosen beads; what waited for one of them waits for it no more. */
export function withoutBeads(groove: Groove, ids: Ids): Groove {
  if (ids.size === 0) return groove
  const strings = groove.strings.map((string) => {
    const beads = string.beads.filter(({ id }) => !ids.has(id)).map((bead) => waitingFor(bead, ids))
    return beads.length === string.beads.length && beads.every((bead, i) => bead === string.beads[i]) ? string : { ...string, beads }
  })
  return { ...groove, strings }
}

function waitingFor(bead: Bead, gone: Ids): Bead {
  const { after, unless, ...rest } = bead.when ?? {}
  if (!(after && gone.has(after)) && !(unless && gone.has(unless))) return bead
  const when = { ...rest, ...(after && !gone.has(after) ? { after } : {}), ...(unless && !gone.has(unless) ? { unless } : {}) }
  return bare({ ...bead, when: Object.keys(when).length > 0 ? when : undefined })
}

/** Chosen beads louder or softer by so much, each within 1..127. */
export function louderBy(groove: Groove, ids: Ids, by: number): Groove {
  return withBeads(groove, ids, ({ bead }) => ({ velocity: velocityOf(bead.velocity + by) }))
}

const velocityOf = (value: number) => Math.min(127, Math.max(1, Math.round(value)))

/**
 * Chosen beads moved as one by so many steps of their strings, and by so many strings in `order`, as far as all of them stay within.
 * What stood where one comes to gives way.
 */
export function movedBeads(groove: Groove, ids: Ids, bySteps: number, order: readonly PadId[] = [], byStrings = 0): Groove {
  const chosen = beadsOf(groove).filter(({ bead }) => ids.has(bead.id))
  if (chosen.length === 0) return groove
  const rows = chosen.map(({ string }) => order.indexOf(string.padId))
  const rowsBy = rows.includes(-1) ? 0 : clamp(byStrings, -Math.min(...rows), order.length - 1 - Math.max(...rows))
  const goals = chosen.map((one, i) => ({ ...one, padId: rowsBy === 0 ? one.string.padId : order[rows[i]! + rowsBy]! }))
  const least = Math.max(...goals.map(({ bead }) => -bead.step))
  const most = Math.min(...goals.map(({ bead, padId }) => stepsOf(groove, stringOf(groove, padId)) - 1 - bead.step))
  const stepsBy = least > most ? 0 : clamp(bySteps, least, most)
  if (stepsBy === 0 && rowsBy === 0) return groove
  return laid(groove, ids, goals.map(({ bead, string, padId }) => ({ padId, bead: padId === string.padId ? { ...bead, step: bead.step + stepsBy } : free({ ...bead, step: bead.step + stepsBy }) }))) // prettier-ignore
}

const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))

/** What a bead keeps on another pad: all but which of a pad's own cells, clips and rays it asks for. */
function free({ band: _band, turn: _turn, clip: _clip, locks, ...bead }: Bead): Bead {
  const kept = locks?.filter(({ ray }) => ray === undefined)
  return kept && kept.length > 0 ? { ...bead, locks: kept } : bead
}

interface Goal {
  readonly padId: PadId
  readonly bead: Bead
}

/** Beads laid in the place of those that were taken up; what stood on the same step gives way. */
function laid(groove: Groove, taken: Ids, goals: readonly Goal[]): Groove {
  const strings = new Map<PadId, Bead[]>()
  for (const { padId, bead } of goals) strings.set(padId, [...(strings.get(padId) ?? []), bead])
  let out: Groove = { ...groove, strings: groove.strings.map((string) => ({ ...string, beads: string.beads.filter(({ id }) => !taken.has(id)) })) } // prettier-ignore
  for (const [padId, beads] of strings) {
    const steps = new Set(beads.map(({ step }) => step))
    out = withString(out, padId, (there) => [...there.filter(({ step }) => !steps.has(step)), ...beads.map(bare)])
  }
  return withoutLost(groove, out)
}

/** What waited for beads that gave way waits for them no more. */
function withoutLost(before: Groove, after: Groove): Groove {
  const kept = takenIds(after)
  const gone = new Set(before.strings.flatMap(({ beads }) => beads.flatMap(({ id }) => (kept.has(id) ? [] : [id]))))
  return gone.size > 0 ? withoutBeads(after, gone) : after
}

/** From the first of the chosen beads to the last, by time, one value to another in even steps of time. */
export function ramped(groove: Groove, ids: Ids, from: number, to: number, put: (value: number, placed: PlacedBead) => Fields): Groove {
  const beats = beadsOf(groove).filter(({ bead }) => ids.has(bead.id)).map((one) => straightBeat(groove, one)) // prettier-ignore
  const [first, last] = [Math.min(...beats), Math.max(...beats)]
  const shareOf = (placed: PlacedBead) => (last > first ? (straightBeat(groove, placed) - first) / (last - first) : 0)
  return withBeads(groove, ids, (placed) => put(from + (to - from) * shareOf(placed), placed))
}

/** Each of the chosen beads with a value drawn between two. `random` gives numbers in 0..1. */
export function drawn(groove: Groove, ids: Ids, low: number, high: number, random: () => number, put: (value: number, placed: PlacedBead) => Fields): Groove {
  return withBeads(groove, ids, (placed) => put(low + (high - low) * random(), placed))
} // prettier-ignore

/** Velocity for `ramped` and `drawn`. */
export const asVelocity = (value: number): Fields => ({ velocity: velocityOf(value) })

/**
 * The chosen beads in another measure of time, about the first of them: 0.5 is twice as fast, 2 half as fast. What no longer falls
 * within its string is left out, and what falls between steps stands off one.
 */
export function stretched(groove: Groove, ids: Ids, factor: number): Edited {
  const chosen = beadsOf(groove).filter(({ bead }) => ids.has(bead.id))
  if (chosen.length === 0) return { groove, ids }
  const first = Math.min(...chosen.map((one) => one.bead.step / divisionOf(groove, one.string)))
  const goals = chosen.flatMap(({ bead, string }): Goal[] => {
    const division = divisionOf(groove, string)
    const from = first * division
    const steps = stepsOf(groove, string)
    const at = from + (bead.step + (bead.offset ?? 0) - from) * factor
    if (at > steps - 0.5) return []
    return [{ padId: string.padId, bead: { ...bead, ...placeAt(at, steps) } }]
  })
  const kept = onePerStep(goals)
  return { groove: laid(groove, ids, kept), ids: new Set(kept.map(({ bead }) => bead.id)) }
}

/** Of several that come to one place of one step the first stays. */
function onePerStep(goals: readonly Goal[]): Goal[] {
  const seen = new Set<string>()
  return goals.filter(({ padId, bead }) => {
    const place = `${padId} ${bead.step} ${bead.offset ?? 0}`
    if (seen.has(place)) return false
    seen.add(place)
    return true
  })
}

/** Beads taken along, with how many strings below the first, and how many steps after the earliest, they stood. */
export interface Copied {
  readonly beads: readonly { readonly row: number; readonly step: number; readonly bead: Bead; readonly padId: PadId }[]
  /** From the first step of what was taken to the first one after it, in steps of its first string, whole beats where it can be. */
  readonly lengthSteps: number
}

export function copiedBeads(groove: Groove, ids: Ids, order: readonly PadId[]): Copied {
  const chosen = beadsOf(groove).filter(({ bead, string }) => ids.has(bead.id) && order.includes(string.padId))
  const firstRow = Math.min(...chosen.map(({ string }) => order.indexOf(string.padId)))
  const firstStep = Math.min(...chosen.map(({ bead }) => bead.step))
  const beads = chosen.map(({ bead, string }) => ({ row: order.indexOf(string.padId) - firstRow, step: bead.step - firstStep, bead, padId: string.padId })) // prettier-ignore
  const span = Math.max(0, ...beads.map(({ step }) => step)) + 1
  const whole = groove.stepsPerBeat
  return { beads, lengthSteps: Math.ceil(span / whole) * whole }
}

/** What was copied put down again from a step of a string on; what does not fit is left out, what stood there gives way. */
export function pasted(groove: Groove, copied: Copied, order: readonly PadId[], padId: PadId, step: number): Edited {
  const top = order.indexOf(padId)
  const taken = takenIds(groove)
  const goals = copied.beads.flatMap((one): Goal[] => {
    const to = order[top + one.row]
    if (top < 0 || to === undefined || step + one.step >= stepsOf(groove, stringOf(groove, to))) return []
    const id = beadIdAt(to, taken, step + one.step)
    taken.add(id)
    const bead = to === one.padId ? one.bead : free(one.bead)
    return [{ padId: to, bead: { ...bead, id, step: step + one.step } }]
  })
  return { groove: laid(groove, new Set(), goals), ids: new Set(goals.map(({ bead }) => bead.id)) }
}

/** An edit of a groove as it was `seen`, with the beads that have come to it meanwhile, where they are not in the edit already. */
export function withLaterBeads(edited: Groove, seen: Groove, later: Groove): Groove {
  const known = new Set([...takenIds(seen), ...takenIds(edited)])
  return later.strings.reduce((groove, { padId, beads }) => {
    const came = beads.filter(({ id }) => !known.has(id))
    return came.length > 0 ? withString(groove, padId, (there) => [...there, ...came]) : groove
  }, edited)
}
