import type { PadSettings } from '@heliaster/core/kit'

import { Chips } from '../../../../ui/controls/Chips'
import { Slider } from '../../../../ui/controls/Slider'

interface Props {
  readonly settings: PadSettings
  readonly bands: number
  readonly onSet: (own: Partial<PadSettings>) => void
}

const COUNTERS = [
  { value: 'band', text: 'In each band' },
  { value: 'pad', text: 'Over the pad' },
] as const
const AGAIN = [
  { value: 'never', text: 'Never' },
  { value: 'silence', text: 'After a silence' },
  { value: 'groove', text: 'With the groove' },
] as const

/** Over what turns are counted, and when they begin anew. */
export function TurnRules({ settings, bands, onSet }: Props) {
  const { counter, startAgain } = settings
  const seconds = typeof startAgain === 'number' ? startAgain : undefined
  return (
    <>
      {bands > 1 && <Chips label="Turns are counted" options={COUNTERS} value={counter} onChoose={(next) => onSet({ counter: next })} />}
      <Chips
        label="Turns start again"
        options={AGAIN}
        value={seconds === undefined ? (startAgain as 'never') : 'silence'}
        onChoose={(next) => onSet({ startAgain: next === 'silence' ? 2 : next })}
      />
      {seconds !== undefined && (
        <Slider
          label="Silence of"
          value={seconds}
          min={0.1}
          max={60}
          step={0.1}
          power={2.5}
          unit="s"
          onSlide={(next) => onSet({ startAgain: next })}
          onDone={() => undefined}
        />
      )}
    </>
  )
}
