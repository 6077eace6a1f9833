// Our own: the elements have no field in which one finger sets two values.
import { useRef } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { Text } from '../layout/Text'
import { usePointerDrag } from '../pointer/use-pointer-drag'
import { usePalette } from '../theme/theme'
import { placesOf, scaleOf } from './scale'
import type { ScaleRange } from './scale'

/** One of a pool's two values. */
export interface PoolAxis extends ScaleRange {
  readonly label: string
  readonly value: number
  readonly unit: string
  readonly format?: (value: number) => string
}

interface Props {
  readonly title: string
  /** Sideways. */
  readonly x: PoolAxis
  /** Up and down; a pool of one value has none. */
  readonly y?: PoolAxis
  /** Drawn under the finger, as large as the field. */
  readonly children?: (width: number, height: number) => ReactNode
  readonly width: number
  readonly height: number
  readonly isChosen: boolean
  /** Its value is its own, where others are inherited. */
  readonly isOwn?: boolean
  readonly onChoose: () => void
  readonly onSlide: (x: number, y: number) => void
  readonly onDone: () => void
}

/** So many px of a finger's way are the whole range: more than the field is wide, so that it is set finely. */
const WAY_PX = 240
const LEAP = 10

/** A value as it reads, with its unit. */
export function axisWords({ value, step, unit, format }: PoolAxis): string {
  return format ? format(value) : `${value.toFixed(placesOf(step))}${unit === '' ? '' : ` ${unit}`}`
}

/**
 * A pool: a small field in which one finger sets two values, sideways and up and down, from where they stand. What it does is
 * drawn in it. By keys each arrow moves one of them.
 */
export function Pool({ title, x, y, children, width, height, isChosen, isOwn, onChoose, onSlide, onDone }: Props) {
  const palette = usePalette()
  const from = useRef({ px: 0, py: 0, x: 0, y: 0 })
  const [scaleX, scaleY] = [scaleOf(x), y && scaleOf(y)]
  const drag = usePointerDrag({
    onStart(px, py) {
      from.current = { px, py, x: scaleX.toShare(x.value), y: y && scaleY ? scaleY.toShare(y.value) : 0 }
      onChoose()
    },
    onMove(px, py) {
      const nextX = scaleX.fromShare(from.current.x + (px - from.current.px) / WAY_PX)
      const nextY = scaleY ? scaleY.fromShare(from.current.y - (py - from.current.py) / WAY_PX) : 0
      onSlide(nextX, nextY)
    },
    onEnd: onDone,
  })
  const nudge = (byX: number, byY: number) => {
    onSlide(scaleX.snap(x.value + byX * x.step), y && scaleY ? scaleY.snap(y.value + byY * y.step) : 0)
    onDone()
  }
  const ways: Record<string, readonly [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ...(y ? { ArrowUp: [0, 1], ArrowDown: [0, -1] } : {}),
  }
  const words = [x, y].flatMap((axis) => (axis ? [`${axis.label} ${axisWords(axis)}`] : [])).join(', ')
  return (
    <View style={{ width, gap: 2 }}>
      <Text look="label" numberOfLines={1} tone={isChosen ? 'ink' : 'muted'}>
        {isOwn ? `${title} •` : title}
      </Text>
      <View
        ref={drag}
        role="slider"
        tabIndex={0}
        aria-label={isOwn ? `${title}, its own` : title}
        aria-valuetext={words}
        aria-valuenow={x.value}
        {...{
          onFocus: onChoose,
          onKeyDown: (event: { key: string; shiftKey: boolean; preventDefault(): void }) => {
            const way = ways[event.key]
            if (!way) return
            event.preventDefault()
            const by = event.shiftKey ? LEAP : 1
            nudge(way[0] * by, way[1] * by)
          },
        }}
        style={{
          height,
          borderRadius: 10,
          overflow: 'hidden',
          backgroundColor: palette.surface,
          borderWidth: isChosen ? 2 : 1,
          borderColor: isChosen ? palette.kelp : palette.line,
        }}
      >
        <View style={{ position: 'absolute', pointerEvents: 'none' }}>{children?.(width, height)}</View>
        <PoolFigures x={x} y={y} />
      </View>
    </View>
  )
}

function PoolFigures({ x, y }: { readonly x: PoolAxis; readonly y: PoolAxis | undefined }) {
  return (
    <View style={{ flex: 1, justifyContent: 'space-between', paddingHorizontal: 8, paddingVertical: 5, pointerEvents: 'none' }}>
      <Text look="figures" style={{ userSelect: 'none' }}>
        {y ? axisWords(y) : ' '}
      </Text>
      <Text look="figures" style={{ textAlign: 'right', userSelect: 'none' }}>
        {axisWords(x)}
      </Text>
    </View>
  )
}
