import type { BeadId, GrooveId, MakeId, PadId } from '../kit/ids'
import type { Bead, Groove, GrooveString } from '../kit/grooves'
import type { Kit } from '../kit/kit'
import { padById, padSettings } from '../kit/resolve'
import { answering } from './answering'
import { freeBead } from './free-bead'

export interface AnsweredGroove {
  readonly groove: Groove
  /** Names of the pads for which none of the kit answers: their strings are left out. */
  readonly without: readonly string[]
}

/**
 * A groove of one kit for another: each string goes to the pad that is the same, of its name, its kind or its family; of two that
 * come to one pad the beads of both stay, where they do not fall on one step. What asks for cells, rays or buses of the other
 * kit is left out.
 */
export function grooveOn(makeId: MakeId, from: Kit, { lanes: _lanes, feel: _feel, ...groove }: Groove, to: Kit): AnsweredGroove {
  const struck = groove.strings.filter(({ beads }) => beads.length > 0).map(({ padId }) => padId)
  const answers = answering({ ...from, pads: from.pads.filter(({ id }) => struck.includes(id)) }, to)
  const id = makeId<GrooveId>('groove')
  const beadIds = new Map<string, BeadId>()
  for (const { beads } of groove.strings) for (const bead of beads) beadIds.set(bead.id, makeId<BeadId>('bead'))
  const strings = new Map<PadId, GrooveString>()
  const without: string[] = []
  for (const { padId, beads, ...timing } of groove.strings) {
    if (beads.length === 0) continue
    const answer = answers.get(padId)
    const pad = padById(from, padId)
    if (!answer) {
      without.push((pad && padSettings(from, pad).name) || 'A pad without a name')
      continue
    }
    const there = strings.get(answer)
    const taken = new Set(there?.beads.map(({ step }) => step))
    const own = beads.filter(({ step }) => !taken.has(step)).map((bead) => answered(bead, beadIds))
    strings.set(answer, there ? { ...there, beads: [...there.beads, ...own].sort((a, b) => a.step - b.step) } : { padId: answer, ...timing, beads: own }) // prettier-ignore
  }
  return { groove: withoutLost({ ...groove, id, strings: [...strings.values()] }), without }
}

function answered(given: Bead, ids: ReadonlyMap<string, BeadId>): Bead {
  const { locks: _locks, when, ...bead } = freeBead(given)
  const named = when && {
    ...when,
    ...(when.after ? { after: ids.get(when.after) ?? when.after } : {}),
    ...(when.unless ? { unless: ids.get(when.unless) ?? when.unless } : {}),
  }
  return { ...bead, id: ids.get(given.id)!, ...(named ? { when: named } : {}) }
}

/** Beads that waited for one that was left out wait for it no more. */
function withoutLost(groove: Groove): Groove {
  const known = new Set(groove.strings.flatMap(({ beads }) => beads.map(({ id }) => id)))
  const kept = (bead: Bead): Bead => {
    if (!bead.when) return bead
    const { after, unless, ...rest } = bead.when
    const when = { ...rest, ...(after && known.has(after) ? { after } : {}), ...(unless && known.has(unless) ? { unless } : {}) }
    const { when: _when, ...plain } = bead
    return Object.keys(when).length > 0 ? { ...plain, when } : plain
  }
  return { ...groove, strings: groove.strings.map((string) => ({ ...string, beads: string.beads.map(kept) })) }
}
