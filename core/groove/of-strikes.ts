import type { GrooveId, MakeId } from '../kit/ids'
import type { Groove } from '../kit/grooves'
import { STRAIGHT } from '../kit/grooves'
import { withTake } from './take'
import type { TakenStrike } from './take'

interface Given {
  readonly name: string
  /** Beats of what was played; the groove is as many whole bars of four as hold it. */
  readonly beats: number
  /** 1..48; 4 where it is not said. */
  readonly stepsPerBeat?: number
  readonly swing?: number
  /** How far strikes go to the grid, 0..1; not at all where it is not said. */
  readonly share?: number
}

const BAR = 4
const MOST_STEPS = 1024

/** A new groove of strikes, beats from its beginning; those before it or beyond 1024 steps are left out. */
export function grooveOfStrikes(makeId: MakeId, strikes: readonly TakenStrike[], given: Given): Groove {
  const { name, beats, stepsPerBeat = 4, swing = STRAIGHT, share = 0 } = given
  const bars = Math.max(1, Math.ceil(beats / BAR - 1e-6))
  const lengthSteps = Math.min(MOST_STEPS, bars * BAR * stepsPerBeat)
  const empty: Groove = { id: makeId<GrooveId>('groove'), name, lengthSteps, stepsPerBeat, swing, strings: [] }
  const within = strikes.filter(({ beat }) => beat > -0.5 / stepsPerBeat && beat < lengthSteps / stepsPerBeat - 0.5 / stepsPerBeat)
  return withTake(empty, within, { share, isInstead: false })
}
