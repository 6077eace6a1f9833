import type { Clip, TurnId } from '@heliaster/core/kit'
import { Pressable } from 'react-native'

import type { ClipLook } from '../../../../audio/files/clip-look'
import { useSwapped } from '../../../../ui/pointer/Swapping'
import { usePalette } from '../../../../ui/theme/theme'
import type { CellKey } from './cell-keys'
import { CellFace } from './CellFace'

interface Props {
  readonly id: TurnId
  /** From 1, as people count. */
  readonly band: number
  readonly turn: number
  readonly clip: Clip | 'intendedSilence' | undefined
  readonly look: ClipLook | undefined
  /** Level of the band. */
  readonly gainDb: number
  readonly loudestDb: number
  readonly middleDb: number
  /** In px. */
  readonly size: number
  readonly isChosen: boolean
  /** It sounded last. */
  readonly isLit: boolean
  readonly onPress: () => void
  /** It is to be one of several, or not any more. */
  readonly onMark: () => void
  readonly onKey: (event: CellKey) => void
}

/** One cell: a tap hears it alone, a drag swaps it with another. */
export function Cell({ id, band, turn, clip, look, gainDb, loudestDb, middleDb, size, isChosen, isLit, onPress, onMark, onKey }: Props) {
  const palette = usePalette()
  const { ref, isOver, isDragging, shift, listeners, described } = useSwapped(id)
  const keys = (event: CellKey) => {
    listeners?.onKeyDown?.(event)
    if (!isDragging) onKey(event)
  }
  return (
    <Pressable
      ref={ref}
      role="button"
      aria-label={`Hear band ${band}, turn ${turn}${clip ? '' : ', no clip'}`}
      aria-pressed={isChosen}
      onPress={(event) => ((event.nativeEvent as unknown as MouseEvent).shiftKey ? onMark() : onPress())}
      {...described}
      {...listeners}
      {...{ dataSet: { turn: id }, onKeyDown: keys }}
      style={{
        width: size,
        height: size,
        borderRadius: 6,
        borderWidth: isLit || isOver ? 2 : 1,
        borderStyle: clip ? 'solid' : 'dashed',
        borderColor: isLit ? palette.coral : isChosen || isOver || isDragging ? palette.kelp : palette.line,
        backgroundColor: isLit ? palette.coralWash : clip ? palette.surface : 'transparent',
        alignItems: 'center',
        justifyContent: 'center',
        ...(shift ? { transform: [{ translateX: shift.x }, { translateY: shift.y }], zIndex: 2 } : {}),
        ...({ userSelect: 'none' } as object), // a drag selects no text
      }}
    >
      <CellFace clip={clip} look={look} gainDb={gainDb} loudestDb={loudestDb} middleDb={middleDb} turn={turn - 1} cell={size} />
    </Pressable>
  )
}
