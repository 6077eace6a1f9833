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
}

const LEAP = 10
const WAYS: Record<string, readonly [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }

/** A point on a chart: dragged with the chart, and moved by arrow keys where it has the focus. */
export function PointMark({ x, y, label, words, isChosen, onFocus, onMove }: Props) {
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
        onKeyDown: (event: { key: string; shiftKey: boolean; preventDefault(): void }) => {
          const way = WAYS[event.key]
          if (!way) return
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
          borderColor: palette.kelp,
          backgroundColor: isChosen ? palette.kelp : palette.surface,
        }}
      />
    </View>
  )
}
