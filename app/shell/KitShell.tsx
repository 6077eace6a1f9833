import { padById } from '@heliaster/core/kit'
import type { Kit, KitId, PadId } from '@heliaster/core/kit'
import { Slot, usePathname } from 'expo-router'
import { useDeferredValue, useEffect } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { connectKeys } from '../audio/playing/hands/computer-keys'
import { letGoAll } from '../audio/playing/hands/hands'
import { connectMidi } from '../audio/playing/hands/midi-inputs'
import { connectPractice } from '../audio/playing/hands/practice'
import { playSong, stopGroove } from '../audio/playing/groove-player'
import { endTake } from '../audio/playing/groove-take'
import { stopRound } from '../audio/playing/round'
import { onArrived } from '../audio/engine/arriving'
import type { Sounded } from '../audio/engine/player'
import { ALL_SOUND, heardCell } from '../audio/engine/solo'
import { onSounded, onWaiting, playKit, soloed, sound } from '../audio/engine/sound'
import { kits } from '../documents'
import { gatherFor } from '../documents/gathered'
import { screenStands } from '../ui/device/first-screen'
import { NoticesHere } from '../ui/layout/notices'
import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'
import { LOW_PX, useIsLow, useIsWide } from '../ui/layout/use-is-wide'
import { KitHeader } from './KitHeader'
import { KitMissing } from './KitMissing'
import { PadStrip } from './PadStrip'
import { RecordingMark } from './RecordingMark'
import { session } from '../kit-view/session'
import { forgetStrikes, rememberStops, rememberStrikes } from '../kit-view/recent-strikes'
import { lightUp, putOut } from '../kit-view/sounding'
import { SoloBar } from './SoloBar'
import { TakeBar } from './TakeBar'
import { NOT_ARRIVED, ON_ITS_WAY, whyHardlyHeard, whySilent } from '../kit-view/why-silent'
import { TideNav } from './TideNav'
import { TillerStrip } from './TillerStrip'
import { useKitId } from '../kit-view/use-kit'
import { useUndoKeys } from '../kit-view/use-undo'

/** What stands round every place of a kit: its name, the places, the pads. */
export function KitShell() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kitId = useKitId()
  const path = usePathname()
  const here = path.split('/').pop()
  const settled = useDeferredValue(here) // a place opens first, the pads beside it right after
  const exists = useStore(kits.store, (state) => kitId in state.entries)
  const problem = useStore(sound, (state) => state.problem)
  useKitSound(kitId)
  useUndoKeys()
  useEffect(rememberPlaying, [])
  useEffect(screenStands, [])
  return (
    <View style={{ flex: 1, height: '100%', backgroundColor: palette.paper }}>
      <KitHeader />
      <Room
        isShown={path.startsWith('/kit/')}
        after={
          exists && (
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
        <View style={{ flex: 1, minHeight: 0 }}>{exists ? <Slot /> : <KitMissing kitId={kitId} />}</View>
      </Room>
      {!isWide && (
        <View style={{ borderTopWidth: here === 'board' ? 1 : 0, borderTopColor: palette.faint }}>
          <TideNav />
        </View>
      )}
    </View>
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

/** Keeps the engine in step with the kit, plays it from keys, and remembers the cell that sounded last. */
function useKitSound(kitId: KitId): void {
  useEffect(() => {
    const kitNow = () => kits.store.getState().entries[kitId]?.doc
    gatherFor(kitId)
    playKit(kitNow())
    const stops = [
      kits.store.subscribe((now, before) => {
        if (now.entries[kitId]?.doc !== before.entries[kitId]?.doc) playKit(now.entries[kitId]?.doc)
      }),
      connectKeys(kitNow),
      connectMidi(),
      connectPractice(),
      onWaiting((padId) => session.setState({ silent: { padId, why: ON_ITS_WAY } })),
      onArrived(() => {
        const why = session.getState().silent?.why
        if (why === NOT_ARRIVED || why === ON_ITS_WAY) session.setState({ silent: undefined })
      }),
      onSounded((sounded) => showSounded(sounded, kitNow())),
    ]
    return () => {
      endTake()
      stopGroove()
      playSong(false)
      stopRound()
      letGoAll()
      soloed.setState(ALL_SOUND)
      putOut()
      forgetStrikes()
      gatherFor(undefined)
      stops.forEach((stop) => stop())
    }
  }, [kitId])
}

/** What has sounded since the last picture is shown at once, however much it is. */
function showSounded(sounded: readonly Sounded[], kit: Kit | undefined): void {
  const lit = { ...session.getState().lit }
  let { silent } = session.getState()
  const struck: PadId[] = []
  for (const { padId, frame, voices, velocity, ...heard } of sounded) {
    if (!padId || !kit) continue
    const { band, turn } = heardCell(padById(kit, padId), heard, soloed.getState())
    if (voices === 0) silent = { padId, why: whySilent(kit, { padId, velocity, band, turn }, soloed.getState()) }
    else {
      if (performance.getEntriesByName('heliaster-first-sound').length === 0) performance.mark('heliaster-first-sound') // for the bench
      struck.push(padId)
      lit[padId] = { band, turn, at: frame, velocity }
      const faint = whyHardlyHeard(kit, padId)
      silent = faint ? { padId, why: faint } : undefined
    }
  }
  session.setState({ lit, silent })
  if (kit) rememberStrikes(kit, sounded, soloed.getState())
  lightUp(struck)
}

/** What is played is remembered from here on; the first screen stands without it. */
function rememberPlaying(): void {
  void import('../audio/performances/remembering').then(({ startRemembering, onActs }) => {
    startRemembering()
    onActs(rememberStops)
  })
}
