import type { Bead } from '@heliaster/core/kit'
import { ScrollView, View } from 'react-native'

import { CheckChips } from '../../../ui/controls/CheckChips'
import { Slider } from '../../../ui/controls/Slider'
import type { FieldProps } from './BeadPanel'
import { Field } from './Field'
import { withoutCondition } from './conditions'

type Laps = NonNullable<NonNullable<Bead['when']>['laps']>
const USUAL: Laps = { of: 4, in: [1] }
const MOST = 64

/** The laps in which it sounds, ticked in a row of so many. */
export function LapsField({ hands, beads }: FieldProps) {
  const laps = beads.find(({ bead }) => bead.when?.laps)?.bead.when?.laps ?? USUAL
  const set = (changed: Laps) => hands.fieldsOf(({ bead }) => ({ when: { ...bead.when, laps: changed } }))
  const resize = (of: number) => hands.slideFields(({ bead }) => ({ when: { ...bead.when, laps: { of, in: within(laps.in, of) } } }))
  const toggle = (lap: string) => {
    const ticked = laps.in.includes(Number(lap)) ? laps.in.filter((one) => one !== Number(lap)) : [...laps.in, Number(lap)]
    set({ ...laps, in: ticked.sort((a, b) => a - b) })
  }
  const options = Array.from({ length: laps.of }, (_, i) => ({ value: String(i + 1), text: String(i + 1) }))
  return (
    <Field clears="In every lap" onClear={() => hands.fieldsOf(({ bead }) => ({ when: withoutCondition(bead.when, 'laps') }))}>
      <ScrollView horizontal showsHorizontalScrollIndicator={false}>
        <View>
          <CheckChips label="Sounds in laps" options={options} values={laps.in.map(String)} onToggle={toggle} />
        </View>
      </ScrollView>
      <Slider label="Of so many laps" value={laps.of} min={1} max={MOST} step={1} power={2} unit="" onSlide={resize} onDone={hands.done} />
    </Field>
  )
}

/** Ticks that are left when there are so many; the first one where none is. */
function within(laps: readonly number[], of: number): number[] {
  const kept = laps.filter((lap) => lap <= of)
  return kept.length > 0 ? kept : [1]
}
