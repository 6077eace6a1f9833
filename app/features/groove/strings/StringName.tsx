import type { GrooveString } from '@heliaster/core/kit'
import { Pressable } from 'react-native'

import { Text } from '../../../ui/layout/Text'
import { ROW_PX } from './strings-layout'

interface Props {
  readonly name: string
  readonly string: GrooveString
  readonly top: number
  readonly onPress: () => void
}

/** The pad's name before its string, with what the string has of its own; leads to what can be done with all of it. */
export function StringName({ name, string, top, onPress }: Props) {
  const own = ownTiming(string)
  return (
    <Pressable
      role="button"
      aria-label={`${name}: its string${own ? `, ${own}` : ''}`}
      onPress={onPress}
      style={{ position: 'absolute', top, left: 0, right: 0, height: ROW_PX, justifyContent: 'center', paddingLeft: 14, paddingRight: 2 }}
    >
      <Text look="label" numberOfLines={own ? 1 : 2} tone={string.beads.length > 0 ? 'ink' : 'muted'} style={{ fontSize: 13, lineHeight: 15 }}>
        {name}
      </Text>
      {own && (
        <Text look="figures" tone="muted" numberOfLines={1} style={{ fontSize: 11, lineHeight: 14 }}>
          {ownTimingShort(string)}
        </Text>
      )}
    </Pressable>
  )
} // prettier-ignore

type Own = Pick<GrooveString, 'lengthSteps' | 'stepsPerBeat' | 'swing'>

const swingWords = ({ swing }: Own) => (swing === undefined ? [] : [`${(100 * swing).toFixed(0)} %`])

/** What a string has of its own, in words. */
export function ownTiming({ lengthSteps, stepsPerBeat, ...rest }: Own): string | undefined {
  const length = lengthSteps === undefined ? [] : [`${lengthSteps} steps`]
  const division = stepsPerBeat === undefined ? [] : [`${stepsPerBeat} a beat`]
  const said = [...length, ...division, ...swingWords(rest)]
  return said.length > 0 ? said.join(', ') : undefined
}

/** The same in short: `12 of 3` are twelve steps of three to a beat. */
export function ownTimingShort(own: Own): string | undefined {
  const { lengthSteps, stepsPerBeat } = own
  if (lengthSteps === undefined || stepsPerBeat === undefined) return ownTiming(own)
  return [`${lengthSteps} of ${stepsPerBeat}`, ...swingWords(own)].join(', ')
}
