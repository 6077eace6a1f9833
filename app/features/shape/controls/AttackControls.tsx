import type { OwnSettings, PadSettings } from '@heliaster/core/kit'

import { Slider } from '../../../ui/controls/Slider'

interface Props {
  readonly settings: PadSettings
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
}

const SIDES = [
  { name: 'attackDb', label: 'Attack' },
  { name: 'tailDb', label: 'Tail' },
] as const

/** Attack and tail by a hit's own curve, and where its depth is cut. */
export function AttackControls({ settings: { values }, onChange, onDone }: Props) {
  return (
    <>
      {SIDES.map(({ name, label }) => (
        <Slider
          key={name}
          label={label}
          value={values[name]}
          min={-24}
          max={24}
          step={0.1}
          unit="dB"
          neutral={0}
          onSlide={(db) => onChange({ values: { [name]: db } })}
          onDone={onDone}
        />
      ))}
      <Slider
        label={values.lowCutHz > 1 ? 'Low cut' : 'Low cut: none'}
        value={values.lowCutHz}
        min={1}
        max={2000}
        step={1}
        power={3}
        unit="Hz"
        neutral={1}
        onSlide={(hz) => onChange({ values: { lowCutHz: hz } })}
        onDone={onDone}
      />
    </>
  )
}
