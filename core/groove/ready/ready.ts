import { broadFamily } from '../../kit/families'
import type { Family } from '../../kit/families'
import type { BeadId, GrooveId, MakeId, PadId } from '../../kit/ids'
import { STRAIGHT } from '../../kit/grooves'
import type { Bead, Groove, GrooveString } from '../../kit/grooves'
import type { Kit } from '../../kit/kit'
import { padSettings } from '../../kit/resolve'
import { bare, beadIdAt, divisionOf, inOrder, stepsOf, stringOf } from '../beads/places'
import type { ReadyPattern } from './patterns'

/** Families that stand in for one that a kit has not, the nearest first. */
const INSTEAD: Partial<Record<ReturnType<typeof broadFamily>, readonly Family[]>> = {
  kick: ['lowTom', 'tom', 'midTom'],
  snare: ['clap', 'wood', 'tom', 'noise'],
  hat: ['shaker', 'cymbal', 'bell', 'noise'],
  clap: ['snare', 'wood', 'noise'],
  tom: ['kick', 'snare', 'wood'],
  shaker: ['hat', 'noise', 'cymbal'],
  bell: ['wood', 'cymbal', 'hat'],
  wood: ['bell', 'clap', 'snare'],
  cymbal: ['hat', 'noise', 'bell'],
}

export interface ReadyOnKit {
  readonly groove: Groove
  /** Families for which a kit has nothing: their strings are left out. */
  readonly without: readonly Family[]
}

/**
 * A ready groove on the pads of a kit: each string goes to a pad of its family, else to one of a family that stands in for it, else
 * to a pad that has none. Pads that are taken are taken once, as long as others are left for what is played at all.
 */
export function readyOn(makeId: MakeId, kit: Kit, pattern: ReadyPattern): ReadyOnKit {
  const taken = new Set<PadId>()
  const strings: GrooveString[] = []
  const without: Family[] = []
  for (const { family, steps, more } of pattern.strings) {
    const padId = padFor(kit, family, taken)
    if (!padId) {
      without.push(family)
      continue
    }
    taken.add(padId)
    const ids = new Set<string>()
    const beads = [...steps].flatMap((sign, step): Bead[] => {
      if (sign === '.') return []
      const id = beadIdAt(padId, ids, step)
      return [{ id, step, velocity: Number(sign) * 14, ...more?.[step] }]
    })
    strings.push({ padId, beads })
  }
  const { name, stepsPerBeat, swing = STRAIGHT } = pattern
  const groove: Groove = { id: makeId<GrooveId>('groove'), name, lengthSteps: pattern.strings[0]!.steps.length, stepsPerBeat, swing, strings }
  return { groove, without }
} // prettier-ignore

function padFor(kit: Kit, family: Family, taken: ReadonlySet<PadId>): PadId | undefined {
  const free = kit.pads.filter(({ id, bands, rays }) => !taken.has(id) && (bands.length > 0 || rays.some(({ source }) => source.kind !== 'clips' || source.bands))) // prettier-ignore
  const of = (one: Family) => {
    const kinds = free.map((pad) => [pad.id, padSettings(kit, pad).family] as const)
    return (kinds.find(([, kind]) => kind === one) ?? kinds.find(([, kind]) => broadFamily(kind) === broadFamily(one)))?.[0]
  }
  for (const one of [family, ...(INSTEAD[broadFamily(family)] ?? []), 'other' as const]) {
    const found = of(one)
    if (found) return found
  }
  return undefined
}

/**
 * A fill at the end of every so manieth lap of a groove: its beads sound in that lap alone, and what stood in their place sounds in
 * the others. As it is where it is shorter than the fill.
 */
export function withFill(groove: Groove, fill: Groove, everyLaps = 4): Groove {
  const fillBeats = fill.lengthSteps / fill.stepsPerBeat
  const startBeat = groove.lengthSteps / groove.stepsPerBeat - fillBeats
  if (startBeat < 0) return groove
  const others = { of: everyLaps, in: Array.from({ length: everyLaps - 1 }, (_, i) => i + 1) }
  const inLast = { of: everyLaps, in: [everyLaps] }
  const struck = new Set(fill.strings.map(({ padId }) => padId))
  const silenced = groove.strings.map((string) => {
    const division = divisionOf(groove, string)
    const gives = ({ step, when }: Bead) => struck.has(string.padId) && string.lengthSteps === undefined && step / division >= startBeat - 1e-9 && step < stepsOf(groove, string) && !when?.laps // prettier-ignore
    return { ...string, beads: string.beads.map((bead) => (gives(bead) ? { ...bead, when: { ...bead.when, laps: others } } : bead)) }
  })
  let out: Groove = { ...groove, strings: silenced }
  for (const { padId, beads } of fill.strings) {
    const string = stringOf(out, padId)
    const division = divisionOf(out, string)
    const taken = new Set<string>(string.beads.map(({ id }) => id))
    const added = beads.map((bead): Bead => {
      const at = (startBeat + bead.step / fill.stepsPerBeat) * division
      const step = Math.round(at)
      const offset = Math.round((at - step) * 1e4) / 1e4
      const id: BeadId = beadIdAt(padId, taken, step)
      taken.add(id)
      return bare({ ...bead, id, step, offset: offset === 0 ? bead.offset : offset, when: { laps: inLast } })
    })
    const changed = { ...string, beads: inOrder([...string.beads, ...added]) }
    const isThere = out.strings.some((one) => one.padId === padId)
    out = { ...out, strings: isThere ? out.strings.map((one) => (one.padId === padId ? changed : one)) : [...out.strings, changed] }
  }
  return out
}
