import { AS_IT_COMES } from '@heliaster/core/hands'
import type { VelocityCurve } from '@heliaster/core/hands'

const through = (at: number, to: number): VelocityCurve['points'] => [
  { at: 1, to: 1 },
  { at, to },
  { at: 127, to: 127 },
]

/** Curves to begin with, named by whom they are for. */
export const CURVE_STARTS = [
  { value: 'plain', text: 'As it comes', points: AS_IT_COMES.points },
  { value: 'light', text: 'For a light hand', points: through(44, 84) },
  { value: 'heavy', text: 'For a heavy hand', points: through(84, 44) },
] as const

/** Which of them a curve is; none where it was drawn or taught. */
export function startOf({ points }: VelocityCurve): (typeof CURVE_STARTS)[number]['value'] | undefined {
  return CURVE_STARTS.find((start) => JSON.stringify(start.points) === JSON.stringify(points))?.value
}

/** The curve with one more point, in the middle of its widest stretch; the same one where there is no room. */
export function withOneMore(curve: VelocityCurve, most: number): { readonly curve: VelocityCurve; readonly index: number } | undefined {
  const { points } = curve
  if (points.length >= most) return undefined
  const gaps = points.slice(1).map((point, i) => point.at - points[i]!.at)
  const widest = Math.max(...gaps)
  if (widest < 2) return undefined
  const before = gaps.indexOf(widest)
  const [from, to] = [points[before]!, points[before + 1]!]
  const made = { at: from.at + (widest >> 1), to: Math.round((from.to + to.to) / 2) }
  return { curve: { ...curve, points: [...points.slice(0, before + 1), made, ...points.slice(before + 1)] }, index: before + 1 }
}
