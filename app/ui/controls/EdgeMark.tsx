// Our own: the elements have no edge that is moved over a picture.
import { View } from 'react-native'

import { TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  /** Where it stands, px. */
  readonly x: number
  readonly height: number
  readonly value: number
  readonly words: string
  /** Its knob is at the foot. */
  readonly isBelow?: boolean
  /** Kelp without it. */
  readonly color?: string
  /** Arrow keys move it by steps; with Shift by ten at once. */
  readonly onNudge: (by: number) => void
}

const KNOB_PX = 16
const LEAP = 10
const WAYS: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }

/** An edge over a wave: dragged with what it lies on, and moved by arrow keys. */
export function EdgeMark({ label, x, height, value, words, isBelow = false, color, onNudge }: Props) {
  const palette = usePalette()
  const backgroundColor = color ?? palette.kelp
  return (
    <View
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={value}
      aria-valuetext={words}
      {...{
        onKeyDown: (event: { key: string; shiftKey: boolean; preventDefault(): void }) => {
          const way = WAYS[event.key]
          if (!way) return
          event.preventDefault()
          onNudge(way * (event.shiftKey ? LEAP : 1))
        },
      }}
      style={{ position: 'absolute', left: x - TOUCH / 2, width: TOUCH, height, alignItems: 'center' }}
    >
      <View style={{ width: 3, height, borderRadius: 2, backgroundColor }} />
      <View
        style={{
          position: 'absolute',
          top: isBelow ? height - KNOB_PX : 0,
          width: KNOB_PX,
          height: KNOB_PX,
          borderRadius: KNOB_PX / 2,
          backgroundColor,
        }}
      />
    </View>
  )
}
