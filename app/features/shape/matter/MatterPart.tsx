import type { AudioHash, Clip, Kit, KitEdit, MatterStep, Pad } from '@heliaster/core/kit'
import { clipsOfPad, mapClips, padSettings } from '@heliaster/core/kit'
import { isWorked } from '@heliaster/core/matter'
import { useEffect, useState } from 'react'
import { Pressable, View } from 'react-native'
import { useStore } from 'zustand'

import { workedMatter } from '../../../audio/engine/worked'
import { missingAudio } from '../../../audio/files/audio-files'
import { followEdits } from '../../../kit-view/follow-note'
import { Button } from '../../../ui/controls/Button'
import { Part } from '../../../ui/layout/Part'
import { Row } from '../../../ui/layout/Row'
import { Text } from '../../../ui/layout/Text'
import { TOUCH } from '../../../ui/theme/theme'
import type { DrawnHit } from '../chart/use-drawn-hit'
import { clipsOf } from '../whom/clips-of'
import { hearAsLoud } from '../whom/hear-as-loud'
import type { ShapeTarget } from '../whom/target'
import { CastPart } from './CastPart'
import { whyNoNote } from './follow-words'
import { alike, madeStep, stepsShown, withOneMore, withSteps } from './matter-edits'
import { PartingPart } from './PartingPart'
import { StepCard } from './StepCard'
import { needs } from './step-words'
import { useRecordedClip } from './use-clip'
import { WorkingLine } from './WorkingLine'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly drawn: DrawnHit | undefined
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

const MOST_STEPS = 32

const asRecorded = ({ process: _worked, ...clip }: Clip): Clip => clip

/** A hit's matter, step by step, in the order in which it is worked: one clear way to each need, and before and after at one loudness. */
export function MatterPart(props: Props) {
  const { kit, pad, target, drawn, onEdits, onDone } = props
  const [open, setOpen] = useState<string>()
  const [isAdding, setAdding] = useState(false)
  const places = clipsOf(target.pads, target.whom)
  const first = places[0]
  const recorded = useRecordedClip(first?.clip)
  if (!first) return <Text tone="muted">There is no clip here whose matter could be worked.</Text>
  const steps = stepsShown(places)
  const rayIds = [...new Set(places.map(({ rayId }) => rayId))]
  const same = alike(places)
  const edit = (edits: KitEdit[]) => {
    onEdits(edits)
    onDone()
  }
  const change = (next: readonly MatterStep[]) => edit(withSteps(same, next))
  const seconds = (first.clip.endFrame - first.clip.startFrame) / (recorded?.rateHz ?? 48000)
  const isOne = new Set(places.map(({ clip }) => `${clip.audio} ${clip.startFrame} ${clip.endFrame}`)).size === 1
  const clipped = isOne && recorded ? { clip: first.clip, rateHz: recorded.rateHz, seconds, levels: recorded.levels } : undefined
  const others = places.length - same.length
  const isOffered = isAdding || steps.length === 0
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Text look="small" tone="muted" style={{ flex: 1 }}>
          {others > 0 ? `${others} of ${places.length} clips ${others === 1 ? 'is' : 'are'} worked otherwise and ${others === 1 ? 'stays' : 'stay'} so. A further step comes to all.` : `Works ${places.length === 1 ? 'this clip' : `all ${places.length} clips`}. The recording stays as it is.`}
        </Text>
        <Button label="As recorded" icon="volume-high" disabled={!clipsOfPad(target.drawn).some(isWorked)} onPress={() => void hearAsLoud(kit, mapClips(target.drawn, asRecorded), drawn)} />
      </View>
      <WorkingLine />
      <Refusal kit={kit} place={first} />
      {steps.map((step, place) => (
        <StepCard
          key={step.id}
          step={step}
          clipped={clipped}
          seconds={seconds}
          why={whyNoNote(kit, pad, rayIds, step)}
          isOpen={open === step.id}
          onOpen={() => setOpen(open === step.id ? undefined : step.id)}
          onChange={(next) => change(steps.map((one, i) => (i === place ? next : one)))}
          onTakeOut={() => change(steps.filter((_, i) => i !== place))}
        />
      ))}
      {!isOffered && (
        <View style={{ flexDirection: 'row' }}>
          <Button label="Work it further" icon="plus" disabled={places.some(({ clip }) => (clip.process?.length ?? 0) >= MOST_STEPS)} onPress={() => setAdding(true)} />
        </View>
      )}
      {isOffered && (
        <Offers
          onChoose={(need) => {
            const step = madeStep(need.step(seconds, kit.tempoBpm))
            setAdding(false)
            setOpen(step.id)
            edit([...withOneMore(places, step), ...(step.values.sameLength ? target.pads.flatMap((one) => followEdits(one, padSettings(kit, one), rayIds)) : [])])
          }}
        />
      )}
      <PartingPart {...props} recorded={recorded} />
      <CastPart kit={kit} pad={pad} />
    </>
  )
} // prettier-ignore

/** All needs, with what each does to the hit. */
function Offers({ onChoose }: { readonly onChoose: (need: (typeof needs)[number]) => void }) {
  return (
    <Part name="What should it be?">
      <View role="list">
        {needs.map((need) => (
          <Row key={need.name}>
            <Pressable
              role="button"
              aria-label={need.name}
              onPress={() => onChoose(need)}
              style={{ flex: 1, minHeight: TOUCH, paddingVertical: 4, justifyContent: 'center' }}
            >
              <Text look="strong">{need.name}</Text>
              <Text look="small" tone="muted">
                {need.does}
              </Text>
            </Pressable>
          </Row>
        ))}
      </View>
    </Part>
  )
}

/** Why a clip's matter is not worked, where it is not. */
function Refusal({ kit, place }: { readonly kit: Kit; readonly place: ReturnType<typeof clipsOf>[number] }) {
  const missing = useStore(missingAudio)
  const [worked, setWorked] = useState<AudioHash>()
  useEffect(() => {
    let gone = false
    void workedMatter().then(({ workedClip }) => !gone && setWorked(workedClip(kit, place.clip).audio))
    return () => {
      gone = true
    }
  }, [kit, place.clip])
  const reason = worked && missing[worked]
  return reason ? <Text tone="coral">{reason}</Text> : null
}
