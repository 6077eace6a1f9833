import { padSettings } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit, MatterKind, Pad, Ray } from '@heliaster/core/kit'
import { canPart, partingStart, partRay } from '@heliaster/core/matter'
import type { PartingStart } from '@heliaster/core/matter'
import { useState } from 'react'
import { View } from 'react-native'

import { hearClip } from '../../../audio/engine/sound'
import { makeId } from '../../../documents/make-id'
import { nearestNote, useNoteName } from '../../../kit-view/note-name'
import { Button } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'
import { clipsOf } from '../whom/clips-of'
import type { ShapeTarget } from '../whom/target'
import { madeStep } from './matter-edits'
import { PartingPicture } from './PartingPicture'
import type { RecordedClip } from './use-clip'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly recorded: RecordedClip | undefined
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

/** The ray that is meant: the one that is shaped, or the only one that can be parted. */
function rayOf(pad: Pad, { whom }: ShapeTarget): Ray | undefined {
  if (whom.kind === 'ray') return pad.rays.find(({ id }) => id === whom.rayId && canPart(pad, id))
  const able = pad.rays.filter(({ id }) => canPart(pad, id))
  return whom.kind === 'pad' && able.length === 1 ? able[0] : undefined
}

/** A hit divided into its ringing and its noise: seen in two colours, heard apart, made two rays. */
export function PartingPart({ kit, pad, target, recorded, onEdits, onDone }: Props) {
  const [isOpen, setOpen] = useState(false)
  const settings = padSettings(kit, pad)
  const [start, setStart] = useState<PartingStart>(() => partingStart(settings.family))
  const noteName = useNoteName()
  const ray = rayOf(pad, target)
  const place = ray && clipsOf([pad], { kind: 'ray', rayId: ray.id })[0]
  if (!ray || !place)
    return target.whom.kind === 'pad' && pad.rays.some(({ id }) => canPart(pad, id)) ? (
      <Text look="small" tone="muted">
        Choose one ray above to divide it into its ringing and its noise.
      </Text>
    ) : null
  if (!isOpen)
    return (
      <View style={{ flexDirection: 'row' }}>
        <Button label="Part it: ringing and noise" icon="vector-curve" onPress={() => setOpen(true)} />
      </View>
    )
  const root = recorded?.pitch && nearestNote(recorded.pitch.hz, kit.tuningA4Hz).note
  const hear = (kind: MatterKind) => void hearClip(withStep(place.clip, kind, start))
  return (
    <Part name="Ringing and noise">
      {recorded && <PartingPicture mono={recorded.mono} rateHz={recorded.rateHz} start={start} />}
      <Slider label="Below this all rings" value={start.divideHz} min={0} max={20000} step={1} power={3} unit="Hz" onSlide={(divideHz) => setStart({ ...start, divideHz })} onDone={() => undefined} />
      <Slider label="Rings if steady for" value={start.steadyMs} min={10} max={500} step={1} power={2} unit="ms" onSlide={(steadyMs) => setStart({ ...start, steadyMs })} onDone={() => undefined} />
      <Text look="small" tone="muted">
        {recorded?.pitch
          ? `Its ringing is at ${recorded.pitch.hz.toFixed(1)} Hz, ${noteName(root!)}, ${sureWords(recorded.pitch.confidence)}. It will follow the note from there, at one length; the noise keeps its pitch.`
          : 'Its pitch is not sure: the ringing follows the note from the root that the pad has. Set that under its notes.'}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Hear the ringing" icon="volume-high" onPress={() => hear('ringing')} />
        <Button label="Hear the noise" icon="volume-high" onPress={() => hear('noise')} />
        <Button
          label="Make two rays"
          kind="main"
          onPress={() => {
            onEdits(partRay(makeId, pad, ray.id, start, settings.rootNote === undefined ? root : undefined))
            onDone()
            setOpen(false)
          }}
        />
      </View>
    </Part>
  )
} // prettier-ignore

const withStep = (clip: Clip, kind: MatterKind, { divideHz, steadyMs }: PartingStart): Clip => ({
  ...clip,
  process: [...(clip.process ?? []), madeStep({ kind, values: { divideHz, steadyMs } })],
})

const sureWords = (confidence: number) => (confidence > 0.8 ? 'surely' : confidence > 0.5 ? 'most likely' : 'perhaps')
