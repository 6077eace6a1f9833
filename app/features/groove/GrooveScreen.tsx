import { createGroove, withBead, withBeadFields } from '@heliaster/core/groove'
import type { Bead, Groove, GrooveId, KitEdit, Pad } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { chooseGroove, chosenGroove, grooveState, toggleGroove } from '../../audio/playing/groove-player'
import { clockSettings, clockState } from '../../audio/playing/hands/midi-clock'
import { makeId } from '../../documents/make-id'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Slider } from '../../ui/controls/Slider'
import { Text } from '../../ui/layout/Text'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { editKit, useKit, useKitId } from '../../kit-view'
import { padGesture, padName } from '../../kit-view/use-kit'
import { BeadPanel } from './BeadPanel'
import { BeadString } from './BeadString'
import { BringGroove } from './BringGroove'

/** Where the kit is tried in a beat: each pad a string, each step a bead on it. */
export function GrooveScreen() {
  const isWide = useIsWide()
  const kit = useKit()
  const kitId = useKitId()
  const playing = useStore(grooveState, (state) => state.playing)
  const grooveId = useStore(grooveState, (state) => state.grooveId)
  const groove = useMemo(
    () => (kit && chosenGroove(kit, grooveId)) ?? { ...createGroove(makeId, 'Groove'), id: `groove-of-${kitId}`.slice(0, 64) as GrooveId },
    [kit, kitId, grooveId],
  )
  const [chosen, setChosen] = useState<{ pad: Pad; step: number }>()
  const leader = useLeader()
  const [isBringing, setBringing] = useState(false)
  const gesture = useMemo(() => padGesture(kitId, 'none' as Pad['id']), [kitId])
  if (!kit) return null
  const put = (changed: Groove): KitEdit => ({ type: 'putGroove', groove: changed })
  const bead = chosen && beadAt(groove, chosen.pad, chosen.step)
  const tap = (pad: Pad, step: number) => {
    const there = beadAt(groove, pad, step)
    editKit(kit.id, [put(withBead(groove, pad.id, step, there ? 0 : 100))])
    setChosen(there ? undefined : { pad, step })
  }
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <View
        style={{
          flexDirection: isWide ? 'row' : 'column',
          paddingHorizontal: 16,
          paddingTop: 8,
          gap: isWide ? 28 : 4,
          alignItems: isWide ? 'flex-end' : 'stretch',
        }}
      >
        <Button
          label={playing ? 'Stop' : 'Play'}
          kind={playing ? 'coral' : 'main'}
          icon={playing ? 'stop' : 'play'}
          disabled={kit.pads.length === 0}
          onPress={() => toggleGroove(kitId)}
          style={{ minWidth: 140, marginBottom: 6 }}
        />
        <View style={{ flexDirection: 'row', gap: 8, marginBottom: 6 }}>
          <Button
            label="Performances"
            icon="history"
            onPress={() => router.navigate(`/kit/${kitId}/performances`)}
            style={isWide ? undefined : { flex: 1 }}
          />
          <Button
            label="Bring a groove"
            disabled={kit.pads.length === 0}
            onPress={() => setBringing(true)}
            style={isWide ? undefined : { flex: 1 }}
          />
        </View>
        {isBringing && <BringGroove kit={kit} onClose={() => setBringing(false)} />}
        <View style={{ flex: isWide ? 1 : undefined, flexDirection: 'row', gap: 20 }}>
          <View style={{ flex: 1 }}>
            <Slider
              label="Tempo"
              value={kit.tempoBpm}
              min={40}
              max={220}
              step={1}
              unit="BPM"
              onSlide={(tempoBpm) => gesture.set([{ type: 'setKit', fields: { tempoBpm } }])}
              onDone={gesture.end}
            />
          </View>
          <View style={{ flex: 1 }}>
            <Slider
              label="Swing"
              value={groove.swing * 100}
              min={50}
              max={75}
              step={0.1}
              unit="%"
              onSlide={(percent) => gesture.set([put({ ...groove, swing: percent / 100 })])}
              onDone={gesture.end}
            />
          </View>
        </View>
      </View>
      {leader && (
        <Text look="small" tone="muted" role="status" style={{ paddingHorizontal: 16, paddingTop: 4 }}>
          {leader}
        </Text>
      )}
      {kit.grooves.length > 1 && (
        <View style={{ paddingHorizontal: 16, paddingTop: 8 }}>
          <Chips
            label="Groove"
            options={kit.grooves.map(({ id, name }, i) => ({ value: id as string, text: name || `Groove ${i + 1}` }))}
            value={groove.id as string}
            onChoose={(id) => {
              setChosen(undefined)
              chooseGroove(id as GrooveId)
            }}
          />
        </View>
      )}
      <ScrollView style={{ flex: 1 }} contentContainerStyle={{ paddingVertical: 10 }}>
        {kit.pads.map((pad) => (
          <BeadString
            key={pad.id}
            name={padName(kit, pad)}
            pad={pad}
            groove={groove}
            chosenStep={chosen?.pad.id === pad.id ? chosen.step : undefined}
            onTap={tap}
          />
        ))}
        {kit.pads.length === 0 && (
          <Text tone="muted" style={{ padding: 20 }}>
            A beat needs pads. Record something and send its hits to the Board.
          </Text>
        )}
      </ScrollView>
      {chosen && bead && (
        <BeadPanel
          bead={bead}
          name={padName(kit, chosen.pad)}
          onSlide={(fields) => gesture.set([put(withBeadFields(groove, chosen.pad.id, chosen.step, fields))])}
          onDone={gesture.end}
        />
      )}
    </View>
  )
}

/** Whose clock leads the groove, in words; nothing where it goes by the kit's own tempo. */
function useLeader(): string | undefined {
  const { tempoBpm, leads } = useStore(clockState)
  const follows = useStore(clockSettings, (state) => state.follows)
  return leads && follows ? `${follows} leads, at ${tempoBpm?.toFixed(1) ?? '…'} beats a minute.` : undefined
}

function beadAt(groove: Groove, pad: Pad, step: number): Bead | undefined {
  return groove.strings.find((string) => string.padId === pad.id)?.beads.find((bead) => bead.step === step)
}
