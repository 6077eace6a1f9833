// Our own drawing of a pad.
import { memo } from 'react'
import Svg, { Circle, Path } from 'react-native-svg'

import { usePalette } from '../theme/theme'
import { CentreMark } from './CentreMark'
import type { MarkName } from './CentreMark'
import type { TintName } from '../theme/theme'

interface Props {
  /** Turns of each band, soft first. */
  readonly turns: readonly number[]
  readonly size: number
  readonly tint?: TintName
  /** The cell that sounded last. */
  readonly lit?: { readonly band: number; readonly turn: number }
  /** The form in its middle. */
  readonly mark?: MarkName
}

const CENTRE_SHARE = 0.28
/** How much of the open centre its mark takes. */
const MARK_SHARE = 0.62
/** How far in the notches between arms lie: deeper for few arms, so that they stay arms. */
const notchOf = (arms: number) => Math.min(0.86, 0.5 + 0.06 * arms)
/** Below this size single cells cannot be told apart, so only rings and arms are drawn. */
const SMALL_PX = 34

/** Inner and outer radius of each ring, 0..1 of the whole: a small open centre, then soft to loud. */
export function ringEdges(bands: number): number[] {
  return Array.from({ length: bands + 1 }, (_, i) => CENTRE_SHARE + (1 - CENTRE_SHARE) * (i / Math.max(1, bands)))
}

/** The glyph of a pad, a sun star: rings are bands, pale and soft inside, deep and loud outside; arms are turns. */
export const Star = memo(function Star({ turns, size, tint, lit, mark = 'dot' }: Props) {
  const palette = usePalette()
  const colour = tint ? palette.tints[tint] : palette.kelp
  const radius = size / 2 - 1.5
  const isEmpty = turns.every((count) => count === 0)
  const gap = size < 60 ? 0.75 : 1.5
  return (
    <Svg width={size} height={size} viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`} aria-hidden>
      {isEmpty && <Circle r={radius} fill="none" stroke={palette.muted} strokeWidth={1.25} strokeDasharray="3 4" />}
      {turns.map((_, band) => (
        <Ring
          key={band}
          cells={ringCells(turns, band, size, radius)}
          fill={colour}
          litFill={palette.coral}
          depth={0.22 + 0.5 * ((band + 1) / turns.length)}
          lit={lit?.band === band ? lit.turn : undefined}
          gap={{ stroke: palette.paper, strokeWidth: gap, strokeLinejoin: 'round' }}
        />
      ))}
      <CentreMark name={mark} radius={radius * CENTRE_SHARE * MARK_SHARE} colour={lit ? palette.coral : palette.ink} />
    </Svg>
  )
})

interface RingProps {
  /** A path for each cell. */
  readonly cells: readonly string[]
  readonly fill: string
  readonly litFill: string
  readonly depth: number
  readonly lit?: number
  readonly gap: { readonly stroke: string; readonly strokeWidth: number; readonly strokeLinejoin: 'round' }
}

/** A ring is one path, however many cells it has, and one more for the cell that is lit: a kit may have thousands. */
function Ring({ cells, fill, litFill, depth, lit, gap }: RingProps) {
  const others = cells.filter((_, turn) => turn !== lit)
  return (
    <>
      {others.length > 0 && <Path d={others.join(' ')} fill={fill} fillOpacity={depth} fillRule="evenodd" {...gap} />}
      {lit !== undefined && cells[lit] !== undefined && <Path d={cells[lit]} fill={litFill} fillRule="evenodd" {...gap} />}
    </>
  )
}

/** The cells of a band's ring, or all of it where single ones cannot be told apart. */
function ringCells(turns: readonly number[], band: number, size: number, radius: number): string[] {
  const isRim = band === turns.length - 1
  const edges = ringEdges(turns.length)
  const count = turns[band]
  const arms = size < SMALL_PX && !isRim ? 1 : count
  return Array.from({ length: arms }, (_, turn) => cell(edges[band] * radius, edges[band + 1] * radius, turn, arms, isRim))
}

/** One arm's part in one ring, from the top clockwise. The outermost ring ends in a round arm. */
function cell(inner: number, outer: number, turn: number, count: number, isRim: boolean): string {
  if (count === 1) return `${circle(outer)} ${circle(inner)}`
  const from = (2 * Math.PI * turn) / count
  const to = (2 * Math.PI * (turn + 1)) / count
  const point = (radius: number, angle: number) => `${(radius * Math.sin(angle)).toFixed(2)} ${(-radius * Math.cos(angle)).toFixed(2)}`
  const large = to - from > Math.PI ? 1 : 0
  const back = `L ${point(inner, to)} A ${inner} ${inner} 0 ${large} 0 ${point(inner, from)} Z`
  if (!isRim || count < 3)
    return `M ${point(inner, from)} L ${point(outer, from)} A ${outer} ${outer} 0 ${large} 1 ${point(outer, to)} ${back}`
  const notch = Math.max(inner + (outer - inner) * 0.35, outer * notchOf(count))
  // The control point that brings the middle of the curve to the rim.
  const reach = 2 * outer - notch * Math.cos((to - from) / 2)
  const bulge = point(reach, (from + to) / 2)
  return `M ${point(inner, from)} L ${point(notch, from)} Q ${bulge} ${point(notch, to)} ${back}`
}

function circle(radius: number): string {
  return `M 0 ${-radius} A ${radius} ${radius} 0 1 1 0 ${radius} A ${radius} ${radius} 0 1 1 0 ${-radius} Z`
}
