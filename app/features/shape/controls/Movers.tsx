import type { Kit, KitEdit, Oscillator, Pad, Parameter, RayId, Response } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { Part } from '../../../ui/layout/Part'
import { moverWords, newMover, SOURCES, TARGETS, targetOf } from './mover-words'
import type { SourceChoice } from './mover-words'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  /** New ones move this ray alone. */
  readonly rayId?: RayId
  /** Edits that belong to one drag, and its end. */
  readonly onSlide: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

const MOST = 64
const FIRST_WAVE: Oscillator = { id: 'wave', name: 'Wave', wave: 'sine', rate: { unit: 'Hz', value: 2 }, runs: 'always', phase: 0 }

/** Everything that moves a pad's sound: by the strike, or while it sounds; how far each moves it, and one more. */
export function Movers({ kit, pad, rayId, onSlide, onDone }: Props) {
  const { responses } = padSettings(kit, pad)
  const [isAdding, setAdding] = useState(false)
  const put = (changed: readonly Response[], more: KitEdit[] = []): KitEdit[] => [...more, { type: 'setPad', padId: pad.id, own: { responses: [...changed] } }] // prettier-ignore
  const now = (edits: KitEdit[]) => {
    onSlide(edits)
    onDone()
  }
  const change = (response: Response, fields: Partial<Response>) =>
    put(responses.map((one) => (one === response ? { ...one, ...fields } : one)))
  const add = (choice: SourceChoice, param: Parameter, number: number) => {
    const wave = kit.oscillators[0] ?? FIRST_WAVE
    const needsWave = choice === 'oscillator' && kit.oscillators.length === 0
    now(put([...responses, newMover({ choice, param, number, oscillatorId: wave.id, rayId }, responses)], needsWave ? [{ type: 'setKit', fields: { oscillators: [wave] } }] : [])) // prettier-ignore
    setAdding(false)
  }
  const wave = responses.some(({ from }) => from.kind === 'oscillator') ? kit.oscillators[0] : undefined
  return (
    <Part name="What moves it">
      {responses.length === 0 && (
        <Text look="small" tone="muted">
          Nothing: every strike is alike.
        </Text>
      )}
      {responses.map((response) => (
        <Mover
          key={response.id}
          response={response}
          onSlide={(amount) => onSlide(change(response, { amount }))}
          onDone={onDone}
          onRemove={() => now(put(responses.filter((one) => one !== response)))}
        />
      ))}
      {wave && (
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
      )}
      {isAdding ? (
        <NewMover onAdd={add} onLeave={() => setAdding(false)} />
      ) : (
        <Button label="Let something move it" disabled={responses.length >= MOST} onPress={() => setAdding(true)} />
      )}
    </Part>
  )
}

interface MoverProps {
  readonly response: Response
  readonly onSlide: (amount: number) => void
  readonly onDone: () => void
  readonly onRemove: () => void
}

function Mover({ response, onSlide, onDone, onRemove }: MoverProps) {
  const palette = usePalette()
  const words = moverWords(response)
  const target = response.to[0] && targetOf(response.to[0].param)
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, borderTopWidth: 1, borderTopColor: palette.faint, paddingTop: 6 }}>
      <View style={{ flex: 1 }}>
        {target ? (
          <Slider
            label={words}
            value={response.amount * target.factor}
            min={-target.most}
            max={target.most}
            step={target.step}
            unit={target.unit}
            neutral={0}
            onSlide={(amount) => onSlide(amount / target.factor)}
            onDone={onDone}
          />
        ) : (
          <Text look="small">{words}</Text>
        )}
      </View>
      <IconButton name="close" label={`${words}: no more`} onPress={onRemove} />
    </View>
  )
}

function NewMover({
  onAdd,
  onLeave,
}: {
  readonly onAdd: (choice: SourceChoice, param: Parameter, number: number) => void
  readonly onLeave: () => void
}) {
  const [choice, setChoice] = useState<SourceChoice>('wheel')
  const [param, setParam] = useState<Parameter>('gainDb')
  const [number, setNumber] = useState(4)
  return (
    <View style={{ gap: 10 }}>
      <Chips label="What moves" options={SOURCES} value={choice} onChoose={setChoice} />
      {choice === 'controller' && (
        <Slider
          label="Number of the controller"
          value={number}
          min={0}
          max={119}
          step={1}
          unit=""
          onSlide={setNumber}
          onDone={() => undefined}
        />
      )}
      <Chips label="What it moves" options={TARGETS} value={param} onChoose={setParam} />
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button label="Add" kind="main" onPress={() => onAdd(choice, param, number)} />
        <Button label="Leave it" onPress={onLeave} />
      </View>
    </View>
  )
}
