import { ThemeProvider } from '@rneui/themed'
import { useEffect, useMemo } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { GestureHandlerRootView } from 'react-native-gesture-handler'

import { startSound } from '../../audio/sound'
import { kits, sources, starts } from '../../stores/documents'
import { startSender } from '../../stores/sender'
import { Notices } from '../../ui/notices'
import { elementsTheme, usePalette } from '../../ui/theme'

let started = false

/** Starts what runs once for the page: documents, sending, sound. */
function startOnce(): void {
  if (started) return
  started = true
  for (const documents of [kits, sources, starts]) documents.load().catch(() => undefined) // the server is away; what is here is shown
  startSender()
  void startSound()
  keepOnDevice()
}

/** Lets the application open with no server in reach, and asks the browser not to clear what people recorded. */
function keepOnDevice(): void {
  if (process.env.NODE_ENV === 'production') void navigator.serviceWorker?.register('/sw.js').catch(() => undefined)
  void navigator.storage?.persist?.().catch(() => undefined)
}

/** Theme and ground of every screen. */
export function AppFrame({ children }: { readonly children: ReactNode }) {
  const palette = usePalette()
  const theme = useMemo(() => elementsTheme(palette), [palette])
  useEffect(startOnce, [])
  useEffect(() => {
    document.documentElement.style.background = palette.paper
    document.documentElement.style.colorScheme = palette.name === 'night' ? 'dark' : 'light'
    document.documentElement.lang = 'en'
  }, [palette])
  return (
    <GestureHandlerRootView style={{ flex: 1 }}>
      <ThemeProvider theme={theme} key={palette.name}>
        <View style={{ flex: 1, backgroundColor: palette.paper }}>
          {children}
          <Notices />
        </View>
      </ThemeProvider>
    </GestureHandlerRootView>
  )
}
