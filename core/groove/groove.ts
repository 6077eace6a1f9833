import type { BeadId, GrooveId, MakeId, PadId } from '../kit/ids'
import { STRAIGHT } from '../kit/grooves'
import type { Bead, Groove } from '../kit/grooves'
import { grooveBeats } from '../kit/groove-time'

export function createGroove(makeId: MakeId, name: string): Groove {
  return { id: makeId<GrooveId>('groove'), name, lengthSteps: 16, stepsPerBeat: 4, swing: STRAIGHT, strings: [] }
}

/** How long a groove is, in seconds. */
export function grooveSeconds(groove: Groove, tempoBpm: number): number {
  return (grooveBeats(groove) * 60) / tempoBpm
}

/** The id of a new bead: by its step, so that two devices that put one there put the same. */
function beadIdAt(padId: PadId, beads: readonly { readonly id: BeadId }[], step: number): BeadId {
  const taken = new Set<string>(beads.map(({ id }) => id))
  let id = `${padId}.${step}`
  for (let count = 2; taken.has(id); count++) id = `${padId}.${step}.${count}`
  return id as BeadId
}

/** The groove with one bead put at a step, or taken away with velocity 0. */
export function withBead(groove: Groove, padId: PadId, step: number, velocity: number): Groove {
  const string = groove.strings.find((other) => other.padId === padId) ?? { padId, beads: [] }
  const others = string.beads.filter((bead) => bead.step !== step)
  const held = string.beads.find((bead) => bead.step === step)
  const bead = { ...held, id: held?.id ?? beadIdAt(padId, string.beads, step), step, velocity }
  const beads = velocity > 0 ? [...others, bead].sort((a, b) => a.step - b.step) : others
  const changed = { ...string, beads }
  const known = groove.strings.some((other) => other.padId === padId)
  return {
    ...groove,
    strings: known ? groove.strings.map((other) => (other.padId === padId ? changed : other)) : [...groove.strings, changed],
  }
}

/** The groove with what is set on one bead changed; as it is where the step has none. */
export function withBeadFields(groove: Groove, padId: PadId, step: number, fields: Partial<Omit<Bead, 'id' | 'step'>>): Groove {
  const change = (bead: Bead): Bead => (bead.step === step ? { ...bead, ...fields } : bead)
  const strings = groove.strings.map((string) => (string.padId === padId ? { ...string, beads: string.beads.map(change) } : string))
  return { ...groove, strings }
}
