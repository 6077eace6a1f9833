import type { PadId, TurnId } from '../kit/ids'
import type { Bead, Groove } from '../kit/grooves'
import { stepBeat, stringBeats } from '../kit/groove-time'
import { bare, beadIdAt, divisionOf, stepsOf, stringOf, takenIds, withString } from './beads/places'

/** A strike of a hand while the groove played, beats from where it began. */
export interface TakenStrike {
  readonly padId: PadId
  readonly beat: number
  /** 1..127. */
  readonly velocity: number
  /** The turn that it asks for; where none is said it is left to the pad. */
  readonly turn?: TurnId
}

export interface TakeOptions {
  /** How far strikes go to the nearest step, 0 (as played) .. 1. */
  readonly share: number
  /** A pad that is struck begins its string anew; otherwise strikes join what is there. */
  readonly isInstead: boolean
}

/**
 * Strikes laid into a groove as beads, each on the step that is nearest as it swings, and off it by what is left of the way. Further
 * off than half a step no bead can stand. Of two strikes of a pad on one place the later one stays.
 */
export function withTake(groove: Groove, strikes: readonly TakenStrike[], { share, isInstead }: TakeOptions): Groove {
  let out = groove
  const struck = new Set(strikes.map(({ padId }) => padId))
  if (isInstead) for (const padId of struck) out = withString(out, padId, () => [])
  for (const { padId, beat, velocity, turn } of strikes) {
    const string = stringOf(out, padId)
    const place = nearestStep(out, string, beat)
    const offset = round(place.offset * (1 - share))
    const bead: Omit<Bead, 'id'> = { step: place.step, velocity: Math.min(127, Math.max(1, Math.round(velocity))), ...(offset === 0 ? {} : { offset }), ...(turn === undefined ? {} : { turn }) } // prettier-ignore
    const there = string.beads.find((one) => one.step === bead.step && Math.abs((one.offset ?? 0) - offset) < SAME_PLACE)
    const id = there?.id ?? beadIdAt(padId, takenIds(out), bead.step)
    const asked = turn === undefined ? {} : { turn, band: undefined }
    const kept = bare(there ? { ...there, velocity: bead.velocity, ...asked } : { ...bead, id })
    out = withString(out, padId, (beads) => [...beads.filter((one) => one.id !== id), kept])
  }
  return out
}

/** So near two beads are one, in steps. */
const SAME_PLACE = 0.02
const round = (value: number) => Math.round(value * 1e4) / 1e4 + 0

/** The step of a string that is nearest to a beat as it swings, and how far off it that is, -0.5..0.5 of a step. */
export function nearestStep(groove: Groove, string: ReturnType<typeof stringOf>, beat: number): { readonly step: number; readonly offset: number } {
  const around = stringBeats(groove, string)
  const steps = stepsOf(groove, string)
  const division = divisionOf(groove, string)
  const inLap = ((beat % around) + around) % around
  const near = Math.floor(inLap * division)
  let best = { step: 0, offset: Infinity }
  for (let step = near - 1; step <= near + 2; step++) {
    // The first step of the next lap is the first of this one.
    const at = step >= steps ? around + stepBeat(groove, string, step - steps) : stepBeat(groove, string, step)
    const offset = (inLap - at) * division
    if (step >= 0 && Math.abs(offset) < Math.abs(best.offset)) best = { step: step % steps, offset }
  }
  return { step: best.step, offset: Math.min(0.5, Math.max(-0.5, best.offset)) }
} // prettier-ignore
