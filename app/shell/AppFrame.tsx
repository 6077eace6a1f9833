import { ThemeProvider } from '@rneui/themed/dist/config/ThemeProvider'
import { useEffect, useMemo } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { device, saveState } from '../documents'
import { keepStepsOnLeave } from '../documents/step-keeping'
import { chooseByKeys } from '../ui/controls/choose-by-keys'
import { Hints } from '../ui/layout/Hints'
import { Notices } from '../ui/layout/notices'
import { elementsTheme, usePalette } from '../ui/theme/theme'

let started = false

/** Runs once the page has loaded and has nothing else to do: the first screen comes first. */
function soon(run: () => void): void {
  const whenIdle = () => (globalThis.requestIdleCallback ?? ((then: () => void) => setTimeout(then, 200)))(run)
  if (document.readyState === 'complete') whenIdle()
  else window.addEventListener('load', whenIdle, { once: true })
}

/** Starts what runs once for the page: documents and sending. Sound begins when a kit is opened. */
function startOnce(): void {
  if (started) return
  started = true
  void device.start()
  keepStepsOnLeave()
  window.addEventListener('online', device.wake)
  document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && device.wake())
  window.addEventListener('pagehide', (event) => !event.persisted && device.stop())
  window.addEventListener('beforeunload', (event) => {
    if (saveState.getState().unkept > 0) event.preventDefault() // the browser asks whether to leave
  })
  soon(keepOnDevice)
}

/** Keeping the whole application takes as much as opening it does: what is opened first comes first. */
const KEEP_AFTER_MS = 5000

/** Lets the application open with no server in reach, and asks the browser not to clear what people recorded. */
function keepOnDevice(): void {
  const keep = () => void navigator.serviceWorker?.register('/sw.js').catch(() => undefined)
  if (process.env.NODE_ENV === 'production') setTimeout(() => soon(keep), KEEP_AFTER_MS)
  void askToKeep()
}

async function askToKeep(): Promise<void> {
  const lasting = await navigator.storage?.persist?.().catch(() => false)
  saveState.setState({ lasting: lasting ?? false })
}

/** Theme and ground of every screen. */
export function AppFrame({ children }: { readonly children: ReactNode }) {
  const palette = usePalette()
  const theme = useMemo(() => elementsTheme(palette), [palette])
  useEffect(startOnce, [])
  useEffect(chooseByKeys, [])
  useEffect(() => {
    document.documentElement.style.background = palette.paper
    document.documentElement.style.setProperty('--focus', palette.waterInk)
    document.documentElement.style.colorScheme = palette.name === 'night' ? 'dark' : 'light'
    document.documentElement.lang = 'en'
  }, [palette])
  return (
    <ThemeProvider theme={theme}>
      <View style={{ flex: 1, backgroundColor: palette.paper }}>
        {children}
        <Notices />
        <Hints />
      </View>
    </ThemeProvider>
  )
}
