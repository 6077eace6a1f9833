import type { SourceId } from '@heliaster/core/kit'
import { useRef } from 'react'
import type { RefObject } from 'react'
import { View } from 'react-native'

import { scrollAtEdge } from '../../../ui/pointer/scroll-at-edge'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { TOUCH } from '../../../ui/theme/theme'
import { withDragged } from './selection'
import type { Selecting } from './selection'
import { SOURCE_ROW_HEIGHT } from './SourceRow'

interface Props {
  readonly order: readonly SourceId[]
  readonly selection: ReadonlySet<SourceId>
  readonly scroller: RefObject<View | null>
  readonly onSelecting: (selecting: Selecting) => void
}

/** Ticks stand this far in. */
const LEFT_PX = 6

/** Ground over the ticks of the list: a drag down it, by mouse or finger, ticks row after row; a tap ticks one. */
export function DragTicks({ order, selection, scroller, onSelecting }: Props) {
  const drag = useRef<{ readonly from: number; readonly before: ReadonlySet<SourceId> }>(undefined)
  const row = (y: number) => Math.floor(y / SOURCE_ROW_HEIGHT)
  const reach = (y: number, clientY: number) => {
    const list = scroller.current as unknown as HTMLElement | null
    if (list) scrollAtEdge(list, clientY)
    if (drag.current) onSelecting(withDragged(drag.current.before, order, drag.current.from, row(y)))
  }
  const ref = usePointerDrag({
    onStart(_, y, event) {
      drag.current = { from: row(y), before: selection }
      if (event.shiftKey) return false // the range is the row's own matter
      reach(y, event.clientY)
    },
    onMove: (_, y, event) => reach(y, event.clientY),
    onEnd: () => (drag.current = undefined),
  })
  return (
    <View
      ref={ref}
      aria-hidden
      testID="ticks"
      style={{ position: 'absolute', left: LEFT_PX, top: 0, width: TOUCH, height: order.length * SOURCE_ROW_HEIGHT }}
    />
  )
}
