import type { Kit } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { chosenGroove, grooveState, toggleGroove } from '../../audio/playing/groove-player'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { More } from '../../ui/layout/More'
import { BalanceSheet } from './hearing/BalanceSheet'
import { HidesSheet } from './hearing/HidesSheet'
import { OutputsSheet } from './outputs/OutputsSheet'
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

/** The groove plays while levels are set; in which order they stand; balance, and who hides whom. */
export function MixBar({ kit, isLoudFirst, onLoudFirst }: Props) {
  const isWide = useIsWide()
  const isPlaying = useStore(grooveState, (state) => state.playing)
  const grooveId = useStore(grooveState, (state) => state.grooveId)
  const [open, setOpen] = useState<'balance' | 'hides' | 'outputs'>()
  const close = () => setOpen(undefined)
  const groove = chosenGroove(kit, grooveId)
  const hasBeads = kit.grooves.some(({ strings }) => strings.some(({ beads }) => beads.length > 0))
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 12, paddingHorizontal: isWide ? 16 : 10, paddingTop: 6 }}>
      <Button label={isPlaying ? 'Stop' : 'Play'} kind={isPlaying ? 'coral' : 'main'} icon={isPlaying ? 'stop' : 'play'} disabled={!hasBeads} onPress={() => toggleGroove(kit.id)} style={isWide ? { minWidth: 116 } : {}} />
      <View style={{ flex: 1, minWidth: 0 }}>
        <Chips label="Order of pads" hideLabel isOneLine options={ORDERS} value={isLoudFirst ? 'loud' : 'board'} onChoose={(order) => onLoudFirst(order === 'loud')} />
      </View>
      {isWide ? (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <Button label="Balance" onPress={() => setOpen('balance')} />
          <Button label="Who hides whom" onPress={() => setOpen('hides')} />
          <Button label="Outputs" onPress={() => setOpen('outputs')} />
        </View>
      ) : (
        <More
          title="The mix"
          kind="quiet"
          acts={[
            { label: 'Balance: levels that would suit', icon: 'approximately-equal', onPress: () => setOpen('balance') },
            { label: 'Who hides whom', icon: 'ear-hearing', onPress: () => setOpen('hides') },
            { label: 'Outputs of this device', icon: 'speaker-multiple', onPress: () => setOpen('outputs') },
          ]}
        />
      )}
      {open === 'balance' && <BalanceSheet kit={kit} groove={groove} onClose={close} />}
      {open === 'outputs' && <OutputsSheet kit={kit} onClose={close} />}
      {open === 'hides' && <HidesSheet kit={kit} groove={groove} onClose={close} />}
    </View>
  )
} // prettier-ignore
