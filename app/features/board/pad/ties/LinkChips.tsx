import type { Kit, KitEdit, Pad, PadId, Tie } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { View } from 'react-native'

import { CheckChips } from '../../../../ui/controls/CheckChips'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { Toggle } from '../../../../ui/controls/Toggle'
import { editKit } from '../../../../kit-view'
import { kitGesture, padName } from '../../../../kit-view/use-kit'
import type { KitGesture } from '../../../../kit-view/use-kit'
import { alongOf, openingsOf, toggleAlong, toggleOpening, toggleTurns, turnsOf } from '../../edits/link-edits'

/** Pads that answer with this one: struck along, in turns, or opened by a controller; each said as it is played. */
export function LinkChips({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  const others = kit.pads.filter(({ id }) => id !== pad.id).map((other) => ({ value: other.id, text: padName(kit, other) }))
  if (others.length === 0) return null
  const along = alongOf(kit, pad.id)
  const turns = turnsOf(kit, pad.id)
  const openings = openingsOf(kit, pad.id)
  const toggle = (edits: (kit: Kit, padId: PadId, other: PadId) => KitEdit[]) => (other: PadId) =>
    editKit(kit.id, edits(kit, pad.id, other), pad.id)
  return (
    <>
      <CheckChips label="Strikes along" options={others} values={along?.to.map((to) => to.pad) ?? []} onToggle={toggle(toggleAlong)} />
      {along && <AlongSettings tie={along} gesture={gesture} />}
      <CheckChips label="Takes turns with" options={others} values={turns?.pads ?? []} onToggle={toggle(toggleTurns)} />
      {turns && <Sentence>{`A strike on any of these ${turns.pads.length} sounds the next of them, the first one first.`}</Sentence>}
      <CheckChips
        label="Opens by a controller to"
        options={others}
        values={openings?.steps.map((step) => step.pad) ?? []}
        onToggle={toggle(toggleOpening)}
      />
      {openings && <OpeningSettings kit={kit} tie={openings} gesture={gesture} />}
    </>
  )
}

function Sentence({ children }: { readonly children: string }) {
  return (
    <Text look="small" tone="muted">
      {children}
    </Text>
  )
}

function AlongSettings({ tie, gesture }: { readonly tie: Extract<Tie, { kind: 'alsoStrike' }>; readonly gesture: KitGesture }) {
  const [first] = tie.to
  if (!first) return null
  const all = (fields: Partial<typeof first>) =>
    gesture.set([{ type: 'putTie', tie: { ...tie, to: tie.to.map((to) => ({ ...to, ...fields })) } }])
  const pass = (passOn: boolean) => {
    gesture.set([{ type: 'putTie', tie: { ...tie, passOn } }])
    gesture.end()
  }
  return (
    <View style={{ paddingLeft: 12, gap: 8 }}>
      <Slider
        label="As loud"
        value={first.gainDb}
        min={-48}
        max={12}
        step={0.1}
        unit="dB"
        neutral={0}
        onSlide={(gainDb) => all({ gainDb })}
        onDone={gesture.end}
      />
      <Slider
        label="So much later"
        value={first.delaySeconds * 1000}
        min={0}
        max={1000}
        step={1}
        power={2}
        unit="ms"
        neutral={0}
        onSlide={(ms) => all({ delaySeconds: ms / 1000 })}
        onDone={gesture.end}
      />
      <Slider
        label="How often"
        value={first.chance * 100}
        min={0}
        max={100}
        step={1}
        unit="%"
        neutral={100}
        onSlide={(percent) => all({ chance: percent / 100 })}
        onDone={gesture.end}
      />
      <Toggle
        label="They strike on"
        words="What is struck along strikes its own along too, never a pad that is on the way already."
        value={tie.passOn}
        onChange={pass}
      />
    </View>
  )
}

function OpeningSettings({
  kit,
  tie,
  gesture,
}: {
  readonly kit: Kit
  readonly tie: Extract<Tie, { kind: 'openings' }>
  readonly gesture: KitGesture
}) {
  const steps = [...tie.steps].sort((a, b) => a.from - b.from)
  const name = (id: PadId) =>
    padName(
      kit,
      kit.pads.find((pad) => pad.id === id)!,
    )
  const put = (fields: Partial<typeof tie>) => gesture.set([{ type: 'putTie', tie: { ...tie, ...fields } }])
  return (
    <View style={{ paddingLeft: 12, gap: 8 }}>
      <Sentence>{`Controller ${tie.controller}: ${steps.map(({ pad, from }) => `${name(pad)} from ${from}`).join(', ')}.`}</Sentence>
      <Slider
        label="Controller"
        value={tie.controller}
        min={0}
        max={119}
        step={1}
        unit=""
        onSlide={(controller) => put({ controller })}
        onDone={gesture.end}
      />
      <Slider
        label="At or below this it silences the others"
        value={tie.chokeAt ?? 0}
        min={0}
        max={126}
        step={1}
        unit=""
        onSlide={(chokeAt) => put({ chokeAt })}
        onDone={gesture.end}
      />
    </View>
  )
}
