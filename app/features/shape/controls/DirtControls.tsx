import type { OwnSettings, PadSettings, Parameter } from '@heliaster/core/kit'

import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'

interface Props {
  readonly settings: PadSettings
  /** Whether any clip of the pad has two channels: one has no width. */
  readonly isStereo: boolean
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
}

/** Dirt and width of a pad; what makes the dirt is offered once there is any. */
export function DirtControls({ settings, isStereo, onChange, onDone }: Props) {
  const { values, choices } = settings
  const set = (param: Parameter, value: number) => onChange({ values: { [param]: value } })
  return (
    <>
      <Slider
        label="Dirt"
        value={values.crush * 100}
        min={0}
        max={100}
        step={1}
        unit="%"
        neutral={0}
        onSlide={(percent) => set('crush', percent / 100)}
        onDone={onDone}
      />
      {values.crush > 0 && (
        <>
          <Slider
            label="Dirt: bits"
            value={values.crushBits}
            min={1}
            max={24}
            step={0.1}
            unit="bits"
            onSlide={(bits) => set('crushBits', bits)}
            onDone={onDone}
          />
          <Slider
            label="Dirt: rate"
            value={values.crushRateHz}
            min={100}
            max={48000}
            step={1}
            power={3}
            unit="Hz"
            onSlide={(hz) => set('crushRateHz', hz)}
            onDone={onDone}
          />
          <Toggle
            label="Held below half of that rate"
            value={choices.crushFilter === 'on'}
            onChange={(isOn) => {
              onChange({ choices: { crushFilter: isOn ? 'on' : 'off' } })
              onDone()
            }}
          />
        </>
      )}
      {isStereo && (
        <Slider
          label="Width"
          value={values.width * 100}
          min={0}
          max={200}
          step={1}
          unit="%"
          neutral={100}
          onSlide={(percent) => set('width', percent / 100)}
          onDone={onDone}
        />
      )}
    </>
  )
}
