import { effectStarts } from '@heliaster/core/kit'
import type { BusId, Insert, Kit, KitEdit } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { EffectFields } from './EffectFields'
import { choiceWords, effectFields } from '../../../kit-view/buses/effect-words'
import { EqualiserPanel } from './EqualiserPanel'
import { isAsStart, startedBy } from '../../../kit-view/buses/inserts'
import { LedBy } from '../panel/LedBy'
import { KeyChoice } from './KeyChoice'
import { Reduction } from './Reduction'
import { RoomImpulse } from './RoomImpulse'
import { choiceOf } from './short-words'

export interface EffectProps {
  readonly kit: Kit
  readonly busId: BusId | undefined
  readonly insert: Insert
  readonly onSlide: (fields: Partial<Insert>) => void
  readonly onDone: () => void
  readonly onChange: (fields: Partial<Insert>, more?: KitEdit[]) => void
}

const REDUCING: readonly string[] = ['compressor', 'gate', 'limiter']

/** What an effect is set by: where to begin, what is set first, and the rest when it is asked for. */
export function EffectPanel(props: EffectProps) {
  const { insert, onChange } = props
  const { kind } = insert
  const [isWhole, setWhole] = useState(false)
  const starts = effectStarts[kind]
  const isReturn = props.kit.buses.some((bus) => bus.id === props.busId && bus.isReturn)
  const { first, rest } = effectFields[kind]
  return (
    <View style={{ gap: 10 }}>
      <Chips
        label="Begin with"
        isOneLine
        options={starts.map(({ name }) => ({ value: name, text: name }))}
        value={starts.find((start) => isAsStart(insert, start))?.name}
        onChoose={(name) =>
          onChange(
            startedBy(
              starts.find((start) => start.name === name)!,
              kind,
              isReturn,
            ),
          )
        }
      />
      {kind === 'room' && <RoomImpulse {...props} />}
      {REDUCING.includes(kind) && <Reduction insert={insert} busId={props.busId} />}
      {Object.entries(choiceWords).flatMap(([name, { label, words }]) => {
        const [of, choice] = name.split('.') as [string, string]
        if (of !== kind) return []
        const options = Object.entries(words).map(([value, text]) => ({ value, text }))
        return [<Chips key={name} label={label} isOneLine options={options} value={choiceOf(insert, choice)} onChoose={(value) => onChange({ choices: { ...insert.choices, [choice]: value } })} />] // prettier-ignore
      })}
      {kind === 'equaliser' ? <EqualiserPanel {...props} /> : <EffectFields {...props} fields={first} />}
      {(kind === 'compressor' || kind === 'gate') && <KeyChoice {...props} />}
      <LedBy kit={props.kit} id={insert.id} />
      {rest.length > 0 &&
        (isWhole ? <EffectFields {...props} fields={rest} /> : <Button label="All of it" kind="quiet" onPress={() => setWhole(true)} />)}
    </View>
  )
}
