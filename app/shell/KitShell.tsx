import { Slot, usePathname } from 'expo-router'
import { useDeferredValue, useEffect } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sound } from '../audio/engine/sound'
import { kits } from '../documents'
import { screenStands } from '../ui/device/first-screen'
import { NoticesHere } from '../ui/layout/notices'
import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'
import { useMomentLater } from '../ui/layout/use-moment-later'
import { LOW_PX, useIsLow, useIsWide } from '../ui/layout/use-is-wide'
import { KitHeader } from './KitHeader'
import { KitMissing } from './KitMissing'
import { PadStrip } from './PadStrip'
import { RecordingMark } from './RecordingMark'
import { rememberPlaying } from './remember-playing'
import { SoloBar } from './SoloBar'
import { TakeBar } from './TakeBar'
import { TideNav } from './TideNav'
import { TillerStrip } from './TillerStrip'
import { useKitId } from '../kit-view/use-kit'
import { useKitSound } from './use-kit-sound'
import { useUndoKeys } from '../kit-view/use-undo'

/** What stands round every place of a kit. A tap on a kit draws nothing but the ground; the frame comes right after. */
export function KitShell() {
  const palette = usePalette()
  const hasFrame = useDeferredValue(true, false)
  return <View style={{ flex: 1, height: '100%', backgroundColor: palette.paper }}>{hasFrame && <Frame />}</View>
}

/** The kit's name, the places, the pads. */
function Frame() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kitId = useKitId()
  const path = usePathname()
  const here = path.split('/').pop()
  const settled = useDeferredValue(here) // a place opens first, the pads beside it right after
  const hasPlace = useMomentLater() // the kit's name stands first
  const exists = useStore(kits.store, (state) => kitId in state.entries)
  const problem = useStore(sound, (state) => state.problem)
  useKitSound(kitId)
  useUndoKeys()
  useEffect(rememberPlaying, [])
  useEffect(screenStands, [])
  return (
    <>
      <KitHeader />
      <Room
        isShown={path.startsWith('/kit/')}
        after={
          exists &&
          hasPlace && (
            <>
              <TillerStrip />
              {settled !== 'board' && <PadStrip />}
            </>
          )
        }
      >
        {problem && (
          <View role="alert" style={{ backgroundColor: palette.coralWash, paddingHorizontal: 20, paddingVertical: 8 }}>
            <Text look="small">{problem}</Text>
          </View>
        )}
        <RecordingMark />
        <TakeBar />
        <SoloBar />
        <View style={{ flex: 1, minHeight: 0 }}>{!exists ? <KitMissing kitId={kitId} /> : hasPlace && <Slot />}</View>
      </Room>
      {!isWide && (
        <View style={{ borderTopWidth: here === 'board' ? 1 : 0, borderTopColor: palette.faint }}>
          <TideNav />
        </View>
      )}
    </>
  )
}

/** The web's `auto`, of which the types know nothing. */
const SCROLLED = 'auto' as 'scroll'

interface RoomProps {
  readonly children: ReactNode
  readonly after: ReactNode
  /** A kit that was left waits behind the list of kits: what is said is not for it. */
  readonly isShown: boolean
}

/** The place itself, and the pads under it: as high as the window, and in a low one scrolled. */
function Room({ children, after, isShown }: RoomProps) {
  const isLow = useIsLow()
  // The same boxes at any height: a phone's keyboard makes the window low while one types, and the field must stay.
  return (
    <View style={{ flex: 1, minHeight: 0, overflow: isLow ? SCROLLED : 'visible' }}>
      <View style={isLow ? { height: LOW_PX, flexShrink: 0 } : { flex: 1, minHeight: 0 }}>
        <View role="main" style={{ flex: 1, minHeight: 0 }}>
          {children}
        </View>
        {!isLow && isShown && <NoticesHere />}
        {after}
      </View>
    </View>
  )
}
