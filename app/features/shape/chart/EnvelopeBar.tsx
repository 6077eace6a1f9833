import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { LAYERS } from './use-envelope'
import type { EnvelopeWork } from './use-envelope'

interface Props {
  readonly envelope: EnvelopeWork
  /** Told when one is begun or chosen, so that its numbers are shown. */
  readonly onEnvelopes?: () => void
}

/** Which envelope is drawn on, and whether there is one. */
export function EnvelopeBar({ envelope, onEnvelopes }: Props) {
  const { layer, layers } = envelope
  const begin = () => {
    envelope.begin()
    onEnvelopes?.()
  }
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 }}>
      <Chips label="Envelope" hideLabel options={layers} value={layer} onChoose={envelope.setLayer} />
      <View style={{ flex: 1 }} />
      {envelope.envelope.points.length === 0 ? (
        <Button label={LAYERS.find(({ value }) => value === layer)!.begin} kind="main" onPress={begin} />
      ) : (
        <Button label="Remove envelope" onPress={() => envelope.put({ points: [] })} />
      )}
    </View>
  )
}
