import type { BeadId, GrooveId, MakeId, PadId } from '../kit/ids'
import { STRAIGHT } from '../kit/grooves'
import type { Groove } from '../kit/grooves'

export function createGroove(makeId: MakeId, name: string): Groove {
  return { id: makeId<GrooveId>('groove'), name, lengthSteps: 16, stepsPerBeat: 4, swing: STRAIGHT, strings: [] }
}

/** A strike of a groove, in seconds from the start of the round it belongs to. */
export interface GrooveStrike {
  readonly seconds: number
  readonly padId: PadId
  readonly velocity: number
  readonly step: number
}

export function secondsPerStep(groove: Groove, tempoBpm: number): number {
  return 60 / tempoBpm / groove.stepsPerBeat
}

export function grooveSeconds(groove: Groove, tempoBpm: number): number {
  return groove.lengthSteps * secondsPerStep(groove, tempoBpm)
}

/** When a step sounds: swing is where the second step of a pair stands, as a share of the pair. */
export function stepSeconds(groove: Groove, tempoBpm: number, step: number): number {
  const late = step % 2 === 1 ? 2 * groove.swing - 1 : 0
  return (step + late) * secondsPerStep(groove, tempoBpm)
}

/** All strikes of one round, in order of time. Beads beyond the length are kept in the document and stay silent. */
export function grooveStrikes(groove: Groove, tempoBpm: number): GrooveStrike[] {
  return groove.strings
    .flatMap((string) =>
      string.beads
        .filter((bead) => bead.step < groove.lengthSteps)
        .map((bead) => ({
          seconds: stepSeconds(groove, tempoBpm, bead.step),
          padId: string.padId,
          velocity: bead.velocity,
          step: bead.step,
        })),
    )
    .sort((a, b) => a.seconds - b.seconds)
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
  const changed = { padId, beads }
  const known = groove.strings.some((other) => other.padId === padId)
  return {
    ...groove,
    strings: known ? groove.strings.map((other) => (other.padId === padId ? changed : other)) : [...groove.strings, changed],
  }
}
