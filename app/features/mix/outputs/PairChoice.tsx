import type { Bus } from '@heliaster/core/kit'
import { useStore } from 'zustand'

import type { Outputs } from '../../../audio/engine/outputs-later'
import { Chips } from '../../../ui/controls/Chips'
import { useOutputs } from './use-outputs'

interface Props {
  readonly bus: Bus
  readonly label: string
}

/** By which outputs of this device a bus leaves; nothing where the device has one pair alone. */
export function PairChoice(props: Props) {
  const outputs = useOutputs()
  return outputs ? <Pairs {...props} outputs={outputs} /> : null
}

function Pairs({ bus, label, outputs }: Props & { readonly outputs: Outputs }) {
  const { choosePair, outputChoice, outputState, pairsOf, pairWords } = outputs
  const channels = useStore(outputState, (state) => state.channels)
  const chosen = useStore(outputChoice, (state) => state.pairs[bus.id] ?? 0)
  const pairs = pairsOf(channels)
  if (pairs.length === 0) return null
  const options = [{ value: '0', text: 'With the mix' }, ...pairs.map((pair) => ({ value: String(pair), text: pairWords(pair) }))]
  return (
    <Chips
      label={label}
      isOneLine
      options={options}
      value={pairs.includes(chosen) ? String(chosen) : '0'}
      onChoose={(pair) => choosePair(bus.id, Number(pair))}
    />
  )
}
