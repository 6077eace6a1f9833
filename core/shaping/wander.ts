import { parameterRow } from '../kit/parameters'
import type { Parameter } from '../kit/parameters'
import type { Response } from '../kit/shape'

/** How far each wanders at most, either way, when the wander is whole; in what the table of parameters moves it by. */
export const WANDER_BOUNDS = { startSeconds: 0.008, tuneCents: 60, gainDb: 4, filter1CutoffHz: 1200 } as const satisfies Partial<
  Record<Parameter, number>
>
type Wandering = keyof typeof WANDER_BOUNDS
const wandering = Object.keys(WANDER_BOUNDS) as Wandering[]
const idOf = (param: Wandering) => `wander-${param}`

/** How much a pad wanders, 0..1: small differences of start, pitch, level and cutoff from strike to strike. */
export function wanderOf(responses: readonly Response[]): number {
  const shares = wandering.flatMap((param) =>
    responses.filter(({ id, bypass }) => id === idOf(param) && !bypass).map(({ amount }) => Math.abs(amount) / WANDER_BOUNDS[param]),
  )
  return Math.min(1, Math.max(0, ...shares))
}

/** The responses with as much wander, 0..1, in place of what there was; none of it leaves no trace. Others stay. */
export function withWander(responses: readonly Response[], share: number): Response[] {
  const others = responses.filter(({ id }) => !wandering.some((param) => id === idOf(param)))
  if (share <= 0) return others
  const made = wandering.map((param): Response => {
    const amount = WANDER_BOUNDS[param] * Math.min(1, share)
    return { id: idOf(param), draw: parameterRow(param).draw, from: { kind: 'chance' }, to: [{ param }], amount, bypass: false }
  })
  return [...others, ...made]
}

/** Whether a response is part of the wander. */
export function isWander({ id }: Response): boolean {
  return wandering.some((param) => id === idOf(param))
}
