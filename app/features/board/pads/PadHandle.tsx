import type { PadId } from '@heliaster/core/kit'
import { Pressable } from 'react-native'

import { strikePad } from '../../../audio/engine/sound'
import { useSwapped } from '../../../ui/pointer/Swapping'
import { usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly id: PadId
  readonly label: string
  readonly isHeld: boolean
  readonly onPress: () => void
  readonly box: { readonly left: number; readonly top: number; readonly width: number; readonly height: number }
  /** Round as a pad, or a frame about it and its name. */
  readonly radius: number
  /** How far it is dragged from its place, px; without it the frame goes along. */
  readonly children?: (shift: { readonly x: number; readonly y: number }) => React.ReactNode
}

/** As hard as a pad sounds when it is taken up. */
const TAKEN = 96

/** What lies over a pad while it is taken rather than played: dragged, tapped or taken by keys; it sounds as it is taken. */
export function PadHandle({ id, label, isHeld, onPress, box, radius, children }: Props) {
  const palette = usePalette()
  const { ref, isOver, isDragging, shift, listeners, described } = useSwapped(id)
  const isMarked = isHeld || isOver || isDragging
  return (
    <>
      <Pressable
        ref={ref}
        role="button"
        aria-pressed={isHeld}
        aria-label={label}
        onPressIn={() => strikePad({ padId: id, velocity: TAKEN })}
        onPress={onPress}
        {...described}
        {...listeners}
        {...{ dataSet: { taken: id } }}
        style={{
          position: 'absolute',
          ...box,
          borderRadius: radius,
          borderWidth: isMarked ? 2 : 1,
          borderStyle: isMarked ? 'solid' : 'dashed',
          borderColor: isMarked ? palette.kelp : palette.muted,
          ...(shift && !children ? { transform: [{ translateX: shift.x }, { translateY: shift.y }], zIndex: 2 } : {}),
          ...({ userSelect: 'none' } as object),
        }}
      />
      {shift && children?.(shift)}
    </>
  )
}
