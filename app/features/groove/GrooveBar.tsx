import { setDown } from '@heliaster/core/groove'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { grooveState, toggleGroove } from '../../audio/playing/groove-player'
import { finishTake, takeState } from '../../audio/playing/groove-take'
import { editKit } from '../../kit-view'
import { Button, IconButton } from '../../ui/controls/Button'
import { More } from '../../ui/layout/More'
import type { Act } from '../../ui/layout/More'
import { notify } from '../../ui/layout/notices'
import { Sheet } from '../../ui/layout/Sheet'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { lapNow } from '../../audio/playing/groove-player'
import type { BeadHands } from './hands/use-bead-hands'
import type { Zoom } from './hands/use-zoom'
import { BackingSheet } from './sheets/BackingSheet'
import { BringGroove } from './sheets/BringGroove'
import { ChooseSheet } from './sheets/ChooseSheet'
import { GroovesSheet } from './sheets/GroovesSheet'
import { MidiSheet } from './sheets/MidiSheet'
import { ReadySheet } from './sheets/ReadySheet'
import { RhythmSheet } from './sheets/RhythmSheet'
import { TakeSheet } from './sheets/TakeSheet'
import { TimingPart } from './sheets/TimingPart'

interface Props {
  readonly hands: BeadHands
  readonly zoom: Zoom
}

type Open = 'grooves' | 'timing' | 'take' | 'choose' | 'ready' | 'bring' | 'midi' | 'rhythm' | 'backing'

/** What is done to the groove as a whole: played, recorded, chosen, timed; the rest in words behind More. */
export function GrooveBar({ hands, zoom }: Props) {
  const { kit, groove } = hands
  const isWide = useIsWide()
  const isPlaying = useStore(grooveState, (state) => state.playing)
  const isSong = useStore(grooveState, (state) => state.isSong) && kit.song.length > 0
  const isTaking = useStore(takeState, (state) => state.isOn)
  const [open, setOpen] = useState<Open>()
  const close = () => setOpen(undefined)
  const hasPads = kit.pads.length > 0
  const name = isSong ? `Song, ${groove.name || 'groove'}` : groove.name || 'Groove'
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', paddingHorizontal: isWide ? 16 : 8, paddingTop: 6, paddingBottom: 4, gap: isWide ? 10 : 2 }}>
      <Button
        label={isPlaying ? 'Stop' : 'Play'}
        kind={isPlaying ? 'coral' : 'main'}
        icon={isPlaying ? 'stop' : 'play'}
        disabled={!hasPads}
        onPress={() => toggleGroove(kit.id)}
        style={isWide ? { minWidth: 116 } : { paddingHorizontal: 0 }}
      />
      <RecordButton isOn={isTaking} isWide={isWide} disabled={!hasPads} onPress={() => (isTaking ? void finishTake() : setOpen('take'))} />
      <View style={{ flex: 1, minWidth: 0, flexDirection: 'row', gap: isWide ? 10 : 2 }}>
        <Button label={name} icon={isWide ? 'chevron-down' : undefined} kind="quiet" onPress={() => setOpen('grooves')} style={isWide ? { flexShrink: 1 } : { flexShrink: 1, paddingHorizontal: 0 }} />
        {isWide && hands.copied && hands.cursor && <Button label="Paste here" icon="content-copy" onPress={hands.paste} />}
      </View>
      {isWide ? (
        <>
          <Button label="Performances" icon="history" onPress={() => router.navigate(`/kit/${kit.id}/performances`)} />
          <Button label="Ready grooves" disabled={!hasPads} onPress={() => setOpen('ready')} />
          <Button label="Choose by rule" onPress={() => setOpen('choose')} />
          <IconButton name="minus" label="Further away" onPress={() => zoom.by(-1)} />
          <IconButton name="plus" label="Closer" onPress={() => zoom.by(1)} />
        </>
      ) : (
        <Button label={`${Number(kit.tempoBpm.toFixed(1))} BPM`} kind="quiet" onPress={() => setOpen('timing')} style={{ paddingHorizontal: 0 }} />
      )}
      <More title="The groove" acts={actsOf({ hands, zoom, isWide, setOpen })} kind="quiet" />
      {open === 'grooves' && <GroovesSheet hands={hands} onClose={close} onReady={() => setOpen('ready')} onBring={() => setOpen('bring')} onRhythm={() => setOpen('rhythm')} />}
      {open === 'timing' && (
        <Sheet title="How it goes" isOpen onClose={close}>
          <TimingPart hands={hands} />
        </Sheet>
      )}
      {open === 'take' && <TakeSheet hands={hands} onClose={close} />}
      {open === 'choose' && <ChooseSheet hands={hands} onClose={close} />}
      {open === 'ready' && <ReadySheet hands={hands} onClose={close} />}
      {open === 'bring' && <BringGroove kit={kit} onClose={close} />}
      {open === 'backing' && <BackingSheet hands={hands} onClose={close} />}
      {open === 'rhythm' && <RhythmSheet onClose={close} />}
      {open === 'midi' && <MidiSheet hands={hands} onClose={close} />}
    </View>
  )
} // prettier-ignore

interface RecordProps {
  readonly isOn: boolean
  readonly isWide: boolean
  readonly disabled: boolean
  readonly onPress: () => void
}

/** On a phone there is no room for the word. */
function RecordButton({ isOn, isWide, disabled, onPress }: RecordProps) {
  if (!isWide)
    return <IconButton name="record-circle-outline" label={isOn ? 'End the recording' : 'Record from pads'} tone="coral" on={isOn} disabled={disabled} onPress={onPress} />
  return <Button label={isOn ? 'End the recording' : 'Record from pads'} kind={isOn ? 'coral' : 'plain'} icon="record-circle-outline" disabled={disabled} onPress={onPress} />
} // prettier-ignore

interface Given {
  readonly hands: BeadHands
  readonly zoom: Zoom
  readonly isWide: boolean
  readonly setOpen: (open: Open) => void
}

function actsOf({ hands, zoom, isWide, setOpen }: Given): Act[] {
  const { kit, groove } = hands
  const beads = groove.strings.flatMap(({ beads: held }) => held)
  const hasChance = beads.some(({ chance, when }) => chance !== undefined || when !== undefined)
  const again = () => {
    editKit(kit.id, [{ type: 'setKit', fields: { seed: Math.floor(Math.random() * 2 ** 31) } }])
    notify('Chance draws otherwise from now on. Undo brings back how it was.')
  }
  const down = () => {
    const lap = Math.max(0, lapNow(groove))
    hands.edit(setDown(kit, groove, lap), new Set())
    notify(`Lap ${lap + 1} is set down as plain beads.`)
  }
  return [
    ...(isWide ? [] : [
      { label: 'Performances', icon: 'history' as const, onPress: () => router.navigate(`/kit/${kit.id}/performances`) },
      { label: 'Ready grooves', icon: 'playlist-play' as const, onPress: () => setOpen('ready'), disabled: kit.pads.length === 0 },
      { label: 'Choose by rule', icon: 'select-multiple' as const, onPress: () => setOpen('choose') },
      { label: 'Closer', icon: 'plus' as const, onPress: () => zoom.by(1) },
      { label: 'Further away', icon: 'minus' as const, onPress: () => zoom.by(-1) },
    ]),
    ...(zoom.isFitted ? [] : [{ label: 'The whole lap', icon: 'arrow-expand-horizontal' as const, onPress: zoom.fit }]),
    ...(isWide || !hands.copied || !hands.cursor ? [] : [{ label: 'Paste here', icon: 'content-copy' as const, onPress: hands.paste }]),
    { label: 'Again, with other draws', icon: 'refresh', onPress: again, disabled: !hasChance },
    { label: lapNow(groove) > 0 ? `Set lap ${lapNow(groove) + 1} down as plain beads` : 'Set a lap down as plain beads', icon: 'check', onPress: down, disabled: !hasChance },
    { label: 'Bring a groove', icon: 'import', onPress: () => setOpen('bring'), disabled: kit.pads.length === 0 },
    { label: 'From a rhythm of your own', icon: 'record-circle-outline', onPress: () => setOpen('rhythm') },
    { label: 'A song beside it', icon: 'headphones', onPress: () => setOpen('backing') },
    { label: 'MIDI file in or out', icon: 'midi-port', onPress: () => setOpen('midi') },
  ]
} // prettier-ignore
