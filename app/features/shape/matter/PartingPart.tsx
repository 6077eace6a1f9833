import { padSettings } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit, MatterKind, Pad, Ray } from '@heliaster/core/kit'
import { canPart, partingStart, partRay } from '@heliaster/core/matter'
import type { PartingStart } from '@heliaster/core/matter'
import { useState } from 'react'
import { View } from 'react-native'

import { hearClip } from '../../../audio/engine/sound'
import { makeId } from '../../../documents/make-id'
import { ownRoot } from '../../../kit-view/follow-note'
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
  const [chosenRoot, setChosenRoot] = useState<number>()
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
  const pitch = recorded?.pitch
  const pitchNote = pitch && nearestNote(pitch.hz, kit.tuningA4Hz).note
  const root = chosenRoot ?? ownRoot(pad, settings)
  const hear = (kind: MatterKind) => void hearClip(withStep(place.clip, kind, start))
  return (
    <Part name="Ringing and noise">
      {recorded && <PartingPicture mono={recorded.mono} rateHz={recorded.rateHz} start={start} />}
      <Slider label="Below this all rings" value={start.divideHz} min={0} max={20000} step={1} power={3} unit="Hz" onSlide={(divideHz) => setStart({ ...start, divideHz })} onDone={() => undefined} />
      <Slider label="Rings if steady for" value={start.steadyMs} min={10} max={500} step={1} power={2} unit="ms" onSlide={(steadyMs) => setStart({ ...start, steadyMs })} onDone={() => undefined} />
      <Text look="small" tone="muted">
        {pitch ? `Its ringing is at ${pitch.hz.toFixed(1)} Hz, ${noteName(pitchNote!)}, ${sureWords(pitch.confidence)}.` : 'Its pitch is not sure.'} It follows the note at one length; the noise keeps its pitch.
      </Text>
      <Slider label="Sounds as recorded at" value={root} min={0} max={127} step={1} unit={noteName(root)} onSlide={setChosenRoot} onDone={() => undefined} />
      {pitchNote !== undefined && pitchNote !== root && (
        <View style={{ flexDirection: 'row' }}>
          <Button label={`At its own pitch, ${noteName(pitchNote)}`} kind="quiet" onPress={() => setChosenRoot(pitchNote)} />
        </View>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Hear ringing" icon="volume-high" onPress={() => hear('ringing')} />
        <Button label="Hear noise" icon="volume-high" onPress={() => hear('noise')} />
        <Button
          label="Make two rays"
          kind="main"
          onPress={() => {
            onEdits(partRay(makeId, pad, ray.id, start, root))
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
