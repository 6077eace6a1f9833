import { cutoffDb, dampingOf, parameters } from '@heliaster/core/kit'
import type { OwnSettings, PadSettings, Parameter } from '@heliaster/core/kit'

import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'

const KINDS = [
  { value: 'off', text: 'Off' },
  { value: 'lowPass', text: 'Low pass' },
  { value: 'highPass', text: 'High pass' },
  { value: 'bandPass', text: 'Band' },
  { value: 'notch', text: 'Notch' },
  { value: 'lowShelf', text: 'Low shelf' },
  { value: 'highShelf', text: 'High shelf' },
  { value: 'peak', text: 'Peak' },
] as const
const SLOPES = [
  { value: '12', text: '12 dB' },
  { value: '24', text: '24 dB' },
] as const

const LIFTING: readonly string[] = ['lowShelf', 'highShelf', 'peak']
/** What a new shelf or peak lifts. */
const FIRST_GAIN_DB = 6
/** A new envelope of a filter opens it by three octaves. */
export const FIRST_REACH_CENTS = 3600
const { min: MIN_DAMPING, max: MAX_DAMPING } = parameters.filter1Damping
const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))

interface Props {
  readonly name: 'filter1' | 'filter2'
  readonly settings: PadSettings
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
}

/** One of a pad's two filters; the second is offered once there is a first. */
export function FilterControls({ name, settings, onChange, onDone }: Props) {
  const { values, choices, envelopes } = settings
  const kind = choices[`${name}Kind`]
  if (name === 'filter2' && kind === 'off' && choices.filter1Kind === 'off') return null
  const title = name === 'filter1' ? 'Filter' : 'Second filter'
  const said = (words: string) => (name === 'filter1' ? words : `Second filter: ${words.toLowerCase()}`)
  const set = (param: Parameter, value: number) => onChange({ values: { [param]: value } })
  const choose = (own: OwnSettings) => {
    onChange(own)
    onDone()
  }
  const lifts = LIFTING.includes(kind)
  const damping = values[`${name}Damping`]
  return (
    <>
      <Chips
        label={title}
        options={KINDS}
        value={kind}
        onChoose={(next) => {
          // A shelf or peak of no gain would change nothing.
          const lift = LIFTING.includes(next) && values[`${name}GainDb`] === 0 ? { values: { [`${name}GainDb`]: FIRST_GAIN_DB } } : {}
          choose({ choices: { [`${name}Kind`]: next }, ...lift })
        }}
      />
      {kind !== 'off' && (
        <>
          <Chips
            label={said('Slope')}
            options={SLOPES}
            value={choices[`${name}Slope`]}
            onChoose={(next) => choose({ choices: { [`${name}Slope`]: next } })}
          />
          <Slider
            label={said(kind === 'lowPass' || kind === 'highPass' ? 'Cutoff' : 'Frequency')}
            value={values[`${name}CutoffHz`]}
            min={20}
            max={18000}
            step={1}
            power={4}
            unit="Hz"
            onSlide={(hz) => set(`${name}CutoffHz`, hz)}
            onDone={onDone}
          />
          {lifts && (
            <Slider
              label={said('Gain')}
              value={values[`${name}GainDb`]}
              min={-24}
              max={24}
              step={0.1}
              unit="dB"
              neutral={0}
              onSlide={(db) => set(`${name}GainDb`, db)}
              onDone={onDone}
            />
          )}
          {kind === 'lowPass' || kind === 'highPass' ? (
            <Slider
              label={said('Resonance, at the cutoff')}
              value={cutoffDb(damping)}
              min={-6}
              max={26}
              step={0.1}
              unit="dB"
              onSlide={(db) => set(`${name}Damping`, clamp(dampingOf(db), MIN_DAMPING, MAX_DAMPING))}
              onDone={onDone}
            />
          ) : (
            <Slider
              label={said('Sharpness (Q)')}
              value={1 / damping}
              min={0.5}
              max={20}
              step={0.01}
              power={3}
              unit=""
              onSlide={(q) => set(`${name}Damping`, clamp(1 / q, MIN_DAMPING, MAX_DAMPING))}
              onDone={onDone}
            />
          )}
          {envelopes[name].points.length > 0 && (
            <Slider
              label={said('Reach of its envelope')}
              value={values[`${name}EnvelopeCents`] / 100}
              min={-96}
              max={96}
              step={1}
              unit="st"
              neutral={0}
              onSlide={(semitones) => set(`${name}EnvelopeCents`, semitones * 100)}
              onDone={onDone}
            />
          )}
        </>
      )}
    </>
  )
}
