import { parameters } from '@heliaster/core/kit'
import type { OwnSettings, PadSettings } from '@heliaster/core/kit'

import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { driveOf, keptLevel } from './kept-drive'
import type { Drive } from './kept-drive'

const KINDS = [
  { value: 'soft', text: 'Soft' },
  { value: 'hard', text: 'Hard' },
  { value: 'folded', text: 'Folded' },
  { value: 'uneven', text: 'Uneven' },
] as const
/** The second is offered once there is drive, or a filter for it to stand behind. */
const AMOUNTS = [
  { name: 'driveDb', label: 'Drive' },
  { name: 'driveAfterDb', label: 'Drive after the filters' },
] as const
const { min: LEAST_DB, max: MOST_DB } = parameters.driveLevelDb

interface Props {
  readonly settings: PadSettings
  /** Samples of a clip of the pad, by which its loudness is kept; undefined while they are being read. */
  readonly samples: Float32Array | undefined
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
}

/**
 * Drive of a pad. Whatever is changed about it, the level behind it is changed by as much as its loudness would, so that only
 * the sound differs; what was set by hand on top of that stays.
 */
export function DriveControls({ settings, samples, onChange, onDone }: Props) {
  const { values, choices } = settings
  const now = driveOf(settings)
  const keptLevelOf = (next: Drive) => keptLevel(settings, samples, next)
  const amount = (name: 'driveDb' | 'driveAfterDb') => (db: number) =>
    onChange({ values: { [name]: db, driveLevelDb: keptLevelOf({ ...now, [name]: db }) } })
  const isOn = values.driveDb > 0 || values.driveAfterDb > 0
  return (
    <>
      {AMOUNTS.filter(({ name }) => name === 'driveDb' || isOn || choices.filter1Kind !== 'off').map(({ name, label }) => (
        <Slider
          key={name}
          label={label}
          value={values[name]}
          min={0}
          max={60}
          step={0.1}
          power={1.5}
          unit="dB"
          neutral={0}
          onSlide={amount(name)}
          onDone={onDone}
        />
      ))}
      {isOn && (
        <>
          <Chips
            label="Drive: character"
            options={KINDS}
            value={choices.driveKind}
            onChoose={(kind) => {
              onChange({ choices: { driveKind: kind }, values: { driveLevelDb: keptLevelOf({ ...now, kind }) } })
              onDone()
            }}
          />
          <Slider
            label="Drive: level, kept as loud"
            value={values.driveLevelDb}
            min={LEAST_DB}
            max={MOST_DB}
            step={0.1}
            unit="dB"
            neutral={0}
            onSlide={(db) => onChange({ values: { driveLevelDb: db } })}
            onDone={onDone}
          />
        </>
      )}
    </>
  )
}
