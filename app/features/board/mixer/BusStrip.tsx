import type { Bus, Kit, KitEdit, Pad, Ray } from '@heliaster/core/kit'
import { padSettings, valueOf } from '@heliaster/core/kit'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { busLevel, soloed } from '../../../audio/engine/sound'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NameField } from '../../../ui/controls/NameField'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { editKit } from '../../../kit-view'
import { padName } from '../../../kit-view/use-kit'
import type { KitGesture } from '../../../kit-view/use-kit'
import { busesAfter, widthOf, withWidth } from '../edits/bus-edits'
import { Sends } from './Sends'
import { Strip } from './Strip'

interface Feed {
  readonly pad: Pad
  readonly ray: Ray
}

interface Props {
  readonly kit: Kit
  readonly bus: Bus
  readonly gesture: KitGesture
}

/** A bus or return: its level after all that goes there, and behind the arrow where it goes and what it sends. */
export function BusStrip({ kit, bus, gesture }: Props) {
  const put = (fields: Partial<Bus>): KitEdit[] => [{ type: 'putBus', bus: { ...bus, ...fields } }]
  const feeds = kit.pads.flatMap((pad) =>
    pad.rays.flatMap((ray): Feed[] => ((ray.bus ?? padSettings(kit, pad).bus) === bus.id ? [{ pad, ray }] : [])),
  )
  const isSolo = useStore(soloed, (state) => feeds.length > 0 && feeds.every(({ ray }) => state.rays.includes(ray.id)))
  const toggle = () => {
    const { rays } = soloed.getState()
    const own = feeds.map(({ ray }) => ray.id)
    soloed.setState({ rays: isSolo ? rays.filter((id) => !own.includes(id)) : [...new Set([...rays, ...own])] })
  }
  return (
    <Strip
      name={bus.name}
      level={() => busLevel(bus.id)}
      settings={<BusSettings kit={kit} bus={bus} gesture={gesture} feeds={feeds} />}
      gainDb={valueOf(bus, 'gainDb')}
      pan={valueOf(bus, 'pan')}
      mute={bus.mute}
      onGain={(gainDb) => gesture.set(put({ values: { ...bus.values, gainDb } }))}
      onPan={(pan) => gesture.set(put({ values: { ...bus.values, pan } }))}
      onDone={gesture.end}
      onMute={() => editKit(kit.id, put({ mute: !bus.mute }))}
    >
      {feeds.length > 0 && (
        <IconButton name="headphones" label={isSolo ? `${bus.name} sounds alone` : `Only ${bus.name}`} on={isSolo} onPress={toggle} />
      )}
    </Strip>
  )
}

/** Who comes into a bus, in words: rays that go there, buses that go there, and whoever sends. */
export function comingIn(kit: Kit, bus: Bus, feeds: readonly Feed[]): string {
  const rays = feeds.map(({ pad, ray }) => (pad.rays.length > 1 ? `${padName(kit, pad)}, ${ray.name}` : padName(kit, pad)))
  const buses = kit.buses.filter(({ out }) => out === bus.id).map(({ name }) => name)
  const sent = [
    ...kit.pads.flatMap((pad) => pad.rays.filter(({ sends }) => sends.some(({ busId }) => busId === bus.id)).map(() => padName(kit, pad))),
    ...kit.buses.filter(({ sends }) => sends.some(({ busId }) => busId === bus.id)).map(({ name }) => name),
  ]
  const parts = [
    ...(rays.length + buses.length > 0 ? [`Here go ${[...rays, ...buses].join(', ')}.`] : []),
    ...(sent.length > 0 ? [`Sent here from ${[...new Set(sent)].join(', ')}.`] : []),
  ]
  return parts.join(' ') || (bus.isReturn ? 'Nothing is sent here yet: a ray or a bus sends from its own settings.' : 'Nothing goes here yet: a pad or ray is sent here from its level settings.') // prettier-ignore
}

function BusSettings({ kit, bus, gesture, feeds }: Props & { readonly feeds: readonly Feed[] }) {
  const edit = (fields: Partial<Bus>) => editKit(kit.id, [{ type: 'putBus', bus: { ...bus, ...fields } }])
  const after = busesAfter(kit, bus)
  const goTo = (choice: string) => {
    const { out: _out, ...rest } = bus
    editKit(kit.id, [{ type: 'putBus', bus: choice === 'mix' ? rest : { ...rest, out: choice as Bus['id'] } }])
  }
  return (
    <View style={{ gap: 10, paddingBottom: 10 }}>
      <Text look="small" tone="muted">
        {comingIn(kit, bus, feeds)}
      </Text>
      <NameField
        label={bus.isReturn ? 'Name of the return' : 'Name of the bus'}
        value={bus.name}
        onName={(name) => edit({ name: name.trim().slice(0, 120) || bus.name })}
      />
      {after.length > 0 && (
        <Chips
          label="Goes into"
          options={[{ value: 'mix', text: 'The mix' }, ...after.map(({ id, name }) => ({ value: id as string, text: name }))]}
          value={bus.out ?? 'mix'}
          onChoose={goTo}
        />
      )}
      <Slider
        label="Width"
        value={100 * widthOf(bus)}
        min={0}
        max={200}
        step={1}
        unit="%"
        neutral={100}
        onSlide={(percent) => gesture.set([{ type: 'putBus', bus: withWidth(bus, percent / 100) }])}
        onDone={gesture.end}
      />
      <Sends
        from={bus.name}
        sends={bus.sends}
        targets={after}
        onSlide={(sends) => gesture.set([{ type: 'putBus', bus: { ...bus, sends: [...sends] } }])}
        onDone={gesture.end}
        onChange={(sends) => edit({ sends: [...sends] })}
      />
      <Button
        label={
          feeds.length > 0
            ? `Remove ${bus.name}; its ${feeds.length === 1 ? 'ray goes' : `${feeds.length} rays go`} to the mix`
            : `Remove ${bus.name}`
        }
        onPress={() => editKit(kit.id, [{ type: 'removeBus', busId: bus.id }])}
      />
    </View>
  )
}
