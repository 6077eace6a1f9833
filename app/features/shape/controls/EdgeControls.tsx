import type { OwnSettings, PadSettings } from '@heliaster/core/kit'

import { Slider } from '../../../ui/controls/Slider'

interface Props {
  readonly settings: PadSettings
  readonly clipSeconds: number
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
}

const EDGES = [
  { name: 'startSeconds', label: 'Start' },
  { name: 'endSeconds', label: 'End, before the clip’s own' },
  { name: 'fadeInSeconds', label: 'Fade in' },
  { name: 'fadeOutSeconds', label: 'Fade out' },
] as const

/** Where a strike begins and ends in its clip, and how it comes and goes. */
export function EdgeControls({ settings, clipSeconds, onChange, onDone }: Props) {
  return (
    <>
      {EDGES.map(({ name, label }) => (
        <Slider
          key={name}
          label={label}
          value={settings.values[name] * 1000}
          min={0}
          max={Math.max(50, Math.round(clipSeconds * 1000))}
          step={0.1}
          power={2}
          unit="ms"
          neutral={0}
          onSlide={(ms) => onChange({ values: { [name]: ms / 1000 } })}
          onDone={onDone}
        />
      ))}
    </>
  )
}
