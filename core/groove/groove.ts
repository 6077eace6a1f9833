import type { GrooveId, MakeId, PadId } from '../kit/ids'
import type { Groove } from '../kit/kit'

export function createGroove(makeId: MakeId, name: string): Groove {
  return { id: makeId<GrooveId>('groove'), name, lengthSteps: 16, stepsPerBeat: 4, swing: 0, strings: [] }
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

/** When a step sounds. Full swing puts every second step two thirds of the way through its pair. */
export function stepSeconds(groove: Groove, tempoBpm: number, step: number): number {
  const late = step % 2 === 1 ? groove.swing / 3 : 0
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

/** The groove with one bead put at a step, or taken away with velocity 0. */
export function withBead(groove: Groove, padId: PadId, step: number, velocity: number): Groove {
  const string = groove.strings.find((other) => other.padId === padId) ?? { padId, beads: [] }
  const others = string.beads.filter((bead) => bead.step !== step)
  const beads = velocity > 0 ? [...others, { step, velocity }].sort((a, b) => a.step - b.step) : others
  const changed = { padId, beads }
  const known = groove.strings.some((other) => other.padId === padId)
  return {
    ...groove,
    strings: known ? groove.strings.map((other) => (other.padId === padId ? changed : other)) : [...groove.strings, changed],
  }
}
