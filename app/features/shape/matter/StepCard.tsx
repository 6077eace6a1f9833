import { valuesOfKind } from '@heliaster/core/kit'
import type { MatterStep } from '@heliaster/core/kit'
import { useRef, useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { PartStrip } from './PartStrip'
import type { Clipped } from './PartStrip'
import { SpeedCurve } from './SpeedCurve'
import { fieldsOf, stepTitle, stepWords } from './step-words'

interface Props {
  readonly step: MatterStep
  /** The clip it works on, where it is one. */
  readonly clipped: Clipped | undefined
  /** How long the first of its clips is. */
  readonly seconds: number
  /** Why it changes nothing yet. */
  readonly why?: string | undefined
  readonly isOpen: boolean
  readonly onOpen: () => void
  readonly onChange: (step: MatterStep) => void
  readonly onTakeOut: () => void
}

/** One step: switched, opened, taken out. What is dragged is worked once the finger lifts. */
export function StepCard({ step, clipped, seconds, why, isOpen, onOpen, onChange, onTakeOut }: Props) {
  const palette = usePalette()
  const title = stepTitle(step)
  return (
    <View
      role="group"
      aria-label={title}
      style={{ borderRadius: 10, borderWidth: 1, borderColor: isOpen ? palette.kelp : palette.faint, backgroundColor: palette.surface }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, padding: 4 }}>
        <IconButton
          name="power"
          label={step.bypass ? `${title} is off` : `Switch ${title} off`}
          tone={step.bypass ? 'muted' : 'kelp'}
          on={!step.bypass}
          onPress={() => onChange({ ...step, bypass: !step.bypass })}
        />
        <Pressable
          role="button"
          aria-label={`Settings of ${title}`}
          aria-expanded={isOpen}
          onPress={onOpen}
          style={{ flex: 1, minWidth: 0, minHeight: TOUCH, justifyContent: 'center', paddingVertical: 4 }}
        >
          <Text look="strong" tone={step.bypass ? 'muted' : 'ink'} numberOfLines={1}>
            {title}
          </Text>
          <Text look="small" tone="muted" numberOfLines={1}>
            {stepWords(step)}
          </Text>
        </Pressable>
        <IconButton name="close" label={`Take ${title} out`} tone="muted" onPress={onTakeOut} />
      </View>
      {why && (
        <Text look="small" tone="coral" style={{ paddingHorizontal: 12, paddingBottom: 8 }}>
          {why}
        </Text>
      )}
      {isOpen && <StepSettings {...{ step, clipped, seconds, onChange }} />}
    </View>
  )
}

/** The numbers of a step as a finger holds them, until it lifts. */
function StepSettings({ step: kept, clipped, seconds, onChange }: Pick<Props, 'step' | 'clipped' | 'seconds' | 'onChange'>) {
  const [held, setHeld] = useState({ of: kept, step: kept })
  const step = held.of === kept ? held.step : kept
  const latest = useRef(step)
  const hold = (next: MatterStep) => {
    latest.current = next
    setHeld({ of: kept, step: next })
  }
  const done = () => latest.current !== kept && onChange(latest.current)
  const [isWhole, setWhole] = useState(false)
  const rows = valuesOfKind(step.kind)
  const all = fieldsOf(step)
  const shown = isWhole ? all : all.filter(({ isFirst }) => isFirst)
  return (
    <View style={{ paddingHorizontal: 12, paddingBottom: 12, gap: 8 }}>
      {step.curve && <SpeedCurve seconds={seconds} points={step.curve} onSlide={(curve) => hold({ ...step, curve })} onDone={done} />}
      {shown.map(({ value, label, unit, step: by, times = 1, power, neutral }) => {
        const row = rows[value]!
        return (
          <Slider
            key={value}
            label={label}
            value={times * (step.values[value] ?? row.usual)}
            min={times * row.least}
            max={times * row.most}
            step={by}
            unit={unit}
            {...(power === undefined ? {} : { power })}
            {...(neutral === undefined ? {} : { neutral: times * neutral })}
            onSlide={(given) =>
              hold({ ...step, values: { ...step.values, [value]: Math.min(row.most, Math.max(row.least, given / times)) } })
            }
            onDone={done}
          />
        )
      })}
      {clipped && isWhole && <PartStrip clipped={clipped} part={step.part} onSlide={(part) => hold(withPart(step, part))} onDone={done} />}
      {!clipped && isWhole && (
        <Text look="small" tone="muted">
          It works on all of each clip. To work on a part, choose one turn above.
        </Text>
      )}
      {!isWhole && <Button label="All of it" kind="quiet" onPress={() => setWhole(true)} />}
    </View>
  )
}

function withPart({ part: _before, ...step }: MatterStep, part: MatterStep['part']): MatterStep {
  return part ? { ...step, part } : step
}
