import type { Bus, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { padSettings, valueOf } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { raysLevel, soloed, strikePad, toggleSolo } from '../../audio/sound'
import { Button, IconButton } from '../../ui/Button'
import { Meter } from '../../ui/Meter'
import { NameField } from '../../ui/NameField'
import { PanSlider } from '../../ui/PanAndTune'
import { Sheet } from '../../ui/Sheet'
import { Slider } from '../../ui/Slider'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { editKit } from '../shell'
import { kitGesture, padName } from '../shell/use-kit'
import type { KitGesture } from '../shell/use-kit'

/** As many as the engine plays where a kit sets no limit. */
const ALL_STRIKES = 64
const FEW_STRIKES = 16

/** All pads against each other, then the buses and the whole: levels, places, who is silent and who sounds alone. */
export function MixerSheet({ kit, onClose }: { readonly kit: Kit; readonly onClose: () => void }) {
  const solo = useStore(soloed, (state) => state.pads)
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  return (
    <Sheet title="Mixer" isOpen onClose={onClose}>
      <Slider
        label="The whole kit"
        value={valueOf(kit, 'gainDb')}
        min={-48}
        max={24}
        step={0.1}
        unit="dB"
        neutral={0}
        onSlide={(gainDb) => gesture.set([{ type: 'setKit', fields: { values: { gainDb } } }])}
        onDone={gesture.end}
      />
      <Slider
        label="Strikes at once in the whole kit"
        value={kit.maxStrikes ?? ALL_STRIKES}
        min={1}
        max={128}
        step={1}
        unit=""
        onSlide={(maxStrikes) => gesture.set([{ type: 'setKit', fields: { maxStrikes } }])}
        onDone={gesture.end}
      />
      {(kit.maxStrikes ?? ALL_STRIKES) < FEW_STRIKES && (
        <Text look="small" tone="coral">
          So few let drums cut each other off: a boom may end a ringing bell. Limits of single pads and choke groups do less harm.
        </Text>
      )}
      {solo.length > 0 && (
        <Button label={`Let all sound again (${solo.length} alone now)`} onPress={() => soloed.setState({ pads: [], rays: [] })} />
      )}
      {kit.pads.map((pad) => (
        <PadStrip key={pad.id} kit={kit} pad={pad} isSolo={solo.includes(pad.id)} gesture={gesture} />
      ))}
      {kit.buses.length > 0 && (
        <Text look="heading" style={{ fontSize: 17 }}>
          Buses
        </Text>
      )}
      {kit.buses.map((bus) => (
        <BusStrip key={bus.id} kit={kit} bus={bus} gesture={gesture} />
      ))}
    </Sheet>
  )
}

function PadStrip({ kit, pad, isSolo, gesture }: { kit: Kit; pad: Pad; isSolo: boolean; gesture: KitGesture }) {
  const settings = padSettings(kit, pad)
  const name = padName(kit, pad)
  const own = (fields: Partial<Pad['own']>): KitEdit[] => [{ type: 'setPad', padId: pad.id, own: fields }]
  return (
    <Strip
      name={name}
      level={() => Math.max(...raysLevel(pad.id))}
      gainDb={settings.values.gainDb}
      pan={settings.values.pan}
      mute={settings.mute}
      onGain={(gainDb) => gesture.set(own({ values: { gainDb } }))}
      onPan={(pan) => gesture.set(own({ values: { pan } }))}
      onDone={gesture.end}
      onMute={() => editKit(kit.id, own({ mute: !settings.mute }))}
    >
      <IconButton name="play-outline" label={`Strike ${name}`} onPress={() => strikePad({ padId: pad.id, velocity: 100, key: 902 })} />
      <IconButton
        name="headphones"
        label={isSolo ? `${name} sounds alone` : `Only ${name}`}
        on={isSolo}
        onPress={() => toggleSolo('pads', pad.id)}
      />
    </Strip>
  )
}

function BusStrip({ kit, bus, gesture }: { kit: Kit; bus: Bus; gesture: KitGesture }) {
  const put = (fields: Partial<Bus>): KitEdit[] => [{ type: 'putBus', bus: { ...bus, ...fields } }]
  const feeds = kit.pads.flatMap((pad) =>
    pad.rays.flatMap((ray, place) => ((ray.bus ?? padSettings(kit, pad).bus) === bus.id ? [{ pad, ray, place }] : [])),
  )
  const isSolo = useStore(soloed, (state) => feeds.length > 0 && feeds.every(({ ray }) => state.rays.includes(ray.id)))
  const toggle = () => {
    const { rays } = soloed.getState()
    const own = feeds.map(({ ray }) => ray.id)
    soloed.setState({ rays: isSolo ? rays.filter((id) => !own.includes(id)) : [...new Set([...rays, ...own])] })
  }
  return (
    <Strip
      name={`${bus.name} (${feeds.length} ${feeds.length === 1 ? 'ray' : 'rays'})`}
      level={() => Math.hypot(...feeds.map(({ pad, place }) => raysLevel(pad.id)[place]))}
      settings={<BusSettings kit={kit} bus={bus} feeds={feeds.length} />}
      gainDb={valueOf(bus, 'gainDb')}
      pan={valueOf(bus, 'pan')}
      mute={bus.mute}
      onGain={(gainDb) => gesture.set(put({ values: { ...bus.values, gainDb } }))}
      onPan={(pan) => gesture.set(put({ values: { ...bus.values, pan } }))}
      onDone={gesture.end}
      onMute={() => editKit(kit.id, put({ mute: !bus.mute }))}
    >
      <IconButton name="headphones" label={isSolo ? `${bus.name} sounds alone` : `Only ${bus.name}`} on={isSolo} onPress={toggle} />
    </Strip>
  )
}

function BusSettings({ kit, bus, feeds }: { readonly kit: Kit; readonly bus: Bus; readonly feeds: number }) {
  return (
    <View style={{ gap: 8, paddingBottom: 8 }}>
      <NameField
        label="Name of the bus"
        value={bus.name}
        onName={(name) => editKit(kit.id, [{ type: 'putBus', bus: { ...bus, name: name.trim().slice(0, 120) || bus.name } }])}
      />
      <Button
        label={feeds > 0 ? `Remove the bus; its ${feeds === 1 ? 'ray goes' : `${feeds} rays go`} to the mix` : 'Remove the bus'}
        onPress={() => editKit(kit.id, [{ type: 'removeBus', busId: bus.id }])}
      />
    </View>
  )
}

interface StripProps {
  readonly name: string
  readonly level: () => number
  readonly gainDb: number
  readonly pan: number
  readonly mute: boolean
  readonly onGain: (gainDb: number) => void
  readonly onPan: (pan: number) => void
  readonly onDone: () => void
  readonly onMute: () => void
  readonly children: ReactNode
  /** What is set more seldom, shown when asked for. */
  readonly settings?: ReactNode
}

function Strip({ name, level, gainDb, pan, mute, onGain, onPan, onDone, onMute, children, settings }: StripProps) {
  const palette = usePalette()
  const [isOpen, setOpen] = useState(false)
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: palette.faint, paddingTop: 6, gap: 2 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <View style={{ flex: 1, gap: 4 }}>
          <Text look="strong" numberOfLines={1}>
            {name}
          </Text>
          <Meter level={level} label={`Level of ${name}`} />
        </View>
        {children}
        <IconButton
          name={mute ? 'volume-off' : 'volume-high'}
          label={mute ? `${name} is muted` : `Mute ${name}`}
          tone={mute ? 'coral' : 'ink'}
          on={mute}
          onPress={onMute}
        />
        {settings && (
          <IconButton
            name={isOpen ? 'chevron-up' : 'chevron-down'}
            label={`Settings of ${name}`}
            on={isOpen}
            onPress={() => setOpen(!isOpen)}
          />
        )}
      </View>
      <View style={{ flexDirection: 'row', gap: 20 }}>
        <View style={{ flex: 2 }}>
          <Slider label="Level" value={gainDb} min={-48} max={24} step={0.1} unit="dB" neutral={0} onSlide={onGain} onDone={onDone} />
        </View>
        <View style={{ flex: 1 }}>
          <PanSlider value={pan} onSlide={onPan} onDone={onDone} />
        </View>
      </View>
      {isOpen && settings}
    </View>
  )
}
