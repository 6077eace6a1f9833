import { PITCH_RANGE_CENTS } from '@heliaster/core/shaping'
import type { Layer } from '@heliaster/core/shaping'
import type { Shape } from '@heliaster/core/kit'

/** The share across the chart, -1..1, that a value stands at. Levels grow from the middle, pitch passes through it. */
export function share(value: number, layer: Layer): number {
  return layer !== 'pitch' ? value : Math.max(-1, Math.min(1, value / PITCH_RANGE_CENTS))
}

export function valueOf(across: number, layer: Layer): number {
  return layer !== 'pitch' ? Math.min(1, Math.max(0, across)) : across * PITCH_RANGE_CENTS
}

/** Room at the ends of the chart, px. */
export const CHART_EDGE = 20

/** Where times and values lie on the chart, and back. */
export function createGeometry(isWide: boolean, { width, height }: { width: number; height: number }, seconds: number) {
  const along = (isWide ? width : height) - 2 * CHART_EDGE
  const half = (isWide ? height : width) / 2 - CHART_EDGE
  const middle = (isWide ? height : width) / 2
  return {
    width,
    height,
    isWide,
    middle,
    half,
    seconds,
    /** So long is a pixel along the chart, s. */
    secondsPerPx: seconds / Math.max(1, along),
    place(at: number, across: number): [number, number] {
      const a = CHART_EDGE + (at / seconds) * along
      return isWide ? [a, middle - across * half] : [middle + across * half, a]
    },
    read(x: number, y: number): { seconds: number; share: number } {
      const a = isWide ? x : y
      const b = isWide ? middle - y : x - middle
      return { seconds: ((a - CHART_EDGE) / along) * seconds, share: Math.max(-1, Math.min(1, b / half)) }
    },
  }
}
export type Geometry = ReturnType<typeof createGeometry>

const ALL_HZ = [20, 20000] as const
/** What a pitch is measured from where it is not known, Hz. */
const UNPITCHED_HZ = 200

/** The frequencies at the lowest and the highest value of the chart, Hz: where an envelope of pitch or filter lies on what it moves. */
export function frequenciesOf(layer: Layer, shape: Shape, baseHz: number | undefined): readonly [low: number, high: number] {
  if (layer === 'level') return ALL_HZ
  const [middle, reach] =
    layer === 'pitch'
      ? [baseHz ?? UNPITCHED_HZ, PITCH_RANGE_CENTS]
      : [
          shape.values[`${layer}CutoffHz`],
          Math.max(1200, Math.abs(shape.values[`${layer}EnvelopeCents`])) * Math.sign(shape.values[`${layer}EnvelopeCents`] || 1),
        ]
  const ends = [-1, 1].map((way) => middle * 2 ** ((way * reach) / 1200))
  return [ends[0]!, ends[1]!]
}
