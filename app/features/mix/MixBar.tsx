import type { Kit } from '@heliaster/core/kit'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { ALL_SOUND } from '../../audio/engine/solo'
import { soloed } from '../../audio/engine/sound'
import { grooveState, toggleGroove } from '../../audio/playing/groove-player'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { useIsWide } from '../../ui/layout/use-is-wide'

interface Props {
  readonly kit: Kit
  readonly isLoudFirst: boolean
  readonly onLoudFirst: (isLoudFirst: boolean) => void
}

const ORDERS = [
  { value: 'loud', text: 'Loud first' },
  { value: 'board', text: 'As on the Board' },
] as const

/** The groove plays while levels are set; in which order they stand; and all sounds again. */
export function MixBar({ kit, isLoudFirst, onLoudFirst }: Props) {
  const isWide = useIsWide()
  const isPlaying = useStore(grooveState, (state) => state.playing)
  const alone = useStore(soloed, ({ pads, buses, rays }) => pads.length + buses.length + rays.length)
  const hasBeads = kit.grooves.some(({ strings }) => strings.some(({ beads }) => beads.length > 0))
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 12, paddingHorizontal: isWide ? 16 : 10, paddingTop: 6 }}>
      <Button label={isPlaying ? 'Stop' : 'Play'} kind={isPlaying ? 'coral' : 'main'} icon={isPlaying ? 'stop' : 'play'} disabled={!hasBeads} onPress={() => toggleGroove(kit.id)} style={isWide ? { minWidth: 116 } : {}} />
      <View style={{ flex: 1, minWidth: 0 }}>
        <Chips label="Order of pads" hideLabel isOneLine options={ORDERS} value={isLoudFirst ? 'loud' : 'board'} onChoose={(order) => onLoudFirst(order === 'loud')} />
      </View>
      {alone > 0 && <Button label={`All sound again (${alone} alone)`} onPress={() => soloed.setState(ALL_SOUND)} />}
    </View>
  )
} // prettier-ignore
