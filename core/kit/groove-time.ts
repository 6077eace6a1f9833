import type { Bead, Groove, GrooveString } from './grooves'

/** How long a groove is, in beats. */
export function grooveBeats(groove: Groove): number {
  return groove.lengthSteps / groove.stepsPerBeat
}

/** How long a string is before it goes round, in beats: its own steps in its own division, or as long as its groove. */
export function stringBeats(groove: Groove, string: Pick<GrooveString, 'lengthSteps' | 'stepsPerBeat'>): number {
  if (string.lengthSteps === undefined) return grooveBeats(groove)
  return string.lengthSteps / (string.stepsPerBeat ?? groove.stepsPerBeat)
}

const MOST_LAPS = 256

/** The beats of a groove on which a string begins: 0, and where it is shorter each time it goes round, 256 of them at most. */
export function lapBeats(groove: Groove, string: Pick<GrooveString, 'lengthSteps' | 'stepsPerBeat'>): number[] {
  const around = stringBeats(groove, string)
  const laps = Math.min(MOST_LAPS, Math.ceil(grooveBeats(groove) / around - 1e-9))
  return Array.from({ length: Math.max(1, laps) }, (_, lap) => lap * around)
}

/** When a step sounds, in beats: swing is where the second step of a pair stands, as a share of the pair. */
export function stepBeat(groove: Groove, string: Pick<GrooveString, 'stepsPerBeat' | 'swing'>, step: number, offset = 0): number {
  const late = step % 2 === 1 ? 2 * (string.swing ?? groove.swing) - 1 : 0
  return (step + late + offset) / (string.stepsPerBeat ?? groove.stepsPerBeat)
}

/** A bead as it is played: in beats from the start of the string's lap, which it may lie before. */
export interface TimedBead {
  readonly bead: Bead
  readonly beat: number
  readonly velocity: number
}

/**
 * The beads of a string that lie within its length, in order of time, with the feel of another groove laid over: its timing
 * and level at the same place of its own lap, by the shares that are said.
 */
export function timedBeads(groove: Groove, string: GrooveString, feel?: Groove): TimedBead[] {
  const length = stringBeats(groove, string)
  const given = feel && groove.feel
  const felt = given ? feltBeads(feel) : []
  return string.beads
    .filter(({ step }) => step / (string.stepsPerBeat ?? groove.stepsPerBeat) < length - 1e-9)
    .map((bead) => {
      const own = { bead, beat: stepBeat(groove, string, bead.step, bead.offset), velocity: bead.velocity }
      const near = given && feel ? nearest(felt, bead.step / (string.stepsPerBeat ?? groove.stepsPerBeat), grooveBeats(feel)) : undefined
      if (!given || !near) return own
      const straight = bead.step / (string.stepsPerBeat ?? groove.stepsPerBeat)
      const velocity = Math.round(own.velocity + (near.velocity - own.velocity) * given.level)
      return { bead, beat: own.beat + (straight + near.late - own.beat) * given.timing, velocity: Math.min(127, Math.max(1, velocity)) }
    })
    .sort((a, b) => a.beat - b.beat)
}

interface Felt {
  readonly at: number
  readonly late: number
  readonly velocity: number
}

/** Where the beads of a groove stand on its straight grid, how late each is, and how strong. */
function feltBeads(feel: Groove): Felt[] {
  return feel.strings.flatMap((string) =>
    string.beads.map((bead) => {
      const at = bead.step / (string.stepsPerBeat ?? feel.stepsPerBeat)
      return { at, late: stepBeat(feel, string, bead.step, bead.offset) - at, velocity: bead.velocity }
    }),
  )
}

/** The mean of the beads that stand at a place of the other groove's lap; nothing where none does. */
function nearest(felt: readonly Felt[], at: number, lap: number): Pick<Felt, 'late' | 'velocity'> | undefined {
  const there = felt.filter((one) => Math.abs(one.at - (at % lap)) < 1e-6)
  if (there.length === 0) return undefined
  const mean = (of: (one: Felt) => number) => there.reduce((sum, one) => sum + of(one), 0) / there.length
  return { late: mean(({ late }) => late), velocity: mean(({ velocity }) => velocity) }
}
