import { atRandom, cleared, copied, inSteps, onEvery, pasted, setOn } from '@heliaster/core/slices'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import type { Lane } from './lanes'
import { slicePiece } from './slices-view'

interface Props {
  readonly lane: Lane
  readonly amounts: Amounts
  readonly span: SliceSpan
  /** Those that sound as the chosen one does, with it. */
  readonly alike: readonly number[]
  readonly onAmounts: (amounts: Amounts, span: SliceSpan) => void
}

/** Amounts by chance stand this many steps of the lane apart. */
const RANDOM_STEPS = 8

/** What is done to the chosen slices at one tap: as one slice to all that sound alike; else to the stretch, or to all where one alone is chosen. */
export function SliceActs({ lane, amounts, span, alike, onAmounts }: Props) {
  const piece = useStore(slicePiece)
  const isOne = span.first === span.last
  const wide = isOne ? { first: 0, last: amounts.length - 1 } : span
  const top = lane.hasOff ? 0 : lane.most
  const foot = lane.hasOff ? -24 : lane.least
  const isUsable = piece !== undefined && piece.least === lane.least && piece.most === lane.most
  const keep = () => slicePiece.setState({ piece: copied(amounts, span), least: lane.least, most: lane.most }, true)
  const fit = { least: foot, most: top, step: (top - foot) / RANDOM_STEPS }
  const off = lane.hasOff ? -120 : lane.least
  const acts: readonly (readonly [string, () => Amounts])[] = [
    ['At random', () => atRandom(amounts, wide, fit, Math.random)],
    ['Every 2nd', () => onEvery(amounts, wide, 2, top, off)],
    ['Up in steps', () => inSteps(amounts, wide, foot, top)],
    ['Down in steps', () => inSteps(amounts, wide, top, foot)],
  ]
  return (
    <>
      {isOne && alike.length > 1 && (
        <Button
          label={`The same on all ${alike.length} that sound alike`}
          icon="approximately-equal"
          onPress={() => onAmounts(setOn(amounts, alike, amounts[span.first]), span)}
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label="Cut"
          onPress={() => {
            keep()
            onAmounts(cleared(amounts, span), span)
          }}
        />
        <Button label="Copy" onPress={keep} />
        <Button
          label="Lay down"
          disabled={!isUsable}
          onPress={() => {
            if (!isUsable) return
            const last = Math.min(amounts.length, span.first + piece.piece.length) - 1
            onAmounts(pasted(amounts, span.first, piece.piece), { first: span.first, last })
          }}
        />
        <Button label="Take off" onPress={() => onAmounts(cleared(amounts, span), span)} />
      </View>
      <Text look="label" tone="muted">
        {isOne ? 'All slices' : `Slices ${span.first + 1} to ${span.last + 1}`}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {acts.map(([label, act]) => (
          <Button key={label} label={label} onPress={() => onAmounts(act(), span)} />
        ))}
      </View>
    </>
  )
}
