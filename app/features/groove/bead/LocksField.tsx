import { movedParameters, padSettings, parameterRow, padById, valueOf } from '@heliaster/core/kit'
import type { Bead, Parameter } from '@heliaster/core/kit'
import { useState } from 'react'

import { parameterChoices, parameterWords } from '../../../kit-view/parameter-words'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Sheet } from '../../../ui/layout/Sheet'
import type { FieldProps } from './BeadPanel'
import { Field } from './Field'

type Lock = NonNullable<Bead['locks']>[number]
const MOST = 32

/** Parameters of the pad that are otherwise for this bead alone. */
export function LocksField({ hands, beads }: FieldProps) {
  const [isChoosing, setChoosing] = useState(false)
  const pad = padById(hands.kit, beads[0]!.string.padId)
  const locks = beads.find(({ bead }) => bead.locks && bead.locks.length > 0)?.bead.locks ?? []
  const put = (list: readonly Lock[]) => ({ locks: list.length > 0 ? [...list] : undefined })
  const usual = (param: Parameter) => (pad ? valueOf(padSettings(hands.kit, pad), param) : parameterRow(param).usual)
  const set = (param: Parameter, value: number) => hands.slideFields(() => put(locks.map((one) => (one.param === param ? { ...one, value } : one)))) // prettier-ignore
  const own = new Set(locks.filter(({ ray }) => ray === undefined).map((one) => one.param))
  const free = movedParameters.filter((name) => !own.has(name))
  return (
    <>
      {locks.map((lock) => (
        <Field
          key={lock.param}
          clears={`${parameterWords(lock.param).text} as its pad's`}
          onClear={() => hands.fields(put(locks.filter((one) => one !== lock)))}
        >
          <LockSlider lock={lock} onSlide={(value) => set(lock.param, value)} onDone={hands.done} />
        </Field>
      ))}
      {locks.length < MOST && <Button label="A parameter for it alone" icon="plus" onPress={() => setChoosing(true)} style={{ alignSelf: 'flex-start' }} />}
      {isChoosing && (
        <Sheet title="A parameter for this bead alone" isOpen onClose={() => setChoosing(false)}>
          <Chips
            label="Parameter"
            hideLabel
            options={parameterChoices(free)}
            value={undefined}
            onChoose={(param) => {
              hands.fields(put([...locks, { param, value: usual(param), mode: 'set' }]))
              setChoosing(false)
            }}
          />
        </Sheet>
      )}
    </>
  )
} // prettier-ignore

interface SliderProps {
  readonly lock: Lock
  readonly onSlide: (value: number) => void
  readonly onDone: () => void
}

function LockSlider({ lock, onSlide, onDone }: SliderProps) {
  const { min, max, unit } = parameterRow(lock.param)
  const words = parameterWords(lock.param)
  const wide = (max - min) * words.factor
  return (
    <Slider
      label={words.text}
      value={lock.value * words.factor}
      min={min * words.factor}
      max={max * words.factor}
      step={wide > 400 ? 1 : 0.1}
      power={unit === 'Hz' || unit === 'ratio' || unit === 'seconds' ? 4 : 1}
      unit={words.unit}
      onSlide={(value) => onSlide(value / words.factor)}
      onDone={onDone}
    />
  )
}
