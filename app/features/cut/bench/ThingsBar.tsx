import type { Pad } from '@heliaster/core/kit'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Star } from '../../../ui/drawing/Star'
import { Text } from '../../../ui/layout/Text'
import type { CutHit } from './use-source-cut'
import { MOST_ALIKE, thingWords } from './use-things'
import type { Things } from './use-things'

interface Props {
  readonly hits: readonly CutHit[]
  readonly rate: number
  readonly things: Things | undefined
  /** What each thing becomes. */
  readonly pads: readonly Pad[]
  readonly onHear: (item: CutHit) => void
}

/** How many things were struck, as it is heard, and one more or one less. */
export function ThingsBar({ hits, rate, things, pads, onHear }: Props) {
  if (!things)
    return (
      <Text look="small" tone="muted" role="status">
        {whyNone(hits.length)}
      </Text>
    )
  const [fewer, more] = [things.change(-1), things.change(1)]
  return (
    <View style={{ gap: 8 }}>
      <Text look="strong" role="status">
        {thingWords(things.groups)}
      </Text>
      {(fewer ?? more) && (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <Button label="One thing less" disabled={!fewer} onPress={() => fewer?.()} />
          <Button label="One more" disabled={!more} onPress={() => more?.()} />
        </View>
      )}
      {things.groups.slice(0, MOST_ROWS).map((group, i) => (
        <ThingRow
          key={group[0]}
          group={group}
          hits={hits}
          rate={rate}
          star={pads[i] && <Star size={36} turns={pads[i].bands.map(({ turns }) => turns.length)} />}
          onHear={onHear}
        />
      ))}
      {things.groups.length > MOST_ROWS && <Text tone="muted">{`and ${things.groups.length - MOST_ROWS} more`}</Text>}
    </View>
  )
}

const MOST_ROWS = 24
const MOST_TIMES = 4

interface RowProps extends Pick<Props, 'hits' | 'rate' | 'onHear'> {
  readonly group: readonly number[]
  readonly star: ReactNode
}

/** One thing: the pad it becomes, when it was struck, and how each time sounds, one after another with each tap. */
function ThingRow({ group, hits, rate, star, onHear }: RowProps) {
  const [next, setNext] = useState(0)
  const times = group.slice(0, MOST_TIMES).map((at) => {
    return (hits[at].marker.frame / rate).toFixed(1)
  })
  const hear = () => {
    onHear(hits[group[next % group.length]])
    setNext(next + 1)
  }
  const name = group.length === 1 ? 'Once' : `${group.length} times`
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
      {star}
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text look="label">{name}</Text>
        <Text look="figures" tone="muted" numberOfLines={1} style={{ fontSize: 12 }}>
          {`at ${times.join(', ')}${group.length > MOST_TIMES ? ' ...' : ''} s`}
        </Text>
      </View>
      <IconButton name="play-outline" label={`Hear what was struck at ${times[0]} s`} onPress={hear} />
    </View>
  )
}

function whyNone(count: number): string {
  if (count < 2) return 'One hit has nothing to be like.'
  if (count > MOST_ALIKE) return `More than ${MOST_ALIKE} hits are not compared. Pass some, or show fewer with the water line.`
  return 'The hits are being compared.'
}
