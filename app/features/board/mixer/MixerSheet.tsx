import type { Kit } from '@heliaster/core/kit'
import { MOST, valueOf } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { ALL_SOUND } from '../../../audio/engine/solo'
import { busLevel, soloed } from '../../../audio/engine/sound'
import { Button } from '../../../ui/controls/Button'
import { Meter } from '../../../ui/drawing/Meter'
import { Sheet } from '../../../ui/layout/Sheet'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { editKit } from '../../../kit-view'
import { kitGesture } from '../../../kit-view/use-kit'
import type { KitGesture } from '../../../kit-view/use-kit'
import { addBusEdits } from '../edits/bus-edits'
import { BusStrip } from './BusStrip'
import { LossLine } from './LossLine'
import { PadStrip } from './PadStrip'

/** As many as the engine plays where a kit sets no limit. */
const ALL_STRIKES = 64
const FEW_STRIKES = 16

/** All pads against each other, then the buses and the whole: levels, places, who is silent and who sounds alone. */
export function MixerSheet({ kit, onClose }: { readonly kit: Kit; readonly onClose: () => void }) {
  const solo = useStore(soloed, (state) => state.pads)
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  return (
    <Sheet title="Mixer" isOpen onClose={onClose}>
      <WholeKit kit={kit} gesture={gesture} />
      {solo.length > 0 && <Button label={`Let all sound again (${solo.length} alone now)`} onPress={() => soloed.setState(ALL_SOUND)} />}
      {kit.pads.map((pad) => (
        <PadStrip key={pad.id} kit={kit} pad={pad} isSolo={solo.includes(pad.id)} gesture={gesture} />
      ))}
      <Buses kit={kit} gesture={gesture} />
      <LossLine />
    </Sheet>
  )
}

function WholeKit({ kit, gesture }: { readonly kit: Kit; readonly gesture: KitGesture }) {
  return (
    <>
      <View style={{ gap: 4 }}>
        <Text look="strong">The whole kit</Text>
        <Meter level={() => busLevel()} label="Level of the whole kit" />
      </View>
      <Slider
        label="Level of all pads and buses"
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
    </>
  )
}

/** Buses, returns, and how there come to be more of them. */
function Buses({ kit, gesture }: { readonly kit: Kit; readonly gesture: KitGesture }) {
  const isFull = kit.buses.length >= MOST.buses
  return (
    <>
      <Text look="heading" style={{ fontSize: 17, marginTop: 8 }}>
        Buses
      </Text>
      {kit.buses.length === 0 && (
        <Text look="small" tone="muted">
          A bus sums what goes there, for one level over all of it. A return is fed by sends.
        </Text>
      )}
      {kit.buses.map((bus) => (
        <BusStrip key={bus.id} kit={kit} bus={bus} gesture={gesture} />
      ))}
      <View style={{ flexDirection: 'row', gap: 10, paddingTop: 4 }}>
        <Button label="Add a bus" disabled={isFull} onPress={() => editKit(kit.id, addBusEdits(kit, false))} />
        <Button label="Add a return" disabled={isFull} onPress={() => editKit(kit.id, addBusEdits(kit, true))} />
      </View>
    </>
  )
}
