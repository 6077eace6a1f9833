// Our own, made of our Button and Text: the elements have nothing that is said and goes by itself.
import { View } from 'react-native'
import { useEffect } from 'react'
import { createPortal } from 'react-dom'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import { Button, IconButton } from '../controls/Button'
import { openSheets } from './open-sheets'
import { Text } from './Text'
import { useIsWide } from './use-is-wide'
import { usePalette } from '../theme/theme'

interface Notice {
  readonly id: number
  readonly text: string
  readonly action?: { readonly label: string; readonly run: () => void }
}

const store = createStore<{ notices: Notice[] }>(() => ({ notices: [] }))
let nextId = 1
/** How long it stands, from when it can be read: a device may be busy when it is said. */
const SHOWN_MS = 9000
/** What could not be shown in this time is no news any more. */
const STALE_MS = 60_000

/** Sheets lie at 9999. */
const ABOVE_SHEETS = 10000

/** How many places nearer to what is worked on there are for it. */
const places = createStore<{ readonly count: number }>(() => ({ count: 0 }))

/** Says something where it covers nothing, with at most one thing to do about it. What is said already is not said twice. */
export function notify(text: string, action?: Notice['action']): void {
  const id = nextId++
  store.setState(({ notices }) => ({ notices: [...notices.filter((notice) => notice.text !== text).slice(-2), { id, text, action }] }))
  setTimeout(() => dismiss(id), STALE_MS)
}

function dismiss(id: number): void {
  store.setState(({ notices }) => ({ notices: notices.filter((notice) => notice.id !== id) }))
}

/**
 * What is being said: it takes its own room, so that it covers nothing. At the end of the page, unless a place nearer to the work
 * is there; while a sheet is open, beside that.
 */
export function Notices() {
  const hasPlace = useStore(places, ({ count }) => count > 0)
  const isBehind = useStore(openSheets, ({ sheets }) => sheets.length > 0)
  const isWide = useIsWide()
  if (!isBehind) return hasPlace ? null : <Said />
  return createPortal(isWide ? <BesideSheet /> : <AboveSheet />, document.body)
}

/** Beside a sheet in the middle of a wide screen. */
const BESIDE_PX = 330

function BesideSheet() {
  return (
    <View
      pointerEvents="box-none"
      style={{ position: 'fixed' as 'absolute', zIndex: ABOVE_SHEETS, left: 20, bottom: 20, width: BESIDE_PX }}
    >
      <Said />
    </View>
  )
}

/** From a phone's edge to what is said above a sheet. */
const EDGE_PX = 8

/** Above a sheet that rises from the bottom of a phone, which leaves as much room as is taken: its head stays in reach. */
function AboveSheet() {
  const leave = (leftPx: number) => openSheets.setState({ leftPx })
  useEffect(() => () => leave(0), [])
  return (
    <View
      pointerEvents="box-none"
      onLayout={({ nativeEvent }) => leave(nativeEvent.layout.height > 0 ? EDGE_PX + nativeEvent.layout.height : 0)}
      style={{ position: 'fixed' as 'absolute', zIndex: ABOVE_SHEETS, left: EDGE_PX, right: EDGE_PX, top: EDGE_PX }}
    >
      <Said most={1} />
    </View>
  )
}

/** A place for what is said that is nearer to the work: there it moves nothing that one holds or plays. */
export function NoticesHere() {
  const isBehind = useStore(openSheets, ({ sheets }) => sheets.length > 0)
  useEffect(() => {
    places.setState(({ count }) => ({ count: count + 1 }))
    return () => places.setState(({ count }) => ({ count: count - 1 }))
  }, [])
  return isBehind ? null : <Said />
}

/** All that is being said; above a sheet on a phone there is room for the newest alone, and the one before comes back after it. */
function Said({ most }: { readonly most?: number }) {
  const all = useStore(store, (state) => state.notices)
  const notices = most === undefined ? all : all.slice(-most)
  return (
    <View role="status" aria-live="polite" style={notices.length > 0 ? { gap: 6, padding: 6, alignItems: 'center' } : undefined}>
      {notices.map((notice) => (
        <NoticeLine key={notice.id} notice={notice} />
      ))}
    </View>
  )
}

function NoticeLine({ notice: { id, text, action } }: { readonly notice: Notice }) {
  const palette = usePalette()
  useEffect(() => {
    const timer = setTimeout(() => dismiss(id), SHOWN_MS)
    return () => clearTimeout(timer)
  }, [id])
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        maxWidth: 560,
        backgroundColor: palette.raised,
        borderRadius: 10,
        borderWidth: 1,
        borderColor: palette.ink,
        paddingLeft: 16,
        paddingRight: 4,
        paddingVertical: 2,
      }}
    >
      <Text look="small" style={{ flexShrink: 1 }}>
        {text}
      </Text>
      {action && (
        <Button
          label={action.label}
          onPress={() => {
            action.run()
            dismiss(id)
          }}
        />
      )}
      <IconButton name="close" label="Put this away" onPress={() => dismiss(id)} />
    </View>
  )
}
