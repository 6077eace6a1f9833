import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { LAYERS } from './use-envelope'
import type { EnvelopeWork } from './use-envelope'

interface Props {
  readonly envelope: EnvelopeWork
  /** Told when one is begun, so that its numbers are shown. */
  readonly onEnvelopes?: () => void
}

/** Which envelope is drawn on; and, where there is none, the way to begin it. */
export function EnvelopeBar({ envelope, onEnvelopes }: Props) {
  const { layer, layers } = envelope
  const begin = () => {
    envelope.begin()
    onEnvelopes?.()
  }
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', justifyContent: 'space-between', gap: 8 }}>
      <Chips label="Envelope" hideLabel options={layers} value={layer} onChoose={envelope.setLayer} />
      {envelope.envelope.points.length === 0 && (
        <Button label={LAYERS.find(({ value }) => value === layer)!.begin} kind="main" onPress={begin} />
      )}
    </View>
  )
}
