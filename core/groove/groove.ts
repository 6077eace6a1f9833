import type { GrooveId, MakeId, PadId } from '../kit/ids'
import { STRAIGHT } from '../kit/grooves'
import type { Groove } from '../kit/grooves'
import { grooveBeats } from '../kit/groove-time'
import { beadIdAt } from './beads/places'

export function createGroove(makeId: MakeId, name: string): Groove {
  return { id: makeId<GrooveId>('groove'), name, lengthSteps: 16, stepsPerBeat: 4, swing: STRAIGHT, strings: [] }
}

/** How long a groove is, in seconds. */
export function grooveSeconds(groove: Groove, tempoBpm: number): number {
  return (grooveBeats(groove) * 60) / tempoBpm
}

/** The groove with one bead put at a step, or taken away with velocity 0. */
export function withBead(groove: Groove, padId: PadId, step: number, velocity: number): Groove {
  const string = groove.strings.find((other) => other.padId === padId) ?? { padId, beads: [] }
  const others = string.beads.filter((bead) => bead.step !== step)
  const held = string.beads.find((bead) => bead.step === step)
  const bead = { ...held, id: held?.id ?? beadIdAt(padId, new Set(string.beads.map(({ id }) => id)), step), step, velocity }
  const beads = velocity > 0 ? [...others, bead].sort((a, b) => a.step - b.step) : others
  const changed = { ...string, beads }
  const known = groove.strings.some((other) => other.padId === padId)
  return {
    ...groove,
    strings: known ? groove.strings.map((other) => (other.padId === padId ? changed : other)) : [...groove.strings, changed],
  }
}
