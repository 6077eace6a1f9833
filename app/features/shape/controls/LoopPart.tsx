import type { Clip, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { View } from 'react-native'

import { decodedAudio } from '../../../audio/files/audio-files'
import { hearSeam } from '../../../kit-view/loop/hear-seam'
import { LoopControls } from '../../../kit-view/loop/LoopControls'
import { Button } from '../../../ui/controls/Button'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'
import { TOUCH } from '../../../ui/theme/theme'
import { usePlace } from '../whom/place'
import type { ShapeTarget } from '../whom/target'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

/**
 * The stretch of a clip that goes round, drawn on its wave: of the one heard last, until one is changed. That one stays, since each
 * change is heard, and the next strike may take another turn.
 */
export function LoopPart({ kit, pad, target, onEdits, onDone }: Props) {
  const { place, hold, isHeld } = usePlace(pad, target)
  if (!place) return null
  const { clip, turnId, rayId, words } = place
  const sampleRateHz = kit.audio[clip.audio]?.sampleRateHz ?? 48000
  const { level } = target.settings.envelopes
  return (
    <Part name="Goes round">
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: TOUCH }}>
        <Text look="small" tone="muted" style={{ flex: 1 }}>
          {`The clip of ${words}`}
        </Text>
        {isHeld && <Button label="The one heard last" onPress={() => hold(undefined)} />}
      </View>
      <LoopControls
        clip={clip}
        isAlone={false}
        sampleRateHz={sampleRateHz}
        mode={target.settings.mode}
        fallsSilent={(level.points[level.points.length - 1]?.value ?? 1) <= 0}
        audioOf={async () => (await decodedAudio(clip.audio)).audio}
        onHearSeam={() => hearSeam(pad, clip, sampleRateHz)}
        onSlide={(loop) => {
          hold(turnId)
          onEdits([{ type: 'setClip', padId: pad.id, turnId, rayId, clip: withLoop(clip, loop) }])
        }}
        onDone={onDone}
      />
    </Part>
  )
}

function withLoop({ loop: _before, ...clip }: Clip, loop: Clip['loop']): Clip {
  return loop ? { ...clip, loop } : clip
}
