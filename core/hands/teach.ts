import type { CurvePoint, VelocityCurve } from './velocity-curve'

/** How the strikes of each strength are meant to sound, velocities 1..127. */
export const MEANT = { soft: 32, middling: 80, hard: 118 } as const
export type Strength = keyof typeof MEANT
export const strengths = ['soft', 'middling', 'hard'] as const

/** So many strikes of each strength tell how a hand and an input go together. */
export const STRIKES_TO_TEACH = 4

/** Velocities 1..127 as they came in. */
export type Taught = Readonly<Record<Strength, readonly number[]>>

/** The middle one of several numbers, so that one strike that went wrong counts for nothing. */
function medianOf(numbers: readonly number[]): number {
  const sorted = [...numbers].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return sorted.length % 2 === 1 ? sorted[middle]! : Math.round((sorted[middle - 1]! + sorted[middle]!) / 2)
}

/** A curve that lets each of three strengths sound as it was meant, or a sentence that says why there is none. */
export function taughtCurve(taught: Taught, steps = 0): VelocityCurve | string {
  const missing = strengths.find((strength) => taught[strength].length < STRIKES_TO_TEACH)
  if (missing) return `${taught[missing].length} of ${STRIKES_TO_TEACH} ${missing} strikes came. Strike again.`
  const [soft, middling, hard] = strengths.map((strength) => medianOf(taught[strength]))
  if (!(soft! < middling! && middling! < hard!))
    return `Soft came as ${soft}, middling as ${middling}, hard as ${hard}: too alike to tell apart. Begin again, with more between them.`
  const points: CurvePoint[] = [
    { at: soft!, to: MEANT.soft },
    { at: middling!, to: MEANT.middling },
    { at: hard!, to: MEANT.hard },
  ]
  if (soft! > 1) points.unshift({ at: 1, to: Math.max(1, Math.round(MEANT.soft / soft!)) })
  if (hard! < 127) points.push({ at: 127, to: 127 })
  return { points, steps }
}
