import { effects } from '@heliaster/core/kit'

import { Slider } from '../../../ui/controls/Slider'
import type { EffectField } from '../../../kit-view/buses/effect-words'
import { rangeName } from '../../../kit-view/buses/effect-words'
import type { EffectProps } from './EffectPanel'
import { choiceOf, numberOf } from './short-words'

/** The numbers of an effect, each on its slider. */
export function EffectFields({ insert, fields, onSlide, onDone }: EffectProps & { readonly fields: readonly EffectField[] }) {
  const rows = effects[insert.kind] as Record<string, { min: number; max: number }>
  const ranges = Number(choiceOf(insert, 'ranges') || 1)
  return fields.flatMap(({ value, label, unit, step, times = 1, min, max, power, neutral, where }) => {
    if (where && !where[1].includes(choiceOf(insert, where[0]))) return []
    const range = /^\D+([123])\D/.exec(value)
    const name = range && insert.kind === 'compressor' ? `${label}${rangeName(Number(range[1]), ranges)}` : label
    const row = rows[value]!
    return [
      <Slider
        key={value}
        label={name}
        value={times * numberOf(insert, value)}
        min={min ?? times * row.min}
        max={max ?? times * row.max}
        step={step}
        unit={unit}
        {...(power === undefined ? {} : { power })}
        {...(neutral === undefined ? {} : { neutral })}
        onSlide={(shown) => onSlide({ values: { ...insert.values, [value]: Math.min(row.max, Math.max(row.min, shown / times)) } })}
        onDone={onDone}
      />,
    ]
  })
}
