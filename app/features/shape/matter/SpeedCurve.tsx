import type { MatterStep } from '@heliaster/core/kit'
import { useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { Line, Path } from 'react-native-svg'

import { PointMark } from '../../../ui/controls/PointMark'
import { Text } from '../../../ui/layout/Text'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { usePalette } from '../../../ui/theme/theme'

type Points = NonNullable<MatterStep['curve']>

interface Props {
  /** How long the clip is. */
  readonly seconds: number
  readonly points: Points
  readonly onSlide: (points: Points) => void
  readonly onDone: () => void
}

const HEIGHT = 120
const EDGE = 14
const MOST = 200
const NEAR_PX = 26
/** Close to its own pace or to a standstill is meant as that, %. */
const SNAP = 6
const round = (value: number, places: number) => Math.round(value * 10 ** places) / 10 ** places

/**
 * How fast a clip goes by, along it: points are dragged, a tap where none is puts one in, Delete takes one out. At the bottom
 * it stands still, and sounds on.
 */
export function SpeedCurve({ seconds, points, onSlide, onDone }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const [chosen, choose] = useState<number>()
  const held = useRef<{ at: number; points: Points }>(undefined)
  const inner = Math.max(1, width - 2 * EDGE)
  const xOf = (at: number) => EDGE + (at / seconds) * inner
  const yOf = (value: number) => EDGE + (1 - value / MOST) * (HEIGHT - 2 * EDGE)
  const put = (all: Points, at: number, moment: number, value: number) => {
    const [low, high] = [all[at - 1]?.seconds ?? 0, all[at + 1]?.seconds ?? seconds]
    const pace = Math.min(MOST, Math.max(0, value))
    const snapped = Math.abs(pace - 100) < SNAP ? 100 : pace < SNAP ? 0 : Math.round(pace)
    onSlide(all.map((one, i) => (i === at ? { seconds: round(Math.min(high, Math.max(low, moment)), 4), value: snapped } : one)))
  }
  const momentOf = (x: number) => ((x - EDGE) / inner) * seconds
  const valueOf = (y: number) => (1 - (y - EDGE) / (HEIGHT - 2 * EDGE)) * MOST
  const drag = usePointerDrag({
    onStart(x, y) {
      const far = (point: Points[number]) => Math.hypot(x - xOf(point.seconds), y - yOf(point.value))
      const nearest = points.reduce((best, point, i) => (far(point) < far(points[best]!) ? i : best), 0)
      if (points.length > 0 && far(points[nearest]!) < NEAR_PX) held.current = { at: nearest, points }
      else {
        const at = points.filter((point) => point.seconds <= momentOf(x)).length
        const with_ = [...points.slice(0, at), { seconds: momentOf(x), value: valueOf(y) }, ...points.slice(at)]
        held.current = { at, points: with_ }
        put(with_, at, momentOf(x), valueOf(y))
      }
      choose(held.current.at)
    },
    onMove: (x, y) => held.current && put(held.current.points, held.current.at, momentOf(x), valueOf(y)),
    onEnd: onDone,
  })
  const takeOut = (at: number) => {
    if (points.length < 2) return
    onSlide(points.filter((_, i) => i !== at))
    choose(undefined)
    onDone()
  }
  const line = points.map((point) => `${xOf(point.seconds).toFixed(1)} ${yOf(point.value).toFixed(1)}`)
  const path = points.length > 0 ? `M${EDGE} ${yOf(points[0]!.value).toFixed(1)}L${line.join('L')}L${EDGE + inner} ${yOf(points.at(-1)!.value).toFixed(1)}` : '' // prettier-ignore
  return (
    <View style={{ gap: 4 }}>
      <Text look="label" tone="muted">
        Speed along the hit
      </Text>
      <View
        ref={drag}
        onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
        style={{ height: HEIGHT, borderRadius: 8, backgroundColor: palette.paper, overflow: 'hidden' }}
      >
        <Svg width="100%" height={HEIGHT} aria-hidden style={{ pointerEvents: 'none' }}>
          <Line x1={EDGE} x2={EDGE + inner} y1={yOf(100)} y2={yOf(100)} stroke={palette.line} strokeDasharray="3 4" />
          <Path d={path} fill="none" stroke={palette.kelp} strokeWidth={2} />
        </Svg>
        <Text look="small" tone="muted" style={{ position: 'absolute', right: 8, top: 2, fontSize: 12 }}>
          faster
        </Text>
        <Text look="small" tone="muted" style={{ position: 'absolute', left: 8, bottom: 2, fontSize: 12 }}>
          stands still
        </Text>
        {points.map((point, at) => (
          <PointMark
            key={at}
            x={xOf(point.seconds)}
            y={yOf(point.value)}
            label={`Speed, point ${at + 1}`}
            words={`${Math.round(1000 * point.seconds)} ms, ${point.value < 1 ? 'stands still' : `${Math.round(point.value)} %`}`}
            isChosen={chosen === at}
            onFocus={() => choose(at)}
            onMove={(byX, byY) => {
              put(points, at, point.seconds + 0.005 * byX, point.value + 5 * byY)
              onDone()
            }}
            onKey={(key) => {
              if (key !== 'Delete' && key !== 'Backspace') return false
              takeOut(at)
              return true
            }}
          />
        ))}
      </View>
    </View>
  )
}
