import type { Kit, Performance } from '@heliaster/core/kit'
import { drawnToGrid, offGrid } from '@heliaster/core/performance'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import type { PerformanceEdits } from './use-performance-edits'

interface Props extends PerformanceEdits {
  readonly kit: Kit
  readonly performance: Performance
}

const STEPS = ([1, 2, 3, 4, 6, 8, 12] as const).map((steps) => ({ value: String(steps), text: `${steps}` }))

/** Strikes drawn to the steps of a beat, by a chosen share. */
export function GridPart({ kit, performance, edit, slide, done }: Props) {
  const [steps, setSteps] = useState('4')
  const [percent, setPercent] = useState(100)
  const { mostMs, medianMs } = offGrid(performance, Number(steps))
  return (
    <View style={{ gap: 12, maxWidth: 620 }}>
      <Slider
        label="Tempo"
        value={performance.tempoBpm}
        min={40}
        max={240}
        step={0.1}
        unit="BPM"
        onSlide={(tempoBpm) => slide({ tempoBpm })}
        onDone={done}
      />
      {Math.abs(performance.tempoBpm - kit.tempoBpm) > 0.05 && (
        <Button
          label={`Take the kit’s tempo, ${kit.tempoBpm} BPM`}
          onPress={() => edit({ tempoBpm: kit.tempoBpm })}
          style={{ alignSelf: 'flex-start' }}
        />
      )}
      <Chips label="Steps of a beat" options={STEPS} value={steps} onChoose={setSteps} />
      <Slider label="How far" value={percent} min={0} max={100} step={1} unit="%" onSlide={setPercent} onDone={() => undefined} />
      <Text look="small" tone="muted">
        {`The first strike that is heard is the first step. Strikes are ${mostMs.toFixed(0)} ms off at most, half of them within ${medianMs.toFixed(0)} ms.`}
      </Text>
      <Button
        label="Draw to the grid"
        disabled={percent === 0 || mostMs < 0.02}
        onPress={() => edit(drawnToGrid(performance, { stepsPerBeat: Number(steps), share: percent / 100 }))}
        style={{ alignSelf: 'flex-start' }}
      />
    </View>
  )
}
