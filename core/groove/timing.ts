import type { GrooveId, MakeId, PadId } from '../kit/ids'
import type { Bead, Groove, GrooveString } from '../kit/grooves'
import type { Kit } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { bare, beadIdAt, divisionOf, inOrder, placeAt, stepsOf, stringOf } from './beads/places'

const MOST_STEPS = 1024
const clampSteps = (steps: number) => Math.min(MOST_STEPS, Math.max(1, Math.round(steps)))

/** Another length in steps. Beads beyond it stay, silent, for when it is made longer again. */
export function withLength(groove: Groove, lengthSteps: number): Groove {
  return { ...groove, lengthSteps: clampSteps(lengthSteps) }
}

/** Another number of steps to a beat, 1..48: every bead stays where it is in time, the groove as long as it is. */
export function withDivision(groove: Groove, stepsPerBeat: number): Groove {
  const factor = stepsPerBeat / groove.stepsPerBeat
  const changed: Groove = { ...groove, stepsPerBeat, lengthSteps: clampSteps(groove.lengthSteps * factor) }
  const strings = groove.strings.map((string) => (string.stepsPerBeat === undefined ? regridded(string, factor) : string))
  return { ...changed, strings }
}

/** Beads on another grid; a length of the string's own goes along. */
function regridded(string: GrooveString, factor: number): GrooveString {
  const beads = string.beads.map((bead) => bare({ ...bead, ...placeAt((bead.step + (bead.offset ?? 0)) * factor, MOST_STEPS) }))
  const own = string.lengthSteps === undefined ? {} : { lengthSteps: clampSteps(string.lengthSteps * factor) }
  return { ...string, ...own, beads: inOrder(beads) }
}

export interface OwnTiming {
  /** Undefined where it goes as its groove does. */
  readonly lengthSteps?: number
  readonly stepsPerBeat?: number
  readonly swing?: number
}

/** A string's own length, division and swing; its beads stay where they are in time where the division changes. */
export function withOwnTiming(groove: Groove, padId: PadId, own: OwnTiming): Groove {
  const string = stringOf(groove, padId)
  const { lengthSteps: _length, stepsPerBeat: _division, swing: _swing, ...rest } = string
  const factor = (own.stepsPerBeat ?? groove.stepsPerBeat) / divisionOf(groove, string)
  const said = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined)) as OwnTiming
  const changed = { ...(factor === 1 ? rest : regridded(rest, factor)), ...said }
  const isThere = groove.strings.some((one) => one.padId === padId)
  if (!isThere) return Object.keys(said).length > 0 ? { ...groove, strings: [...groove.strings, changed] } : groove
  return { ...groove, strings: groove.strings.map((one) => (one.padId === padId ? changed : one)) }
}

/** A groove as a new one beside it: its beads have ids of their own, and wait for each other as they did. */
export function copyOfGroove(makeId: MakeId, groove: Groove, name: string): Groove {
  const id = makeId<GrooveId>('groove')
  const ids = new Map<string, Bead['id']>()
  const taken = new Set<string>()
  for (const { padId, beads } of groove.strings)
    for (const bead of beads) {
      const own = beadIdAt(`${id}.${padId}` as PadId, taken, bead.step)
      taken.add(own)
      ids.set(bead.id, own)
    }
  const strings = groove.strings.map((string) => ({ ...string, beads: string.beads.map((bead) => ({ ...bead, id: ids.get(bead.id)!, ...whenOf(bead, ids) })) })) // prettier-ignore
  return { ...groove, id, name, strings }
}

function whenOf({ when }: Bead, ids: ReadonlyMap<string, Bead['id']>): Pick<Bead, 'when'> {
  if (!when) return {}
  const named = { ...when }
  if (when.after) named.after = ids.get(when.after) ?? when.after
  if (when.unless) named.unless = ids.get(when.unless) ?? when.unless
  return { when: named }
}

/** Without its beads; its length, divisions and what strings have of their own stay. */
export function cleared(groove: Groove): Groove {
  return { ...groove, strings: groove.strings.map((string) => ({ ...string, beads: [] })) }
}

/** A name that none of a kit's grooves has: as it is, or with the next number. */
export function freeGrooveName(kit: Kit, name: string): string {
  const taken = new Set(kit.grooves.map((groove) => groove.name))
  if (!taken.has(name)) return name
  const bareName = name.replace(/ \d+$/, '')
  for (let count = 2; ; count++) if (!taken.has(`${bareName} ${count}`)) return `${bareName} ${count}`
}

/** A groove among a kit's others at another place, 0 first. */
export function grooveMoved(kit: Kit, groove: Groove, index: number): KitEdit[] {
  return [{ type: 'removeGroove', grooveId: groove.id }, { type: 'putGroove', groove, index }, ...(kit.song.length > 0 ? [{ type: 'setKit' as const, fields: { song: kit.song } }] : [])] // prettier-ignore
}

/** The string twice as long, with its beads again in its second half; nothing longer than 1024 steps. */
export function doubledLength(groove: Groove): Groove {
  const lengthSteps = groove.lengthSteps * 2
  if (lengthSteps > MOST_STEPS) return groove
  const strings = groove.strings.map((string) => {
    if (string.lengthSteps !== undefined) return string
    const steps = stepsOf(groove, string)
    const taken = new Set<string>(string.beads.map(({ id }) => id))
    const heard = string.beads.filter(({ step }) => step < steps)
    const again = heard.map((bead) => {
      const id = beadIdAt(string.padId, taken, bead.step + steps)
      taken.add(id)
      return { ...bead, id, step: bead.step + steps }
    })
    return { ...string, beads: inOrder([...heard, ...again]) }
  })
  return { ...groove, lengthSteps, strings }
}
