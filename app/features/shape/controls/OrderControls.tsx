import type { OwnSettings, PadSettings, Stage } from '@heliaster/core/kit'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Row } from '../../../ui/layout/Row'
import { Text } from '../../../ui/layout/Text'

const NAMES: Readonly<Record<Stage, string>> = {
  transient: 'Attack and tail',
  drive: 'Drive',
  crush: 'Dirt',
  filter1: 'Filter',
  filter2: 'Second filter',
}

interface Props {
  readonly settings: PadSettings
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
}

/** In which order a strike passes what is set, from the first to the last; offered once there are two. */
export function OrderControls({ settings, onChange, onDone }: Props) {
  const passed = settings.order.filter((stage) => doesSomething(settings, stage))
  if (passed.length < 2) return null
  const bringForward = (stage: Stage) => {
    const before = passed[passed.indexOf(stage) - 1]
    const rest = settings.order.filter((one) => one !== stage)
    rest.splice(rest.indexOf(before), 0, stage)
    onChange({ order: rest })
    onDone()
  }
  return (
    <View role="list" aria-label="In this order" style={{ gap: 4 }}>
      <Text look="label" tone="muted">
        In this order
      </Text>
      {passed.map((stage, i) => (
        <Row key={stage} hasLine={false}>
          <Text look="figures" tone="muted" style={{ width: 24 }}>
            {i + 1}
          </Text>
          <Text style={{ flex: 1 }}>{NAMES[stage]}</Text>
          {i > 0 && <Button label={`Before ${NAMES[passed[i - 1]].toLowerCase()}`} onPress={() => bringForward(stage)} />}
        </Row>
      ))}
    </View>
  )
}

function doesSomething({ values, choices }: PadSettings, stage: Stage): boolean {
  switch (stage) {
    case 'transient':
      return values.attackDb !== 0 || values.tailDb !== 0
    case 'drive':
      return values.driveDb > 0
    case 'crush':
      return values.crush > 0
    default:
      return choices[`${stage}Kind`] !== 'off'
  }
}
