import { slicedAt, spanOf } from '@heliaster/core/slices'
import type { SliceSpan } from '@heliaster/core/slices'
import { View } from 'react-native'

import { makeId } from '../../../documents/make-id'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import type { PlacedProps } from './placed'
import { SliceStart } from './SliceStart'
import type { Slices } from './slices-view'

type CutProps = PlacedProps & { readonly slices: Slices; readonly span: SliceSpan; readonly choose: (span: SliceSpan) => void }

/** What is done to borders at one tap. */
export function CutActs({ kit, place, sampleRateHz, onSlices, onDone, slices, span, choose }: CutProps) {
  const { clip } = place
  const put = (next: Slices) => {
    onSlices(next)
    onDone()
  }
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label="Join with the one before"
          disabled={span.first === 0}
          onPress={() => {
            const left = slices.filter((_, i) => i !== span.first)
            choose(spanOf(span.first - 1, span.first - 1))
            put(left.length > 1 ? left : [])
          }}
        />
        <Button label="No slices" onPress={() => put([])} />
      </View>
      <Text look="label" tone="muted">
        Cut anew
      </Text>
      <SliceStart
        kit={kit}
        clip={clip}
        sampleRateHz={sampleRateHz}
        onFrames={(frames) => {
          choose(spanOf(0, 0))
          put(slicedAt(clip, frames, () => makeId<string>('slice')))
        }}
      />
    </>
  )
}
