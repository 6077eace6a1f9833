import type { Kit } from '@heliaster/core/kit'
import { levelOfTyped, levelText, levelUnits, secondsOf, timeText, timeUnits, typeTime, typeValue } from '@heliaster/core/shaping'
import type { Typed } from '@heliaster/core/shaping'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { chartSettings } from './chart-view'
import { PitchField } from './PitchField'
import { UnitField } from './UnitField'
import type { EnvelopeWork } from './use-envelope'

interface Props {
  readonly work: Pick<EnvelopeWork, 'envelope' | 'layer' | 'slide' | 'put' | 'end' | 'choose' | 'chart'>
  readonly index: number
  /** What times, and pitches that are known, are told by. */
  readonly clock: { readonly sampleRateHz: number; readonly tempoBpm: number }
  readonly baseHz: number | undefined
  readonly tuningA4Hz: Kit['tuningA4Hz']
  readonly canSustain: boolean
}

/** The chosen point in numbers. */
export function PointFields({ work, index, clock, baseHz, tuningA4Hz, canSustain }: Props) {
  const { envelope, layer } = work
  const point = envelope.points[index]!
  const units = useStore(chartSettings)
  const [words, setWords] = useState<string>()
  useEffect(() => setWords(undefined), [index, layer])
  const type = (typed: Typed) => {
    work.put(typed.envelope, [index])
    setWords(typed.words)
  }
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 16, marginLeft: -10 }}>
        <PointSteps index={index} count={envelope.points.length} onPoint={(next) => work.choose([next])} />
        <View style={{ flexDirection: 'row', alignItems: 'center' }}>
          <UnitField
            label="Time of the point"
            text={timeText(point.seconds, units.time, clock)}
            unit={units.time}
            units={timeUnits}
            onUnit={(time) => chartSettings.setState({ time })}
            onNumber={(typed) => type(typeTime(envelope, index, secondsOf(typed, units.time, clock)))}
          />
          {layer === 'pitch' ? (
            <PitchField
              cents={point.value}
              baseHz={baseHz}
              tuningA4Hz={tuningA4Hz}
              unit={units.pitch}
              onUnit={(pitch) => chartSettings.setState({ pitch })}
              onCents={(cents) => type(typeValue(envelope, index, cents, layer))}
            />
          ) : (
            <UnitField
              label={layer === 'level' ? 'Level of the point' : 'Opening of the point'}
              text={levelText(point.value, layer === 'level' ? units.level : '%')}
              unit={layer === 'level' ? units.level : '%'}
              units={layer === 'level' ? levelUnits : ['%']}
              onUnit={(level) => chartSettings.setState({ level })}
              onNumber={(typed) => type(typeValue(envelope, index, levelOfTyped(typed, layer === 'level' ? units.level : '%'), layer))}
            />
          )}
        </View>
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
          onSlide={(bend) => work.slide({ ...envelope, points: envelope.points.map((one, i) => (i === index ? { ...one, bend } : one)) })}
          onDone={work.end}
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Remove point" disabled={envelope.points.length <= 1} onPress={() => work.chart.onRemove([index])} />
        {canSustain && <WaitingActs work={work} index={index} />}
      </View>
    </View>
  )
}

interface StepsProps {
  readonly index: number
  readonly count: number
  readonly onPoint: (index: number) => void
}

function PointSteps({ index, count, onPoint }: StepsProps) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      <IconButton name="chevron-left" label="Previous point" disabled={index === 0} onPress={() => onPoint(index - 1)} />
      <Text look="strong">{`Point ${index + 1} of ${count}`}</Text>
      <IconButton name="chevron-right" label="Next point" disabled={index === count - 1} onPress={() => onPoint(index + 1)} />
    </View>
  )
}

/** Where a held envelope waits, and whether it goes round there. */
function WaitingActs({ work, index }: Pick<Props, 'work' | 'index'>) {
  const { sustain, loop, ...plain } = work.envelope
  const waitsAt = loop?.to ?? sustain
  return (
    <>
      <Button
        label={waitsAt === index ? 'Do not wait here' : 'Wait here until let go'}
        onPress={() => work.put(waitsAt === index ? plain : { ...plain, sustain: index })}
      />
      {waitsAt !== undefined && index < waitsAt && (
        <Button
          label={loop?.from === index ? 'Do not go round' : 'Go round from here'}
          onPress={() => work.put(loop?.from === index ? { ...plain, sustain: waitsAt } : { ...plain, loop: { from: index, to: waitsAt } })}
        />
      )}
    </>
  ) // prettier-ignore
}
