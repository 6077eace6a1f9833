import type { Envelope } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { NumberField, Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { typeTime, typeValue } from '@heliaster/core/shaping'
import type { Layer, Typed } from '@heliaster/core/shaping'

interface Props {
  readonly envelope: Envelope
  readonly index: number
  readonly layer: Layer
  readonly canSustain: boolean
  readonly onChange: (envelope: Envelope) => void
  readonly onPoint: (index: number) => void
  readonly onBend: (bend: number) => void
  readonly onBent: () => void
  readonly onRemove: () => void
}

/** The chosen point in numbers. */
export function PointFields({ envelope, index, layer, canSustain, onChange, onPoint, onBend, onBent, onRemove }: Props) {
  const point = envelope.points[index]
  const isShare = layer !== 'pitch'
  const [words, setWords] = useState<string>()
  useEffect(() => setWords(undefined), [index, layer])
  const type = (typed: Typed) => {
    onChange(typed.envelope)
    setWords(typed.words)
  }
  const { sustain, loop, ...plain } = envelope
  const waitsAt = loop?.to ?? sustain
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', marginLeft: -10 }}>
        <IconButton name="chevron-left" label="Previous point" disabled={index === 0} onPress={() => onPoint(index - 1)} />
        <Text look="strong">{`Point ${index + 1} of ${envelope.points.length}`}</Text>
        <IconButton
          name="chevron-right"
          label="Next point"
          disabled={index === envelope.points.length - 1}
          onPress={() => onPoint(index + 1)}
        />
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 24 }}>
        <Text look="label" tone="muted">
          At
        </Text>
        <NumberField
          label="Time of the point, ms"
          text={(point.seconds * 1000).toFixed(1)}
          unit="ms"
          onNumber={(ms) => type(typeTime(envelope, index, ms / 1000))}
        />
        <NumberField
          label={layer === 'level' ? 'Level of the point, %' : isShare ? 'Opening of the point, %' : 'Pitch of the point, cents'}
          text={isShare ? (point.value * 100).toFixed(1) : point.value.toFixed(0)}
          unit={isShare ? '%' : 'ct'}
          onNumber={(value) => type(typeValue(envelope, index, isShare ? value / 100 : value, layer))}
        />
      </View>
      {words && (
        <Text look="small" tone="coral" role="status">
          {words}
        </Text>
      )}
      {index > 0 && (
        <Slider
          label="Bend of the way to it"
          value={point.bend}
          min={-1}
          max={1}
          step={0.01}
          unit=""
          neutral={0}
          onSlide={onBend}
          onDone={onBent}
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Remove point" disabled={envelope.points.length <= 1} onPress={onRemove} />
        {canSustain && (
          <Button
            label={waitsAt === index ? 'Do not wait here' : 'Wait here until let go'}
            onPress={() => onChange(waitsAt === index ? plain : { ...plain, sustain: index })}
          />
        )}
        {canSustain && waitsAt !== undefined && index < waitsAt && (
          <Button
            label={loop?.from === index ? 'Do not go round' : 'Go round from here'}
            onPress={() =>
              onChange(loop?.from === index ? { ...plain, sustain: waitsAt } : { ...plain, loop: { from: index, to: waitsAt } })
            }
          />
        )}
      </View>
    </View>
  )
}
