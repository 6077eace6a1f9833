import type { Kit, PadId } from '@heliaster/core/kit'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { clockSettings, clockState } from '../../audio/playing/hands/midi-clock'
import { useKit } from '../../kit-view'
import { Button } from '../../ui/controls/Button'
import { Text } from '../../ui/layout/Text'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { usePalette } from '../../ui/theme/theme'
import { BeadPanel } from './bead/BeadPanel'
import { GrooveBar } from './GrooveBar'
import { useBeadHands } from './hands/use-bead-hands'
import { useShownGroove } from './hands/use-shown-groove'
import { useZoom } from './hands/use-zoom'
import { FirstBeads } from './FirstBeads'
import { RhythmSheet } from './sheets/RhythmSheet'
import { StringSheet } from './sheets/StringSheet'
import { TimingPart } from './sheets/TimingPart'
import { StringsView } from './strings/StringsView'

/** Where the kit is tried in a beat: each pad a string, each strike a bead on it. */
export function GrooveScreen() {
  const kit = useKit()
  return kit ? <GrooveOf key={kit.id} kit={kit} /> : null
}

function GrooveOf({ kit }: { readonly kit: Kit }) {
  const isWide = useIsWide()
  const groove = useShownGroove(kit)
  const hands = useBeadHands(kit, groove)
  const zoom = useZoom(groove)
  const leader = useLeader()
  const [stringOf, setStringOf] = useState<PadId>()
  const isEmpty = groove.strings.every(({ beads }) => beads.length === 0)
  const panel = hands.chosen.size > 0 && <BeadPanel key={[...hands.chosen].join(' ')} hands={hands} />
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <GrooveBar hands={hands} zoom={zoom} />
      {leader && (
        <Text look="small" tone="muted" role="status" style={{ paddingHorizontal: 16, paddingTop: 4 }}>
          {leader}
        </Text>
      )}
      <View style={{ flex: 1, minHeight: 0, flexDirection: isWide ? 'row' : 'column' }}>
        {kit.pads.length === 0 ? (
          <NoPads />
        ) : (
          <View style={{ flex: 1, minHeight: 0, minWidth: 0 }}>
            {isEmpty && <FirstBeads hands={hands} />}
            <StringsView hands={hands} pxPerBeat={zoom.pxPerBeat} onWidth={zoom.setWidth} onString={setStringOf} />
          </View>
        )}
        {isWide ? <Beside>{panel || <TimingPart hands={hands} />}</Beside> : panel}
      </View>
      {stringOf && <StringSheet hands={hands} padId={stringOf} onClose={() => setStringOf(undefined)} />}
    </View>
  )
}

/** A kit without pads can still begin here. */
function NoPads() {
  const [isOpen, setOpen] = useState(false)
  return (
    <View style={{ flex: 1, padding: 20, gap: 14, alignItems: 'flex-start' }}>
      <Text tone="muted">
        A beat needs pads. Record something and send its hits to the Board, or drum a rhythm: it becomes pads with their groove.
      </Text>
      <Button label="From a rhythm of your own" icon="record-circle-outline" kind="main" onPress={() => setOpen(true)} />
      {isOpen && <RhythmSheet onClose={() => setOpen(false)} />}
    </View>
  )
}

/** On a wide screen: what is chosen, or else how the groove goes. */
function Beside({ children }: { readonly children: ReactNode }) {
  const palette = usePalette()
  return (
    <View style={{ width: 348, borderLeftWidth: 1, borderLeftColor: palette.faint, backgroundColor: palette.surface }}>
      <ScrollView contentContainerStyle={{ flexGrow: 1 }}>{children}</ScrollView>
    </View>
  )
}

/** Whose clock leads the groove, in words; nothing where it goes by the kit's own tempo. */
function useLeader(): string | undefined {
  const { tempoBpm, leads } = useStore(clockState)
  const follows = useStore(clockSettings, (state) => state.follows)
  return leads && follows ? `${follows} leads, at ${tempoBpm?.toFixed(1) ?? '…'} beats a minute.` : undefined
}
