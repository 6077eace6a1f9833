import type { Bus, Insert, Kit } from '@heliaster/core/kit'
import { valueOf } from '@heliaster/core/kit'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { busesAfter, movedBus } from '../../../kit-view/buses/bus-edits'
import { Sends } from '../../../kit-view/buses/Sends'
import { comingIn, feedsOf } from '../../../kit-view/buses/touched'
import { PanSlider } from '../../../kit-view/PanAndTune'
import type { KitGesture } from '../../../kit-view/use-kit'
import { AskButton } from '../../../ui/controls/AskButton'
import { IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NameField } from '../../../ui/controls/NameField'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { InsertList } from '../effects/InsertList'
import { PairChoice } from '../outputs/PairChoice'
import { LedBy } from './LedBy'
import { MixMovers } from './MixMovers'

/** A bus or return: who comes in, what stands in it, where it goes, what it sends. */
export function BusPanel({ kit, bus, gesture }: { readonly kit: Kit; readonly bus: Bus; readonly gesture: KitGesture }) {
  const put = (fields: Partial<Bus>) => [{ type: 'putBus' as const, bus: { ...bus, ...fields } }]
  const edit = (fields: Partial<Bus>) => editKit(kit.id, put(fields))
  const after = busesAfter(kit, bus)
  const feeds = feedsOf(kit, bus.id)
  const goTo = (choice: string) => {
    const { out: _out, ...rest } = bus
    editKit(kit.id, [{ type: 'putBus', bus: choice === 'mix' ? rest : { ...rest, out: choice as Bus['id'] } }])
  }
  const step = (by: number) => editKit(kit.id, movedBus(kit, bus, by))
  const place = kit.buses.indexOf(bus)
  return (
    <View style={{ gap: 12 }}>
      <Text look="small" tone="muted">
        {comingIn(kit, bus)}
      </Text>
      <InsertList
        kit={kit}
        busId={bus.id}
        inserts={bus.inserts}
        onSlide={(inserts) => gesture.set(put({ inserts: inserts as Insert[] }))}
        onDone={gesture.end}
        onChange={(inserts, more = []) => editKit(kit.id, [...more, ...put({ inserts: [...inserts] })])}
      />
      <PanSlider value={valueOf(bus, 'pan')} onSlide={(pan) => gesture.set(put({ values: { ...bus.values, pan } }))} onDone={gesture.end} />
      <Slider
        label="Width"
        value={Math.round(100 * valueOf(bus, 'width'))}
        min={0}
        max={200}
        step={1}
        unit="%"
        neutral={100}
        onSlide={(percent) => gesture.set(put({ values: { ...bus.values, width: percent / 100 } }))}
        onDone={gesture.end}
      />
      <Slider
        label="Low cut"
        value={valueOf(bus, 'lowCutHz')}
        min={1}
        max={2000}
        step={1}
        unit={valueOf(bus, 'lowCutHz') <= 1 ? '' : 'Hz'}
        format={(hz) => (hz <= 1 ? 'off' : hz.toFixed(0))}
        power={3}
        onSlide={(lowCutHz) => gesture.set(put({ values: { ...bus.values, lowCutHz } }))}
        onDone={gesture.end}
      />
      <LedBy kit={kit} id={bus.id} />
      <MixMovers kit={kit} busId={bus.id} gesture={gesture} />
      {after.length > 0 && (
        <Chips
          label="Goes into"
          options={[{ value: 'mix', text: 'The mix' }, ...after.map(({ id, name }) => ({ value: id as string, text: name }))]}
          value={bus.out ?? 'mix'}
          onChoose={goTo}
        />
      )}
      <PairChoice bus={bus} label="Leaves by" />
      <Sends
        kit={kit}
        from={bus.name}
        sends={bus.sends}
        targets={after}
        onSlide={(sends) => gesture.set(put({ sends: [...sends] }))}
        onDone={gesture.end}
        onChange={(sends) => edit({ sends: [...sends] })}
      />
      <NameField
        label={bus.isReturn ? 'Name of the return' : 'Name of the bus'}
        value={bus.name}
        onName={(name) => edit({ name: name.trim().slice(0, 120) || bus.name })}
      />
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <IconButton name="chevron-up" label={`Move ${bus.name} up`} disabled={place <= 0} onPress={() => step(-1)} />
        <IconButton name="chevron-down" label={`Move ${bus.name} down`} disabled={place >= kit.buses.length - 1} onPress={() => step(1)} />
        <View style={{ flex: 1 }} />
        <AskButton
          label={`Remove ${bus.name}`}
          {...(feeds.length > 0
            ? {
                warning: `${feeds.length === 1 ? 'One ray goes' : `${feeds.length} rays go`} there, and will go to the mix. Undo brings it back.`,
              }
            : {})}
          confirm="Remove it all the same"
          onPress={() => editKit(kit.id, [{ type: 'removeBus', busId: bus.id }])}
        />
      </View>
    </View>
  )
}
