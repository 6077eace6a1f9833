import { scaleAmount, stretchTime } from '@heliaster/core/shaping'
import { useRef, useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import type { EnvelopeWork } from './use-envelope'

interface Props {
  readonly work: Pick<EnvelopeWork, 'envelope' | 'layer' | 'chosen' | 'slide' | 'end' | 'choose' | 'chart'>
}

const NEUTRAL = 100

/** The chosen points, or all of them, made longer or shorter, more or less: from where they are, as far as one drags. */
export function StretchFields({ work }: Props) {
  const { chosen, envelope, layer } = work
  const isSome = chosen.length > 1
  const words = isSome ? `${chosen.length} points` : 'all of it'
  return (
    <View style={{ gap: 4 }}>
      {isSome && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 }}>
          <Text look="strong" style={{ flex: 1 }}>{`${chosen.length} points chosen`}</Text>
          <Button label="Remove points" disabled={chosen.length >= envelope.points.length} onPress={() => work.chart.onRemove(chosen)} />
          <Button label="Choose none" onPress={() => work.choose([])} />
        </View>
      )}
      <Factor
        label={`Longer or shorter, ${words}`}
        spoken="Longer or shorter"
        max={1000}
        onFactor={(factor, from) => work.slide(stretchTime(from, chosen, factor))}
        onDone={work.end}
        envelope={envelope}
      />
      <Factor
        label={`More or less, ${words}`}
        spoken="More or less"
        max={400}
        onFactor={(factor, from) => work.slide(scaleAmount(from, chosen.length === 1 ? [] : chosen, factor, layer))}
        onDone={work.end}
        envelope={envelope}
      />
    </View>
  ) // prettier-ignore
}

interface FactorProps {
  readonly label: string
  readonly spoken: string
  readonly max: number
  readonly envelope: EnvelopeWork['envelope']
  readonly onFactor: (factor: number, from: EnvelopeWork['envelope']) => void
  readonly onDone: () => void
}

/** A factor over what was there before the drag; when it is done, what is there is the whole again. */
function Factor({ label, spoken, max, envelope, onFactor, onDone }: FactorProps) {
  const [percent, setPercent] = useState(NEUTRAL)
  const before = useRef<EnvelopeWork['envelope']>(undefined)
  return (
    <Slider
      label={label}
      spoken={spoken}
      value={percent}
      min={5}
      max={max}
      step={1}
      unit="%"
      neutral={NEUTRAL}
      power={2}
      onSlide={(value) => {
        before.current ??= envelope
        setPercent(value)
        onFactor(value / 100, before.current)
      }}
      onDone={() => {
        before.current = undefined
        setPercent(NEUTRAL)
        onDone()
      }}
    />
  )
}
