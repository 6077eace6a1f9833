import { withBeads } from '@heliaster/core/groove'
import type { Bead } from '@heliaster/core/kit'

import { Slider } from '../../../ui/controls/Slider'
import type { BeadHands } from '../hands/use-bead-hands'
import type { FieldProps } from './BeadPanel'
import { Field } from './Field'

const slideTo = (hands: BeadHands, fields: (bead: Bead) => Partial<Omit<Bead, 'id'>>) =>
  hands.slide((before) => withBeads(before, hands.chosen, ({ bead }) => fields(bead)))

/** How often it sounds when its time comes. */
export function ChanceField({ hands, beads }: FieldProps) {
  const chance = beads[0]!.bead.chance ?? 1
  return (
    <Field clears="No chance: always" onClear={() => hands.fields({ chance: undefined })}>
      <Slider
        label="Chance"
        value={Math.round(100 * chance)}
        min={0}
        max={100}
        step={1}
        unit="%"
        neutral={100}
        onSlide={(percent) => slideTo(hands, () => ({ chance: percent / 100 }))}
        onDone={hands.done}
      />
    </Field>
  )
}

/** How far it is moved off its step, half a step at most. */
export function OffsetField({ hands, beads }: FieldProps) {
  const offset = beads[0]!.bead.offset ?? 0
  return (
    <Field clears="On its step" onClear={() => hands.fields({ offset: undefined })}>
      <Slider
        label="Off its step"
        value={Math.round(1000 * offset) / 10}
        min={-50}
        max={50}
        step={1}
        unit="%"
        neutral={0}
        onSlide={(percent) => slideTo(hands, () => ({ offset: percent === 0 ? undefined : percent / 100 }))}
        onDone={hands.done}
      />
    </Field>
  )
}

type Repeats = NonNullable<Bead['repeats']>

/** Several strikes in its time, growing louder or softer, drawn together at the end or at the beginning. */
export function RepeatsField({ hands, beads }: FieldProps) {
  const repeats: Repeats = beads.find(({ bead }) => bead.repeats)?.bead.repeats ?? { count: 1 }
  const set = (fields: Partial<Repeats>) => slideTo(hands, (bead) => ({ repeats: { ...(bead.repeats ?? repeats), ...fields } }))
  return (
    <Field clears="No repeats" onClear={() => hands.fields({ repeats: undefined })}>
      <Slider label="Strikes" value={repeats.count} min={1} max={16} step={1} unit="" neutral={1} onSlide={(count) => set({ count })} onDone={hands.done} />
      <Slider label="Over steps" value={repeats.steps ?? 1} min={0.25} max={64} step={0.25} power={3} unit="" onSlide={(steps) => set({ steps })} onDone={hands.done} />
      <Slider
        label="Rising or falling"
        value={Math.round(100 * (repeats.rise ?? 0))}
        min={-100}
        max={100}
        step={1}
        unit="%"
        neutral={0}
        onSlide={(percent) => set({ rise: percent / 100 })}
        onDone={hands.done}
      />
      <Slider
        label="Drawn to its end"
        value={Math.round(100 * (repeats.draw ?? 0))}
        min={-100}
        max={100}
        step={1}
        unit="%"
        neutral={0}
        onSlide={(percent) => set({ draw: percent / 100 })}
        onDone={hands.done}
      />
    </Field>
  )
} // prettier-ignore
