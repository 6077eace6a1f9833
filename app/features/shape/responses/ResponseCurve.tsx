import { bendOf, bentCurve, heightOf } from '@heliaster/core/kit'
import type { Pad, Response } from '@heliaster/core/kit'
import { useRef } from 'react'
import { View } from 'react-native'
import Svg, { Circle, Line, Path } from 'react-native-svg'

import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { useLiveSource } from './live-source'

interface Props {
  readonly pad: Pad
  readonly response: Response
  readonly label: string
  readonly onCurve: (curve: Response['curve']) => void
  readonly onDone: () => void
}

const WIDTH = 60
const EDGE = 6
const STEPS = 24
/** So far up or down bends it wholly, px. */
const WHOLE_PX = 60
const STEP = 0.05
const LEAP = 5

/**
 * How a response goes from nothing to all of its amount, with a dot where it stands now: bent by dragging up or down, or by
 * arrow keys. From velocity nothing is taken at the hardest strike; from all others nothing is added where they rest.
 */
export function ResponseCurve({ pad, response, label, onCurve, onDone }: Props) {
  const palette = usePalette()
  const live = useLiveSource(pad, response)
  const bend = bendOf(response.curve) ?? 0
  const from = useRef({ y: 0, bend: 0 })
  const set = (wanted: number) => onCurve(bentCurve(Math.round(100 * Math.min(1, Math.max(-1, wanted))) / 100))
  const drag = usePointerDrag({
    onStart(_, y) {
      from.current = { y, bend }
    },
    onMove: (_, y) => set(from.current.bend + (y - from.current.y) / WHOLE_PX),
    onEnd: onDone,
  })
  const keys: Record<string, number> = { ArrowUp: -STEP, ArrowRight: -STEP, ArrowDown: STEP, ArrowLeft: STEP }
  const way = Math.sign(response.amount) || 1
  const effect = (x: number) => way * (heightOf(response.curve, x) - (response.from.kind === 'velocity' ? 1 : 0))
  const [low, high] = [Math.min(effect(0), effect(1)), Math.max(effect(0), effect(1))]
  const place = (x: number): [number, number] => [
    EDGE + x * (WIDTH - 2 * EDGE),
    EDGE + ((high - effect(x)) / (high - low)) * (TOUCH - 2 * EDGE),
  ]
  const path = Array.from({ length: STEPS + 1 }, (_, i) => place(i / STEPS).map((n) => n.toFixed(1)).join(' ')).join('L') // prettier-ignore
  const none = EDGE + (high / (high - low)) * (TOUCH - 2 * EDGE)
  const dot = live === undefined ? undefined : place(live)
  return (
    <View
      ref={drag}
      role="slider"
      tabIndex={0}
      aria-label={`${label}: its curve`}
      aria-valuemin={-1}
      aria-valuemax={1}
      aria-valuenow={bend}
      aria-valuetext={bend === 0 ? 'straight' : bend < 0 ? `early, ${-bend}` : `late, ${bend}`}
      {...{
        onKeyDown: (event: { key: string; shiftKey: boolean; preventDefault(): void }) => {
          const by = keys[event.key]
          if (by === undefined) return
          event.preventDefault()
          set(bend + by * (event.shiftKey ? LEAP : 1))
          onDone()
        },
      }}
      style={{ width: WIDTH, height: TOUCH, borderRadius: 6, backgroundColor: palette.surface }}
    >
      <Svg width={WIDTH} height={TOUCH} aria-hidden style={{ pointerEvents: 'none' }}>
        <Line x1={EDGE} x2={WIDTH - EDGE} y1={none} y2={none} stroke={palette.line} strokeDasharray="2 3" />
        <Path d={`M${path}`} fill="none" stroke={response.bypass ? palette.muted : palette.kelp} strokeWidth={2} />
        {dot && <Circle cx={dot[0]} cy={dot[1]} r={4} fill={palette.coral} />}
      </Svg>
    </View>
  )
}
