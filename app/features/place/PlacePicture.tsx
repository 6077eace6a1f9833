import type { Pad } from '@heliaster/core/kit'
import type { NamePlan, PlannedPad } from '@heliaster/core/place'
import { View } from 'react-native'

import { Star } from '../../ui/Star'
import { Text } from '../../ui/Text'

const MOST_STARS = 24
const MOST_LINES = 40

interface Props {
  readonly plan?: NamePlan
  readonly pads: readonly Pad[]
  readonly nameOf: (pad: Pad) => string
}

/** The pads as they would be, each as its filled star. */
export function Stars({ plan, pads, nameOf }: Props) {
  const isOne = pads.length === 1
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14, justifyContent: 'center' }} aria-label="What will be made">
      {pads.slice(0, MOST_STARS).map((pad, i) => (
        <View key={pad.id} style={{ alignItems: 'center', width: isOne ? '100%' : 92, gap: 4 }}>
          <Star size={isOne ? 150 : 64} turns={pad.bands.map((band) => band.turns.length)} />
          <Text look="label" numberOfLines={2} style={{ textAlign: 'center' }}>
            {nameOf(pad)}
          </Text>
          {plan?.pads[i] && (
            <Text look="small" tone="muted" numberOfLines={isOne ? 2 : 3} style={{ textAlign: 'center', fontSize: 12, lineHeight: 15 }}>
              {shapeWords(plan.pads[i])}
            </Text>
          )}
        </View>
      ))}
      {pads.length > MOST_STARS && <Text tone="muted">{`and ${pads.length - MOST_STARS} more`}</Text>}
    </View>
  )
}

function shapeWords({ microphones, bands }: Pick<PlannedPad, 'microphones' | 'bands'>): string {
  const turns = bands.map((band) => band.turns.length)
  const [least, most] = [Math.min(...turns), Math.max(...turns)]
  const each = bands.length > 1 ? ' each' : ''
  return [
    microphones.length > 1 ? `${microphones.length} microphones: ${microphones.join(', ')}` : '',
    bands.length > 1 ? `${bands.length} bands` : '',
    `${least === most ? most : `${least} to ${most}`} ${most === 1 ? 'turn' : 'turns'}${each}`,
  ]
    .filter(Boolean)
    .join('; ')
}

/** Cells without a file, and files without a cell, each with its reason. */
export function Gaps({ plan, names }: { readonly plan: NamePlan; readonly names: readonly string[] }) {
  const gaps = plan.pads.flatMap((pad) => pad.gaps.map((gap) => (plan.pads.length > 1 ? `${pad.name}: ${gap}` : gap)))
  if (gaps.length === 0 && plan.unplaced.length === 0) return null
  return (
    <View style={{ gap: 4 }} role="alert">
      {gaps.length > 0 && (
        <Text look="small" tone="coral">
          {`No file for ${gaps.slice(0, MOST_LINES).join('; ')}${gaps.length > MOST_LINES ? `; and ${gaps.length - MOST_LINES} more` : ''}.`}
        </Text>
      )}
      {plan.unplaced.slice(0, MOST_LINES).map(({ file, reason }) => (
        <Text key={file} look="small" tone="coral">
          {`${names[file]}: ${reason}`}
        </Text>
      ))}
      {plan.unplaced.length > MOST_LINES && <Text look="small" tone="coral">{`And ${plan.unplaced.length - MOST_LINES} more.`}</Text>}
    </View>
  )
}
