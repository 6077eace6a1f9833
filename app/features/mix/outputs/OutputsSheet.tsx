import type { Kit } from '@heliaster/core/kit'
import { useEffect } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import type { Outputs } from '../../../audio/engine/outputs-later'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { PairChoice } from './PairChoice'
import { useOutputs } from './use-outputs'

interface Props {
  readonly kit: Kit
  readonly onClose: () => void
}

/** By which output of this computer the kit sounds, and which buses leave by pairs of their own. */
export function OutputsSheet({ kit, onClose }: Props) {
  const outputs = useOutputs()
  return (
    <Sheet title="Outputs" isOpen onClose={onClose}>
      {outputs && <Choices kit={kit} outputs={outputs} />}
    </Sheet>
  )
}

function Choices({ kit, outputs }: Pick<Props, 'kit'> & { readonly outputs: Outputs }) {
  const { askForNames, canChooseOutput, chooseOutput, findOutputs, outputChoice, outputState, pairsOf } = outputs
  const { channels, devices, problem } = useStore(outputState)
  const deviceId = useStore(outputChoice, (state) => state.deviceId)
  useEffect(() => {
    void findOutputs()
    const look = () => void findOutputs()
    navigator.mediaDevices?.addEventListener?.('devicechange', look)
    return () => navigator.mediaDevices?.removeEventListener?.('devicechange', look)
  }, [findOutputs])
  const isThere = devices.some(({ id }) => id === deviceId)
  return (
    <>
      {canChooseOutput() && devices.length > 1 ? (
        <Chips
          label="Sounds by"
          options={devices.map(({ id, name }) => ({ value: id, text: name }))}
          value={isThere ? deviceId : ''}
          onChoose={(id) => void chooseOutput(id)}
        />
      ) : (
        <>
          <Text tone="muted">
            {canChooseOutput()
              ? 'It sounds where the computer plays. The browser names other outputs once this page may use a microphone; nothing is recorded.'
              : 'This browser sounds where the computer plays; choose the output there.'}
          </Text>
          {canChooseOutput() && (
            <View style={{ flexDirection: 'row' }}>
              <Button label="Name the outputs" onPress={() => void askForNames()} />
            </View>
          )}
        </>
      )}
      {problem && (
        <Text tone="coral" role="alert">
          {problem}
        </Text>
      )}
      <Text look="strong">{channels > 2 ? `${channels} channels` : 'Two channels'}</Text>
      <Text tone="muted">{wordsOf(pairsOf(channels).length, kit.buses.length)}</Text>
      {kit.buses.map((bus) => (
        <PairChoice key={bus.id} bus={bus} label={bus.name} />
      ))}
    </>
  )
}

function wordsOf(pairs: number, buses: number): string {
  if (pairs === 0) return 'Everything leaves by them. On an output with more channels each bus can leave by a pair of its own.'
  if (buses === 0) return 'Make a bus or a return first: it can leave by a pair of its own, beside the mix on outputs 1 and 2.'
  return 'The mix is on outputs 1 and 2. A bus on a pair of its own leaves the mix: its own fader and effects are heard there, those of the whole kit are not. This is kept for this device.'
}
