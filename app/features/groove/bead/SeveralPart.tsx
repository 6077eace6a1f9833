import { asVelocity, drawn, ramped, stretched } from '@heliaster/core/groove'
import type { Groove } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

const WHATS = [
  { value: 'velocity', text: 'Velocity', min: 1, max: 127, unit: '', low: 40, high: 110, put: asVelocity },
  { value: 'chance', text: 'Chance', min: 0, max: 100, unit: '%', low: 25, high: 100, put: (percent: number) => ({ chance: Math.round(percent) / 100 }) },
  { value: 'offset', text: 'Off the step', min: -50, max: 50, unit: '%', low: -8, high: 8, put: (percent: number) => ({ offset: Math.round(percent * 10) / 1000 }) },
] as const // prettier-ignore
type What = (typeof WHATS)[number]['value']

/** What is done to several beads at once: between two values in a ramp or at random, shifted, in half or twice the time. */
export function SeveralPart({ hands }: { readonly hands: BeadHands }) {
  const [what, setWhat] = useState<What>('velocity')
  const row = WHATS.find(({ value }) => value === what)!
  const [ends, setEnds] = useState<readonly [number, number]>([row.low, row.high])
  const [from, to] = ends
  const choose = (value: What) => {
    const { low, high } = WHATS.find((one) => one.value === value)!
    setWhat(value)
    setEnds([low, high])
  }
  const stretch = (factor: number) => {
    const { groove, ids } = stretched(hands.groove, hands.chosen, factor)
    hands.edit(groove, ids)
  }
  const make = (of: (groove: Groove) => Groove) => hands.edit(of(hands.groove))
  const [low, high] = [Math.min(...ends), Math.max(...ends)]
  return (
    <View style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <Button label="Earlier" icon="arrow-left" onPress={() => hands.move(-1)} />
        <Button label="Later" icon="arrow-right" onPress={() => hands.move(1)} />
        <Button label="Half the time" onPress={() => stretch(0.5)} />
        <Button label="Twice the time" onPress={() => stretch(2)} />
      </View>
      <Chips label="Between two values" isOneLine options={WHATS} value={what} onChoose={choose} />
      <Slider label="From" value={from} min={row.min} max={row.max} step={1} unit={row.unit} onSlide={(value) => setEnds([value, to])} onDone={() => undefined} />
      <Slider label="To" value={to} min={row.min} max={row.max} step={1} unit={row.unit} onSlide={(value) => setEnds([from, value])} onDone={() => undefined} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <Button label="Ramp" onPress={() => make((groove) => ramped(groove, hands.chosen, from, to, row.put))} />
        <Button label="At random" onPress={() => make((groove) => drawn(groove, hands.chosen, low, high, Math.random, row.put))} />
      </View>
      <Text look="small" tone="muted">
        A ramp goes from the first of them to the last.
      </Text>
    </View>
  )
} // prettier-ignore
