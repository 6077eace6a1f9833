// Renders the elements' Overlay.
import Overlay from '@rneui/themed/dist/Overlay'
import { useEffect, useEffectEvent, useRef, useState } from 'react'
import type { ReactNode } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { IconButton } from '../controls/Button'
import { isOnTop, openSheets, putOnTop } from './open-sheets'
import { Text } from './Text'
import { usePalette } from '../theme/theme'
import { useIsWide } from './use-is-wide'

interface Props {
  readonly title: string
  readonly isOpen: boolean
  readonly onClose: () => void
  readonly children: ReactNode
  /** Beside the title. */
  readonly beside?: ReactNode
  /** Buttons that stay in sight under the scrolling part. */
  readonly actions?: ReactNode
}

/** Escape closes the sheet on top, and only that one. */
function useEscape(isOpen: boolean, onClose: () => void): void {
  const close = useEffectEvent(onClose)
  useEffect(() => {
    if (!isOpen) return undefined
    const self = {}
    const takeOff = putOnTop(self)
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented || !isOnTop(self)) return
      event.preventDefault() // the one below hears the same key
      close()
    }
    // A field that is typed in keeps its keys to itself: for it the key is heard on its way down.
    const onFieldKey = (event: KeyboardEvent) => {
      if ((event.target as Element | null)?.matches?.('input, textarea')) onKey(event)
    }
    window.addEventListener('keydown', onKey)
    window.addEventListener('keydown', onFieldKey, { capture: true })
    return () => {
      takeOff()
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('keydown', onFieldKey, { capture: true })
    }
  }, [isOpen])
}

/** The most that a sheet is high: on a phone it leaves room for what is being said above it. By the page: a keyboard does not count. */
function useMostHigh(isWide: boolean): '88%' {
  const leftPx = useStore(openSheets, (state) => state.leftPx)
  return isWide || leftPx === 0 ? '88%' : (`min(88%, calc(100% - ${leftPx}px))` as '88%')
}

/** The modal would close the next sheet when the key comes up. */
const leaveKeys = () => undefined

/** A sheet over the screen: from the bottom on a phone, in the middle on a wide screen. */
export function Sheet({ title, isOpen, onClose, children, beside, actions }: Props) {
  const palette = usePalette()
  const isWide = useIsWide()
  const maxHeight = useMostHigh(isWide)
  useEscape(isOpen, onClose)
  if (!isOpen) return null
  return (
    <Overlay
      isVisible
      aria-label={title}
      animationType="none"
      onBackdropPress={onClose}
      onRequestClose={leaveKeys}
      pressableProps={{ 'aria-hidden': true, tabIndex: -1 }} // the sign in its head is the one to be told of
      backdropStyle={{ backgroundColor: '#0a1216', opacity: 0.5 }}
      overlayStyle={{
        width: '100%',
        maxWidth: 560,
        maxHeight,
        padding: 0,
        backgroundColor: palette.raised,
        borderRadius: 16,
        ...(isWide ? {} : { marginTop: 'auto', borderBottomLeftRadius: 0, borderBottomRightRadius: 0 }),
        overflow: 'hidden',
      }}
    >
      <View style={{ flexShrink: 1, minHeight: 0 }}>
        <View
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            justifyContent: 'space-between',
            paddingLeft: 20,
            paddingRight: 8,
            paddingVertical: 8,
            borderBottomWidth: 1,
            borderBottomColor: palette.faint,
          }}
        >
          <Text look="heading" numberOfLines={2} style={{ flex: 1 }}>
            {title}
          </Text>
          {beside}
          <IconButton name="close" label="Close" onPress={onClose} />
        </View>
        <SheetBody title={title}>{children}</SheetBody>
        {actions && <View style={{ padding: 16, gap: 10, borderTopWidth: 1, borderTopColor: palette.faint }}>{actions}</View>}
      </View>
    </Overlay>
  )
}

const REACHED = 'a[href], button, input, textarea, [tabindex="0"]'

/** What a sheet is about, which scrolls. Long words alone are reached by keys too, so that they can be scrolled by them. */
function SheetBody({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  const body = useRef<ScrollView>(null)
  const [isReached, setReached] = useState(false)
  const look = () => {
    const node = body.current?.getScrollableNode() as HTMLElement | undefined
    if (node) setReached(node.scrollHeight > node.clientHeight + 1 && !node.querySelector(REACHED))
  }
  const asGroup = isReached ? { role: 'group' as const, 'aria-label': title, tabIndex: 0 as const } : {}
  return (
    <ScrollView ref={body} {...asGroup} onLayout={look} onContentSizeChange={look} contentContainerStyle={{ padding: 20, gap: 18 }}>
      {children}
    </ScrollView>
  )
}
