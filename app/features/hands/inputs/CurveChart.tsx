import { heightOfCurve, velocityThrough, withPoint } from '@heliaster/core/hands'
import type { VelocityCurve } from '@heliaster/core/hands'
import { useState } from 'react'
import { View } from 'react-native'
import Svg, { Circle, Line, Path } from 'react-native-svg'

import type { Stroke } from '../../../audio/playing/hands/hands'
import { PointMark } from '../../../ui/controls/PointMark'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly curve: VelocityCurve
  readonly size: number
  /** The last strike, drawn on the curve. */
  readonly stroke: Stroke | undefined
  readonly chosen: number
  readonly onChoose: (index: number) => void
  readonly onCurve: (curve: VelocityCurve) => void
}

const EDGE = TOUCH / 2

/** How strong a strike sounds (upwards) by how strong it came (to the right): points are dragged, or moved by arrow keys. */
export function CurveChart({ curve, size, stroke, chosen, onChoose, onCurve }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(size)
  const inner = { width: width - 2 * EDGE, height: size - 2 * EDGE }
  const xOf = (at: number) => EDGE + ((at - 1) / 126) * inner.width
  const yOf = (to: number) => EDGE + (1 - (to - 1) / 126) * inner.height
  const valuesAt = (x: number, y: number) => [1 + (126 * (x - EDGE)) / inner.width, 1 + 126 * (1 - (y - EDGE) / inner.height)] as const
  const nearest = (x: number, y: number) => {
    const far = curve.points.map(({ at, to }) => Math.hypot(xOf(at) - x, yOf(to) - y))
    return far.indexOf(Math.min(...far))
  }
  const drag = usePointerDrag({
    onStart(x, y) {
      onChoose(nearest(x, y))
    },
    onMove: (x, y) => onCurve(withPoint(curve, chosen, ...valuesAt(x, y))),
    onEnd: () => undefined,
  })
  const heights = Array.from({ length: 127 }, (_, i) => (curve.steps > 0 ? velocityThrough(curve, i + 1) : heightOfCurve(curve, i + 1)))
  return (
    <View
      ref={drag}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height: size, width: '100%', maxWidth: 420, backgroundColor: palette.surface, borderRadius: 8 }}
    >
      <Svg width={width} height={size} aria-hidden style={{ position: 'absolute' }}>
        <Line x1={xOf(1)} y1={yOf(1)} x2={xOf(127)} y2={yOf(127)} stroke={palette.line} strokeDasharray="2 4" />
        <Path d={pathOf(heights, xOf, yOf)} fill="none" stroke={palette.kelp} strokeWidth={2} />
        {stroke && (
          <>
            <Line x1={xOf(stroke.came)} y1={yOf(1)} x2={xOf(stroke.came)} y2={yOf(stroke.velocity)} stroke={palette.coral} />
            <Circle cx={xOf(stroke.came)} cy={yOf(stroke.velocity)} r={5} fill={palette.coral} />
          </>
        )}
      </Svg>
      {curve.points.map(({ at, to }, index) => (
        <PointMark
          key={index}
          x={xOf(at)}
          y={yOf(to)}
          words={`${at} sounds as ${to}`}
          label={`Point ${index + 1} of ${curve.points.length}`}
          isChosen={index === chosen}
          onFocus={() => onChoose(index)}
          onMove={(byAt, byTo) => onCurve(withPoint(curve, index, at + byAt, to + byTo))}
        />
      ))}
      <Text look="figures" tone="muted" style={{ position: 'absolute', left: EDGE, bottom: 2, fontSize: 11, pointerEvents: 'none' }}>
        softly
      </Text>
      <Text look="figures" tone="muted" style={{ position: 'absolute', right: EDGE, bottom: 2, fontSize: 11, pointerEvents: 'none' }}>
        how you strike: hard
      </Text>
    </View>
  )
}

/** A line through the heights of velocities 1..127. */
function pathOf(heights: readonly number[], xOf: (at: number) => number, yOf: (to: number) => number): string {
  return heights.map((to, i) => `${i === 0 ? 'M' : 'L'}${xOf(i + 1).toFixed(1)} ${yOf(to).toFixed(1)}`).join('')
}
