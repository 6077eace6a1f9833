import { z } from 'zod'

export const MOST_CURVE_POINTS = 8
export const MOST_STEPS = 16

const velocity = z.number().int().min(1).max(127)

/**
 * How strong a strike of an input sounds, by how strong it came in: a curve through two to eight points, velocities 1..127
 * in (`at`) and out (`to`), level before the first and after the last; `at` rises, `to` never falls. With `steps` there are
 * only so many strengths, as far from each other as the curve reaches; 0 is none, so every strength.
 */
export const velocityCurveSchema = z.strictObject({
  points: z
    .array(z.strictObject({ at: velocity, to: velocity }))
    .min(2)
    .max(MOST_CURVE_POINTS)
    .refine((points) => points.every((point, i) => i === 0 || (point.at > points[i - 1]!.at && point.to >= points[i - 1]!.to)), {
      message: 'A velocity curve rises from point to point.',
    }),
  steps: z.number().int().min(0).max(MOST_STEPS),
})
export type VelocityCurve = z.infer<typeof velocityCurveSchema>
export type CurvePoint = VelocityCurve['points'][number]

/** As strong as it came. */
export const AS_IT_COMES: VelocityCurve = {
  points: [
    { at: 1, to: 1 },
    { at: 127, to: 127 },
  ],
  steps: 0,
}

/**
 * Slopes at points, so that the curve between them has no bump that no point asks for.
 *
 * Source: F. N. Fritsch and R. E. Carlson, "Monotone Piecewise Cubic Interpolation", SIAM J. Numer. Anal. 17 (1980), with
 * the harmonic mean of F. N. Fritsch and J. Butland (1984) for inner slopes.
 */
function slopesOf(points: readonly CurvePoint[]): number[] {
  const last = points.length - 1
  const rise = (i: number) => (points[i + 1]!.to - points[i]!.to) / (points[i + 1]!.at - points[i]!.at)
  return points.map((_, i) => {
    if (i === 0) return rise(0)
    if (i === last) return rise(last - 1)
    const [before, after] = [rise(i - 1), rise(i)]
    return before === 0 || after === 0 ? 0 : (2 * before * after) / (before + after)
  })
}

/** Height of a curve at `at`, 1..127, not rounded and without its steps. */
export function heightOfCurve({ points }: VelocityCurve, at: number): number {
  const next = points.findIndex((point) => point.at > at)
  if (next === 0) return points[0]!.to
  if (next < 0) return points[points.length - 1]!.to
  const slopes = slopesOf(points)
  const [from, to] = [points[next - 1]!, points[next]!]
  const width = to.at - from.at
  const t = (at - from.at) / width
  const start = (1 + 2 * t) * (1 - t) ** 2 * from.to + t * (1 - t) ** 2 * width * slopes[next - 1]!
  return start + t ** 2 * (3 - 2 * t) * to.to + t ** 2 * (t - 1) * width * slopes[next]!
}

/** The velocity 1..127 that a strike of velocity `at`, 1..127, sounds with. */
export function velocityThrough(curve: VelocityCurve, at: number): number {
  const height = heightOfCurve(curve, at)
  const { points, steps } = curve
  if (steps === 0) return within(Math.round(height))
  const [least, most] = [points[0]!.to, points[points.length - 1]!.to]
  if (steps === 1 || most === least) return most
  const share = Math.max(0, height - least) / (most - least)
  const step = Math.min(steps - 1, Math.floor(share * steps + 1e-9)) // what lies on a border is above it, whatever was lost in reckoning
  return within(Math.round(least + ((most - least) * step) / (steps - 1)))
}

const within = (velocity: number) => Math.min(127, Math.max(1, velocity))

/** A curve with one of its points moved as far as its neighbours let it go. */
export function withPoint(curve: VelocityCurve, index: number, at: number, to: number): VelocityCurve {
  const { points } = curve
  const [before, after] = [points[index - 1], points[index + 1]]
  const moved = {
    at: Math.round(Math.min(after ? after.at - 1 : 127, Math.max(before ? before.at + 1 : 1, at))),
    to: Math.round(Math.min(after ? after.to : 127, Math.max(before ? before.to : 1, to))),
  }
  return { ...curve, points: points.map((point, i) => (i === index ? moved : point)) }
}
