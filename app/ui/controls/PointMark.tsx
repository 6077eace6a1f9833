// Our own: the elements have no point of a chart that is moved both ways.
import { View } from 'react-native'

import { TOUCH, usePalette } from '../theme/theme'

interface Props {
  /** Where its middle is, px. */
  readonly x: number
  readonly y: number
  readonly label: string
  /** What it says, for who cannot see where it is. */
  readonly words: string
  readonly isChosen: boolean
  readonly onFocus: () => void
  /** Arrow keys move it by steps, to the right and upwards; with Shift by ten at once. */
  readonly onMove: (byX: number, byY: number) => void
  /** Other keys, with whether a command key is held; true where it was one for the point. */
  readonly onKey?: (key: string, isCommand: boolean) => boolean
  /** Of its rim; kelp without it. */
  readonly color?: string
}

const LEAP = 10
const WAYS: Record<string, readonly [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }

interface PointKey {
  readonly key: string
  readonly shiftKey: boolean
  readonly ctrlKey: boolean
  readonly metaKey: boolean
  preventDefault(): void
}

/** A point on a chart: dragged with the chart, and moved by arrow keys where it has the focus. */
export function PointMark({ x, y, label, words, isChosen, onFocus, onMove, onKey, color }: Props) {
  const palette = usePalette()
  const size = isChosen ? 18 : 12
  return (
    <View
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuetext={words}
      {...{
        onFocus,
        onKeyDown: (event: PointKey) => {
          const way = WAYS[event.key]
          if (!way) {
            if (onKey?.(event.key, event.ctrlKey || event.metaKey)) event.preventDefault()
            return
          }
          event.preventDefault()
          const by = event.shiftKey ? LEAP : 1
          onMove(way[0] * by, way[1] * by)
        },
      }}
      style={{
        position: 'absolute',
        left: x - TOUCH / 2,
        top: y - TOUCH / 2,
        width: TOUCH,
        height: TOUCH,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      <View
        style={{
          width: size,
          height: size,
          borderRadius: size / 2,
          borderWidth: 3,
          borderColor: color ?? palette.kelp,
          backgroundColor: isChosen ? (color ?? palette.kelp) : palette.surface,
        }}
      />
    </View>
  )
}
