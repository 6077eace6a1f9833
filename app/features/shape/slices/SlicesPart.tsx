import type { Clip, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { slicedAt } from '@heliaster/core/slices'
import { View } from 'react-native'

import { makeId } from '../../../documents/make-id'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { TOUCH } from '../../../ui/theme/theme'
import { usePlace } from '../whom/place'
import type { ShapeTarget } from '../whom/target'
import type { PlacedProps } from './placed'
import { clipEdits, slicedAlike } from './slice-edits'
import { SlicesDrawn } from './SlicesDrawn'
import { SliceStart } from './SliceStart'
import type { Slices } from './slices-view'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

const isSliced = ({ slices = [] }: Clip): boolean => slices.length > 1

/** Parts of a clip with levels, places, tunings and sends of their own, drawn over its wave. */
export function SlicesPart({ kit, pad, target, onEdits, onDone }: Props) {
  const { place, hold, isHeld } = usePlace(pad, target, isSliced)
  if (!place) return <Text tone="muted">There is no clip here that could be sliced.</Text>
  const onClips = (change: (clip: Clip) => Clip) => {
    hold(place.turnId)
    onEdits(clipEdits(pad, place, target.whom.kind === 'ray', change))
  }
  const onSlices = (slices: Slices) => onClips((clip) => slicedAlike(place.clip, slices, clip))
  const sampleRateHz = kit.audio[place.clip.audio]?.sampleRateHz ?? 48000
  const all = { kit, pad, place, sampleRateHz, onSlices, onClips, onDone }
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: TOUCH }}>
        <Text look="small" tone="muted" style={{ flex: 1 }}>
          {`The clip of ${place.words}`}
        </Text>
        {isHeld && <Button label="The one heard last" onPress={() => hold(undefined)} />}
      </View>
      {isSliced(place.clip) ? <SlicesDrawn key={`${place.turnId} ${place.rayId}`} {...all} /> : <Unsliced {...all} />}
    </>
  )
}

function Unsliced({ kit, place: { clip }, sampleRateHz, onSlices, onDone }: PlacedProps) {
  return (
    <>
      <Text look="strong">A loop, or hits in one recording?</Text>
      <Text tone="muted">
        Cut into slices, each of its parts has a level, a place, a tuning and sends of its own: only the snares get the room.
      </Text>
      <SliceStart
        kit={kit}
        clip={clip}
        sampleRateHz={sampleRateHz}
        onFrames={(frames) => {
          onSlices(slicedAt(clip, frames, () => makeId<string>('slice')))
          onDone()
        }}
      />
    </>
  )
}
