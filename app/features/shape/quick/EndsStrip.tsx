import { useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { Path, Rect } from 'react-native-svg'

import { EdgeMark } from '../../../ui/controls/EdgeMark'
import { mirroredOutline } from '../../../ui/drawing/outline'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { usePalette } from '../../../ui/theme/theme'

interface Props {
  /** Highest level of each part of the clip, 0..1. */
  readonly levels: Float32Array
  readonly clipSeconds: number
  readonly startSeconds: number
  /** Before the clip's own end. */
  readonly endSeconds: number
  /** Where the softest strike begins, where that is another place. */
  readonly softestSeconds?: number
  readonly onSlide: (ends: { readonly startSeconds: number; readonly endSeconds: number }) => void
  readonly onSoftest?: (seconds: number) => void
  readonly onDone: () => void
}

export const STRIP_PX = 52
const EDGE = 10
/** So much is left of a clip between its ends, seconds. */
const LEAST_SECONDS = 0.002
const STEP_SECONDS = 0.001
/** Of two marks that lie close, the one whose knob is in the half that is touched is meant. */
const OTHER_HALF = 8
const isBelow = (which: 'start' | 'end' | 'softest') => which !== 'start'

type Which = 'start' | 'end' | 'softest'
const NAMES: Record<Which, string> = { start: 'Start', end: 'End', softest: 'Start of the softest' }

/**
 * The whole clip, with where a strike begins and ends in it, and where the softest begins: dragged, or moved by arrow keys.
 */
export function EndsStrip(props: Props) {
  const { levels, clipSeconds, startSeconds, endSeconds, softestSeconds, onSlide, onSoftest, onDone } = props
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const held = useRef<Which>(undefined)
  const inner = Math.max(1, width - 2 * EDGE)
  const last = clipSeconds - endSeconds
  const xOf = (seconds: number) => EDGE + (seconds / clipSeconds) * inner
  const places: Partial<Record<Which, number>> = { start: startSeconds, end: last, softest: softestSeconds }
  const move = (which: Which, seconds: number) => {
    const at = Number(seconds.toFixed(5))
    if (which === 'start') onSlide({ startSeconds: Math.min(last - LEAST_SECONDS, Math.max(0, at)), endSeconds })
    else if (which === 'end')
      onSlide({ startSeconds, endSeconds: clipSeconds - Math.min(clipSeconds, Math.max(startSeconds + LEAST_SECONDS, at)) })
    else onSoftest?.(Math.min(last - LEAST_SECONDS, Math.max(0, at)))
  }
  const drag = usePointerDrag({
    onStart(x, y) {
      const far = (which: Which) => Math.abs(x - xOf(places[which]!)) + (isBelow(which) === y > STRIP_PX / 2 ? 0 : OTHER_HALF)
      const all = (Object.keys(places) as Which[]).filter((which) => places[which] !== undefined)
      held.current = all.reduce((nearest, which) => (far(which) < far(nearest) ? which : nearest))
    },
    onMove: (x) => move(held.current!, ((x - EDGE) / inner) * clipSeconds),
    onEnd: onDone,
  })
  const nudge = (which: Which, by: number) => {
    move(which, places[which]! + by)
    onDone()
  }
  return (
    <View ref={drag} onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)} style={{ height: STRIP_PX, width: '100%' }}>
      <Svg width={width} height={STRIP_PX} aria-hidden style={{ position: 'absolute' }}>
        <Rect
          x={xOf(startSeconds)}
          y={0}
          width={Math.max(0, xOf(last) - xOf(startSeconds))}
          height={STRIP_PX}
          fill={palette.waterWash}
          rx={4}
        />
        <Path d={mirroredOutline(levels, { width: inner, edge: EDGE, height: STRIP_PX })} fill={palette.waterInk} />
        {softestSeconds !== undefined && (
          <Rect
            x={Math.min(xOf(startSeconds), xOf(softestSeconds))}
            y={0}
            width={Math.abs(xOf(softestSeconds) - xOf(startSeconds))}
            height={STRIP_PX}
            fill={palette.coral}
            fillOpacity={0.22}
          />
        )}
      </Svg>
      <EdgeMark
        label={NAMES.start}
        x={xOf(startSeconds)}
        height={STRIP_PX}
        {...told(startSeconds)}
        onNudge={(by) => nudge('start', by * STEP_SECONDS)}
      />
      <EdgeMark
        label={NAMES.end}
        x={xOf(last)}
        height={STRIP_PX}
        isBelow
        {...told(last)}
        onNudge={(by) => nudge('end', by * STEP_SECONDS)}
      />
      {softestSeconds !== undefined && (
        <EdgeMark
          label={NAMES.softest}
          x={xOf(softestSeconds)}
          height={STRIP_PX}
          isBelow
          color={palette.coral}
          {...told(softestSeconds)}
          onNudge={(by) => nudge('softest', by * STEP_SECONDS)}
        />
      )}
    </View>
  )
}

/** A time as a mark tells it, ms. */
const told = (seconds: number) => ({ value: Math.round(seconds * 1000), words: `${(seconds * 1000).toFixed(1)} ms` })
