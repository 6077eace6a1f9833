import { useState } from 'react'
import { View } from 'react-native'
import Svg, { Circle, G, Line, Path, Text as SvgText } from 'react-native-svg'

import { fonts, usePalette } from '../../../ui/theme/theme'
import { stepsOf } from './measure-dynamics'
import type { DynamicsPoint } from './measure-dynamics'

interface Props {
  readonly points: readonly DynamicsPoint[]
  /** Where bands begin. */
  readonly edges: readonly number[]
  readonly heightPx?: number
}

export const DYNAMICS_PX = 168
const EDGE = 14
/** At least so much is shown, dB. */
const LEAST_RANGE_DB = 12
const [DARK_HZ, BRIGHT_HZ] = [100, 16000]
/** Steps that are worth a word, dB. */
const TOLD_DB = 1
const WORD_PX = 44

/** Loudness over velocity as the engine plays it, with the steps between bands in dB; brightness as a dashed line. */
export function DynamicsChart({ points, edges, heightPx: height = DYNAMICS_PX }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const heard = points.filter(({ loudness }) => Number.isFinite(loudness))
  const levels = heard.map(({ loudness }) => loudness)
  const top = Math.max(-60, ...levels) + 2
  const bottom = Math.min(top - LEAST_RANGE_DB, ...levels) - 1
  const x = (velocity: number) => EDGE + ((velocity - 1) / 126) * (width - 2 * EDGE)
  const y = (level: number) => EDGE + ((top - level) / (top - bottom)) * (height - 2 * EDGE)
  const bright = (hz: number) =>
    height - EDGE - (Math.log(Math.min(BRIGHT_HZ, Math.max(DARK_HZ, hz)) / DARK_HZ) / Math.log(BRIGHT_HZ / DARK_HZ)) * (height - 2 * EDGE)
  const line = (of: (point: DynamicsPoint) => number) =>
    heard.map((point, i) => `${i === 0 ? 'M' : 'L'}${x(point.velocity).toFixed(1)} ${of(point).toFixed(1)}`).join('')
  return (
    <View
      role="img"
      aria-label={dynamicsWords(points)}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height, borderRadius: 10, backgroundColor: palette.surface, overflow: 'hidden' }}
    >
      <Svg width={width} height={height}>
        {edges.slice(1).map((edge) => (
          <Line key={edge} x1={x(edge)} x2={x(edge)} y1={0} y2={height} stroke={palette.faint} />
        ))}
        <Path d={line(({ brightHz = DARK_HZ }) => bright(brightHz))} fill="none" stroke={palette.muted} strokeDasharray="3 4" />
        <Path d={line(({ loudness }) => y(loudness))} fill="none" stroke={palette.kelp} strokeWidth={2} />
        {heard.map(({ velocity, loudness }) => (
          <Circle key={velocity} cx={x(velocity)} cy={y(loudness)} r={3} fill={palette.kelp} />
        ))}
        {told(stepsOf(points), x).map(({ velocity, db }) => (
          <G key={velocity}>
            <SvgText x={x(velocity) + 3} y={EDGE} fontFamily={fonts.figures} fontSize={11} fill={db < 0 ? palette.coral : palette.ink}>
              {`${db > 0 ? '+' : ''}${db.toFixed(1)}`}
            </SvgText>
          </G>
        ))}
      </Svg>
    </View>
  )
}

interface Step {
  readonly velocity: number
  readonly db: number
}

/** The steps that have room for their words, the largest first. */
function told(steps: readonly Step[], x: (velocity: number) => number): Step[] {
  const kept: Step[] = []
  for (const step of [...steps].sort((a, b) => Math.abs(b.db) - Math.abs(a.db)))
    if (Math.abs(step.db) >= TOLD_DB && kept.every(({ velocity }) => Math.abs(x(velocity) - x(step.velocity)) >= WORD_PX)) kept.push(step)
  return kept
}

/** What the chart shows, in words. */
export function dynamicsWords(points: readonly DynamicsPoint[]): string {
  const heard = points.filter(({ loudness }) => Number.isFinite(loudness))
  const [first, last] = [heard[0], heard[heard.length - 1]]
  if (!first || !last) return 'Nothing sounds at any velocity.'
  const [largest] = [...stepsOf(points)].sort((a, b) => Math.abs(b.db) - Math.abs(a.db))
  const range = `From ${first.loudness.toFixed(0)} LUFS at velocity ${first.velocity} to ${last.loudness.toFixed(0)} at ${last.velocity}`
  if (!largest || Math.abs(largest.db) < TOLD_DB) return `${range}, with no step between bands.`
  return `${range}; the largest step between bands is ${largest.db > 0 ? '+' : ''}${largest.db.toFixed(1)} dB, at velocity ${largest.velocity}.`
}
