import { bendToK, bent } from '@heliaster/core/engine'
import { filterResponseDb } from '@heliaster/core/shaping'
import type { FilterSetting } from '@heliaster/core/shaping'
import { memo } from 'react'
import Svg, { Line, Path } from 'react-native-svg'

import { usePalette } from '../../../ui/theme/theme'

/** What a pool does, as a line through its field. */
interface GlyphProps {
  readonly width: number
  readonly height: number
  /** Heights 0..1 from left to right. */
  readonly heights: readonly number[]
  /** The height at which nothing changes. */
  readonly rest?: number
}

const EDGE = 6

export const Glyph = memo(function Glyph({ width, height, heights, rest }: GlyphProps) {
  const palette = usePalette()
  const x = (i: number) => EDGE + (i / (heights.length - 1)) * (width - 2 * EDGE)
  const y = (share: number) => height - EDGE - Math.min(1, Math.max(0, share)) * (height - 2 * EDGE)
  const line = heights.map((share, i) => `${i === 0 ? 'M' : 'L'}${x(i).toFixed(1)} ${y(share).toFixed(1)}`).join('')
  return (
    <Svg width={width} height={height} aria-hidden>
      {rest !== undefined && <Line x1={EDGE} x2={width - EDGE} y1={y(rest)} y2={y(rest)} stroke={palette.line} strokeDasharray="2 4" />}
      <Path d={`${line}L${x(heights.length - 1)} ${y(rest ?? 0)}L${x(0)} ${y(rest ?? 0)}Z`} fill={palette.waterWash} />
      <Path d={line} fill="none" stroke={palette.waterInk} strokeWidth={1.5} />
    </Svg>
  )
})

const COUNT = 48
const along = (of: (share: number) => number) => Array.from({ length: COUNT }, (_, i) => of(i / (COUNT - 1)))

/** So long a time is the whole width of a pool, seconds; shorter ones take their part of it. */
function widthOf(seconds: number): number {
  return Math.min(1, 0.15 + 0.85 * (seconds / 2) ** 0.4)
}

export function decayHeights(seconds: number, bend: number): number[] {
  const end = widthOf(seconds)
  return along((share) => (share >= end ? 0 : bent(1, 0, share / end, bendToK(bend))))
}

const MOST_CENTS = 4800

export function fallHeights(seconds: number, cents: number, mostCents = MOST_CENTS): number[] {
  const end = widthOf(seconds)
  const depth = Math.max(-1, Math.min(1, cents / mostCents)) / 2
  return along((share) => 0.5 + (share >= end ? 0 : bent(depth, 0, share / end, bendToK(-0.5))))
}

const [LOW_HZ, HIGH_HZ] = [20, 20000]
const SHOWN_DB = 30

export function filterHeights(filter: FilterSetting): number[] {
  return along((share) => 0.5 + filterResponseDb(filter, LOW_HZ * (HIGH_HZ / LOW_HZ) ** share) / (2 * SHOWN_DB))
}

/** How what goes in comes out, of a soft drive: the engine's own curves differ in their corners. */
export function driveHeights(db: number): number[] {
  const gain = 10 ** (db / 20)
  return along((share) => 0.5 + Math.tanh(gain * (2 * share - 1)) / (2 * Math.tanh(gain)))
}
