import { padById } from '@heliaster/core/kit'
import type { EventId, Kit, Performance, PlayedStrike } from '@heliaster/core/kit'
import { movedBy, withStrikes } from '@heliaster/core/performance'
import { useState } from 'react'
import { View } from 'react-native'

import { cellChoices, cellOf } from '../../../kit-view/cell-choices'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { strikesWords } from '../words'
import type { PerformanceEdits } from './use-performance-edits'

interface Props extends PerformanceEdits {
  readonly kit: Kit
  readonly performance: Performance
  readonly chosen: ReadonlySet<EventId>
  readonly onRemove: () => void
}

const STEPS = [
  { value: '1', text: '1 ms' },
  { value: '10', text: '10 ms' },
  { value: '100', text: '100 ms' },
] as const

/** What can be done to the strikes that are chosen: their strength, their time, which turn they play. */
export function StrikePart({ kit, performance, chosen, edit, slide, done, onRemove }: Props) {
  const [stepMs, setStepMs] = useState<(typeof STEPS)[number]['value']>('10')
  const strikes = performance.events.filter((event): event is PlayedStrike => event.type === 'strike' && chosen.has(event.id))
  if (strikes.length === 0)
    return (
      <Text look="small" tone="muted">
        Tap a strike to change it; drag it to move it in time. Drag over several to choose them. The green knobs set what is heard.
      </Text>
    )
  const [first] = strikes
  const isMixed = strikes.some(({ velocity }) => velocity !== first.velocity)
  const pad = strikes.every(({ padId }) => padId === first.padId) ? padById(kit, first.padId) : undefined
  const cells = pad && cellChoices(pad)
  const move = (way: number) => edit(movedBy(performance, chosen, way * Math.round((Number(stepMs) / 1000) * performance.sampleRateHz)))
  return (
    <View style={{ gap: 12, maxWidth: 620 }}>
      <Text look="strong">{wordsOf(strikes, performance, pad && padName(kit, pad))}</Text>
      <Slider
        label={isMixed ? 'Strength (mixed)' : 'Strength'}
        spoken="Strength"
        value={first.velocity}
        min={1}
        max={127}
        step={1}
        unit=""
        onSlide={(velocity) => slide(withStrikes(performance, chosen, { velocity }))}
        onDone={done}
      />
      <Chips label="Move by" options={STEPS} value={stepMs} onChoose={setStepMs} />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Earlier" icon="arrow-left" onPress={() => move(-1)} />
        <Button label="Later" icon="arrow-right" onPress={() => move(1)} />
      </View>
      {cells && cells.length > 2 && (
        <Chips
          label="Which turn"
          options={cells}
          value={cellOf(strikes)}
          onChoose={(value) => edit(withStrikes(performance, chosen, { cell: cells.find((cell) => cell.value === value)!.cell }))}
        />
      )}
      <Button
        label={strikes.length === 1 ? 'Remove this strike' : `Remove these ${strikes.length}`}
        icon="trash-can-outline"
        onPress={onRemove}
        style={{ alignSelf: 'flex-start' }}
      />
    </View>
  )
}

function wordsOf(strikes: readonly PlayedStrike[], { fromFrame, sampleRateHz }: Performance, name: string | undefined): string {
  const at = ((strikes[0].frame - fromFrame) / sampleRateHz).toFixed(3)
  const who = name ?? 'several pads'
  return strikes.length === 1 ? `${who}, at ${at} s` : `${strikesWords(strikes.length)} of ${who}, from ${at} s`
}
