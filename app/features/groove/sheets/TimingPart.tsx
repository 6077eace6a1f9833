import { doubledLength, tappedTempo, withDivision, withLength, withTap } from '@heliaster/core/groove'
import type { Groove, GrooveId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { kitGesture } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

const USUAL_STEPS = [1, 2, 3, 4, 6, 8, 12].map((value) => ({ value: String(value), text: String(value) }))

interface StepsProps {
  readonly value: number
  readonly onChoose: (steps: number) => void
  readonly onSlide: (steps: number) => void
  readonly onDone: () => void
}

/** The usual ones by a tap, any of 1 to 48 dragged or typed; beads stay where they are in time. */
export function StepsToABeat({ value, onChoose, onSlide, onDone }: StepsProps) {
  return (
    <View style={{ gap: 4 }}>
      <Chips
        label="Usual steps to a beat"
        hideLabel
        isOneLine
        options={USUAL_STEPS}
        value={String(value)}
        onChoose={(steps) => onChoose(Number(steps))}
      />
      <Slider label="Steps to a beat" value={value} min={1} max={48} step={1} power={2} unit="" onSlide={onSlide} onDone={onDone} />
    </View>
  )
}

/** How the groove goes: tempo, swing, length, division, and the feel of another groove. */
export function TimingPart({ hands }: { readonly hands: BeadHands }) {
  const { groove } = hands
  return (
    <View style={{ gap: 10, padding: 16, paddingTop: 8 }}>
      <Tempo hands={hands} />
      <Slider
        label="Swing"
        value={Math.round(groove.swing * 1000) / 10}
        min={50}
        max={75}
        step={0.1}
        unit="%"
        neutral={50}
        onSlide={(percent) => hands.slide((before) => ({ ...before, swing: percent / 100 }))}
        onDone={hands.done}
      />
      <Slider
        label="Length"
        value={groove.lengthSteps}
        min={1}
        max={1024}
        step={1}
        power={3}
        unit="steps"
        onSlide={(steps) => hands.slide((before) => withLength(before, steps))}
        onDone={hands.done}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Half as long" disabled={groove.lengthSteps < 2} onPress={() => hands.edit(withLength(groove, groove.lengthSteps / 2))} />
        <Button label="Twice as long, with its beads" disabled={groove.lengthSteps > 512} onPress={() => hands.edit(doubledLength(groove))} />
      </View>
      <StepsToABeat
        value={groove.stepsPerBeat}
        onChoose={(steps) => hands.edit(withDivision(groove, steps))}
        onSlide={(steps) => hands.slide((before) => withDivision(before, steps))}
        onDone={hands.done}
      />
      <Feel hands={hands} />
    </View>
  )
} // prettier-ignore

/** Typed, dragged, or tapped: the line through the last taps. */
function Tempo({ hands: { kit } }: { readonly hands: BeadHands }) {
  const [gesture] = useState(() => kitGesture(kit.id))
  const [taps, setTaps] = useState<readonly number[]>([])
  const tap = () => {
    const more = withTap(taps, performance.now())
    setTaps(more)
    const tempoBpm = tappedTempo(more)
    if (tempoBpm !== undefined) editKit(kit.id, [{ type: 'setKit', fields: { tempoBpm } }])
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 12 }}>
      <View style={{ flex: 1 }}>
        <Slider
          label="Tempo"
          value={kit.tempoBpm}
          min={20}
          max={400}
          step={0.1}
          power={1.5}
          unit="BPM"
          onSlide={(tempoBpm) => gesture.set([{ type: 'setKit', fields: { tempoBpm } }])}
          onDone={gesture.end}
        />
      </View>
      <Button label={taps.length > 0 && taps.length < 3 ? `Tap (${3 - taps.length} more)` : 'Tap'} onPress={tap} />
    </View>
  )
}

const NONE = ''

/** The timing and level of another groove, laid over this one by shares. */
function Feel({ hands }: { readonly hands: BeadHands }) {
  const { kit, groove } = hands
  const others = kit.grooves.filter(({ id }) => id !== groove.id)
  if (others.length === 0)
    return (
      <Text look="small" tone="muted">
        With another groove in the kit, its timing and level can be laid over this one.
      </Text>
    )
  const options = [{ value: NONE, text: 'Its own' }, ...others.map(({ id, name }) => ({ value: id as string, text: name || 'Groove' }))]
  const choose = (id: string) => hands.edit(id === NONE ? withoutFeel(groove) : { ...groove, feel: { timing: 1, level: 0, ...groove.feel, grooveId: id as GrooveId } }) // prettier-ignore
  const { feel } = groove
  const slide = (fields: Partial<NonNullable<Groove['feel']>>) => hands.slide((before) => (before.feel ? { ...before, feel: { ...before.feel, ...fields } } : before)) // prettier-ignore
  return (
    <Part name="Feel">
      <Chips label="Timing and level of" options={options} value={feel?.grooveId ?? NONE} onChoose={choose} />
      {feel &&
        (['timing', 'level'] as const).map((what) => (
          <Slider
            key={what}
            label={what === 'timing' ? 'Its timing' : 'Its level'}
            value={Math.round(100 * feel[what])}
            min={0}
            max={100}
            step={1}
            unit="%"
            neutral={0}
            onSlide={(percent) => slide({ [what]: percent / 100 })}
            onDone={hands.done}
          />
        ))}
    </Part>
  )
}

function withoutFeel({ feel: _feel, ...groove }: Groove): Groove {
  return groove
}
