import type { Kit, KitEdit, Response } from '@heliaster/core/kit'

import { IconButton } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Slider } from '../../ui/controls/Slider'
import { SOURCES } from './sources'
import type { SourceChoice } from './sources'

interface SourceProps {
  readonly choice: SourceChoice
  readonly onChoose: (choice: SourceChoice) => void
  readonly number: number
  readonly onNumber: (number: number) => void
}

/** What is to move something; a controller by its number. */
export function SourceChips({ choice, onChoose, number, onNumber }: SourceProps) {
  return (
    <>
      <Chips label="What moves" options={SOURCES} value={choice} onChoose={onChoose} />
      {choice === 'controller' && (
        <Slider
          label="Number of the controller"
          value={number}
          min={0}
          max={119}
          step={1}
          unit=""
          onSlide={onNumber}
          onDone={() => undefined}
        />
      )}
    </>
  )
}

interface WaveProps {
  readonly kit: Kit
  /** Of what is shown. */
  readonly responses: readonly Pick<Response, 'from'>[]
  readonly onSlide: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

/** How fast the kit's slow wave goes, where something that is shown is moved by it. */
export function WaveRate({ kit, responses, onSlide, onDone }: WaveProps) {
  const [wave] = kit.oscillators
  if (!wave || !responses.some(({ from }) => from.kind === 'oscillator')) return null
  return (
    <Slider
      label="The slow wave, times a second"
      value={wave.rate.value}
      min={0.05}
      max={20}
      step={0.01}
      power={3}
      unit="Hz"
      onSlide={(value) =>
        onSlide([
          {
            type: 'setKit',
            fields: { oscillators: kit.oscillators.map((one) => (one === wave ? { ...one, rate: { unit: 'Hz', value } } : one)) },
          },
        ])
      }
      onDone={onDone}
    />
  )
}

interface ActsProps {
  readonly words: string
  readonly bypass: boolean
  readonly onBypass: () => void
  readonly onRemove: () => void
}

/** Leaves out what moves something for a while, or takes it away. */
export function MoverActs({ words, bypass, onBypass, onRemove }: ActsProps) {
  return (
    <>
      <IconButton name="power" label={`${words}: ${bypass ? 'let it in' : 'leave it out'}`} on={!bypass} onPress={onBypass} />
      <IconButton name="close" label={`${words}: no more`} onPress={onRemove} />
    </>
  )
}
