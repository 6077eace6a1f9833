// Our own over @tanstack/react-virtual: the elements have rows, and no list that draws only those in sight.
import { useVirtualizer } from '@tanstack/react-virtual'
import { useImperativeHandle, useRef } from 'react'
import type { ReactNode, Ref } from 'react'
import { View } from 'react-native'
import type { ViewStyle } from 'react-native'

const OVERSCAN = 6

export interface LongListControls {
  /** Scrolls as little as brings a row into sight. */
  show(index: number): void
}

interface Props<T> {
  readonly ref?: Ref<LongListControls>
  readonly label: string
  readonly items: readonly T[]
  /** Of each row, in px. */
  readonly rowHeight: number
  readonly keyOf: (item: T) => string
  readonly draw: (item: T) => ReactNode
  /** In place of rows where there are none. */
  readonly empty: ReactNode
  readonly style?: ViewStyle
  /** Follows how far it is scrolled, px, and how much there is to see at all. */
  readonly onScrolled?: (offsetPx: number, heightPx: number) => void
}

/** Rows of one height, of which those in sight are drawn. */
export function LongList<T>({ ref, label, items, rowHeight, keyOf, draw, empty, style, onScrolled }: Props<T>) {
  const scroller = useRef<View>(null)
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current as unknown as HTMLElement | null,
    estimateSize: () => rowHeight,
    getItemKey: (index) => keyOf(items[index]),
    overscan: OVERSCAN,
    useFlushSync: false,
  })
  useImperativeHandle(ref, () => ({ show: (index) => rows.scrollToIndex(index, { align: 'auto' }) }), [rows])
  return (
    <View
      ref={scroller}
      role="group"
      tabIndex={0}
      aria-label={label}
      {...{
        onScroll: () => onScrolled?.(scroller.current ? (scroller.current as unknown as HTMLElement).scrollTop : 0, rows.getTotalSize()),
      }}
      style={[{ minHeight: 0, overflow: 'scroll' }, style]}
    >
      {items.length === 0 && empty}
      <View {...{ dataSet: { rows: '' } }} style={{ height: rows.getTotalSize(), flexShrink: 0 }}>
        {rows.getVirtualItems().map(({ key, index, start }) => (
          <View key={key} style={{ position: 'absolute', left: 0, right: 0, top: start, height: rowHeight }}>
            {draw(items[index])}
          </View>
        ))}
      </View>
    </View>
  )
}
