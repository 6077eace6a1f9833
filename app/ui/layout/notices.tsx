// Our own, made of our Button and Text: the elements have nothing that is said and goes by itself.
import { View } from 'react-native'
import { createPortal } from 'react-dom'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import { Button, IconButton } from '../controls/Button'
import { Text } from './Text'
import { usePalette } from '../theme/theme'

interface Notice {
  readonly id: number
  readonly text: string
  readonly action?: { readonly label: string; readonly run: () => void }
}

const store = createStore<{ notices: Notice[] }>(() => ({ notices: [] }))
let nextId = 1
const SHOWN_MS = 9000

/** Sheets lie at 9999. */
const ABOVE_SHEETS = 10000

/** Says something at the bottom of the screen, with at most one thing to do about it. What is said already is not said twice. */
export function notify(text: string, action?: Notice['action']): void {
  const id = nextId++
  store.setState(({ notices }) => ({ notices: [...notices.filter((notice) => notice.text !== text).slice(-2), { id, text, action }] }))
  setTimeout(() => dismiss(id), SHOWN_MS)
}

function dismiss(id: number): void {
  store.setState(({ notices }) => ({ notices: notices.filter((notice) => notice.id !== id) }))
}

/** What is being said, above all else, so that a sheet that is open does not hide it. */
export function Notices() {
  const palette = usePalette()
  const notices = useStore(store, (state) => state.notices)
  return createPortal(
    <View
      role="status"
      aria-live="polite"
      pointerEvents="box-none"
      style={{ position: 'fixed' as 'absolute', left: 12, right: 12, bottom: 140, gap: 8, alignItems: 'center', zIndex: ABOVE_SHEETS }}
    >
      {notices.map((notice) => (
        <View
          key={notice.id}
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
            paddingVertical: 4,
          }}
        >
          <Text look="small" style={{ flexShrink: 1 }}>
            {notice.text}
          </Text>
          {notice.action && (
            <Button
              label={notice.action.label}
              onPress={() => {
                notice.action?.run()
                dismiss(notice.id)
              }}
            />
          )}
          <IconButton name="close" label="Put this away" onPress={() => dismiss(notice.id)} />
        </View>
      ))}
    </View>,
    document.body,
  )
}
