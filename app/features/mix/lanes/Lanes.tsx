import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { MOST, padSettings, valueOf } from '@heliaster/core/kit'
import { useMemo, useRef } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { markOver, mixMeter } from '../../../audio/engine/mix-meter'
import { busLevel, raysLevel, soloed, toggleSolo } from '../../../audio/engine/sound'
import { editKit } from '../../../kit-view'
import { addBusEdits } from '../../../kit-view/buses/bus-edits'
import { touchedBy } from '../../../kit-view/buses/touched'
import { PadGlyph } from '../../../kit-view/PadGlyph'
import { kitGesture, padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import type { Chosen } from '../chosen'
import { effectWords } from '../../../kit-view/buses/effect-words'
import { Lane } from './Lane'
import { useLoudOrder } from './loud-order'

interface Props {
  readonly kit: Kit
  readonly isLoudFirst: boolean
  readonly chosen: Chosen | undefined
  readonly onChoose: (chosen: Chosen) => void
}

const padLevel = (id: Pad['id']) => Math.max(...raysLevel(id))
/** How long after a move of a level, or of a hand over them, nothing changes places. */
const CALM_MS = 3000

/** The whole, then pads, what is loud first, then buses and returns. */
export function Lanes({ kit, isLoudFirst, chosen, onChoose }: Props) {
  const { pads: solos, buses: soloBuses } = useStore(soloed)
  const over = useStore(mixMeter, (state) => state.over)
  const marks = (id: string) => ({ isOver: over.includes(id), onOver: () => markOver(id) })
  const movedAt = useRef(-Infinity)
  const hold = () => (movedAt.current = performance.now())
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  const move = (edits: KitEdit[]) => {
    hold()
    gesture.set(edits)
  }
  const order = useLoudOrder(kit.pads.map(({ id }) => id), padLevel, isLoudFirst, () => performance.now() - movedAt.current < CALM_MS)
  const pads = order.flatMap((id) => kit.pads.find((pad) => pad.id === id) ?? [])
  return (
    <View style={{ gap: 2, paddingBottom: 24 }} onPointerDown={hold} onPointerMove={hold}>
      <Lane
        name="The whole kit"
        words={chainWords(kit.inserts)}
        level={() => busLevel()}
        gainDb={valueOf(kit, 'gainDb')}
        isChosen={chosen?.of === 'whole'}
        onGain={(gainDb) => move([{ type: 'setKit', fields: { values: { gainDb } } }])}
        onDone={gesture.end}
        onChoose={() => onChoose({ of: 'whole' })}
      />
      <Heading text="Pads" />
      {pads.map((pad) => {
        const settings = padSettings(kit, pad)
        const own = (fields: Partial<Pad['own']>): KitEdit[] => [{ type: 'setPad', padId: pad.id, own: fields }]
        return (
          <Lane
            key={pad.id}
            {...marks(pad.id)}
            name={padName(kit, pad)}
            words={wayWords(kit, pad)}
            face={<PadGlyph kit={kit} pad={pad} size={32} />}
            level={() => padLevel(pad.id)}
            gainDb={settings.values.gainDb}
            isMuted={settings.mute}
            isSolo={solos.includes(pad.id)}
            isChosen={chosen?.of === 'pad' && chosen.id === pad.id}
            onGain={(gainDb) => move(own({ values: { gainDb } }))}
            onDone={gesture.end}
            onChoose={() => onChoose({ of: 'pad', id: pad.id })}
            onMute={() => editKit(kit.id, own({ mute: !settings.mute }))}
            onSolo={() => toggleSolo('pads', pad.id)}
          />
        )
      })}
      <Heading text="Buses and returns" />
      {kit.buses.length === 0 && (
        <Text look="small" tone="muted" style={{ paddingHorizontal: 16 }}>
          A bus sums what goes there, for one level and one set of effects over all of it. A return is fed by sends: one room for many.
        </Text>
      )}
      {kit.buses.map((bus) => {
        const put = (fields: Partial<typeof bus>): KitEdit[] => [{ type: 'putBus', bus: { ...bus, ...fields } }]
        return (
          <Lane
            key={bus.id}
            {...marks(bus.id)}
            name={bus.name}
            words={[touchedBy(kit, bus), chainWords(bus.inserts)].filter(Boolean).join(' · ')}
            level={() => busLevel(bus.id)}
            gainDb={valueOf(bus, 'gainDb')}
            isMuted={bus.mute}
            isSolo={soloBuses.includes(bus.id)}
            isChosen={chosen?.of === 'bus' && chosen.id === bus.id}
            onGain={(gainDb) => move(put({ values: { ...bus.values, gainDb } }))}
            onDone={gesture.end}
            onChoose={() => onChoose({ of: 'bus', id: bus.id })}
            onMute={() => editKit(kit.id, put({ mute: !bus.mute }))}
            onSolo={() => toggleSolo('buses', bus.id)}
          />
        )
      })}
      <View style={{ flexDirection: 'row', gap: 10, paddingHorizontal: 14, paddingTop: 6 }}>
        <Button label="Add a bus" disabled={kit.buses.length >= MOST.buses} onPress={() => editKit(kit.id, addBusEdits(kit, false))} />
        <Button label="Add a return" disabled={kit.buses.length >= MOST.buses} onPress={() => editKit(kit.id, addBusEdits(kit, true))} />
      </View>
    </View>
  )
} // prettier-ignore

function Heading({ text }: { readonly text: string }) {
  return (
    <Text look="label" tone="muted" style={{ paddingHorizontal: 16, paddingTop: 12 }}>
      {text}
    </Text>
  )
}

/** The effects that stand there, by name. */
function chainWords(inserts: Kit['inserts']): string {
  return inserts.map(({ kind, bypass }) => (bypass ? `${effectWords[kind].name} (off)` : effectWords[kind].name)).join(', ')
}

/** Where a pad goes and sends to, where that is not simply the mix. */
function wayWords(kit: Kit, pad: Pad): string {
  const nameOf = (id: string | undefined) => kit.buses.find((bus) => bus.id === id)?.name
  const to = [...new Set(pad.rays.map((ray) => nameOf(ray.bus ?? padSettings(kit, pad).bus)))].filter((name) => name !== undefined)
  const sends = [...new Set(pad.rays.flatMap((ray) => ray.sends.map(({ busId }) => nameOf(busId))))].filter((name) => name !== undefined)
  return [...(to.length > 0 ? [`to ${to.join(', ')}`] : []), ...(sends.length > 0 ? [`sends to ${sends.join(', ')}`] : [])].join(' · ')
}
