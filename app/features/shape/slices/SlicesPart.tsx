import type { Clip, Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { amountsOf, cleared, copied, movedSpan, pasted, resizedSpan, slicedAt, spanOf, withAmounts } from '@heliaster/core/slices'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'
import { useState } from 'react'
import { View } from 'react-native'

import { hearVersion } from '../../../audio/engine/sound'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { roomEdits } from '../../../kit-view/buses/bus-edits'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'
import { TOUCH } from '../../../ui/theme/theme'
import { usePlace } from '../whom/place'
import type { Place } from '../whom/place'
import type { ShapeTarget } from '../whom/target'
import { lanesOf } from './lanes'
import type { Lane } from './lanes'
import { SliceActs } from './SliceActs'
import { InTempo } from './InTempo'
import { clipEdits, slicedAlike, sliceVersion } from './slice-edits'
import { SliceStart } from './SliceStart'
import { slicePiece } from './slices-view'
import type { Slices } from './slices-view'
import { SlicesWave } from './SlicesWave'
import { useAlike } from './use-alike'
import { edgesOf, sliceAt } from './use-slice-hand'
import type { HandMode } from './use-slice-hand'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

const MODES = [
  { value: 'draw', text: 'Draw amounts' },
  { value: 'stretch', text: 'Choose a stretch' },
  { value: 'cut', text: 'Cut slices' },
] as const

const HINTS: Record<HandMode, string> = {
  draw: 'Draw over the wave: how high is how much.',
  stretch: 'Draw over slices to choose them; drag the stretch to another place, or by its edges over more or fewer.',
  cut: 'Drag a border, or tap to cut there.',
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
      {isSliced(place.clip) ? <Drawn key={`${place.turnId} ${place.rayId}`} {...all} /> : <Unsliced {...all} />}
    </>
  )
}

interface PlacedProps {
  readonly kit: Kit
  readonly pad: Pad
  readonly place: Place
  readonly sampleRateHz: number
  readonly onSlices: (slices: Slices) => void
  readonly onClips: (change: (clip: Clip) => Clip) => void
  readonly onDone: () => void
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

function Drawn({ kit, pad, place, sampleRateHz, onSlices, onClips, onDone }: PlacedProps) {
  const { clip, rayId } = place
  const slices = [...clip.slices!].sort((a, b) => a.frame - b.frame)
  const lanes = lanesOf(kit, pad, rayId)
  const [laneKey, setLane] = useState('level')
  const [mode, setMode] = useState<HandMode>('draw')
  const [chosen, choose] = useState<SliceSpan>({ first: 0, last: 0 })
  const alike = useAlike(clip)
  const lane = lanes.find(({ key }) => key === laneKey) ?? lanes[0]!
  const most = slices.length - 1
  const span = { first: Math.min(most, chosen.first), last: Math.min(most, chosen.last) }
  const amounts = amountsOf(slices, lane.lane)
  const draw = (next: Amounts, to: SliceSpan) => {
    choose(to)
    onSlices(withAmounts(slices, lane.lane, next))
  }
  const act = (next: Amounts, to: SliceSpan) => {
    draw(next, to)
    onDone()
  }
  const cutAt = (frame: number) => {
    onSlices(slicedAt(clip, [...slices.map((slice) => slice.frame), frame], () => makeId<string>('slice')))
    const after = sliceAt(slices, frame) + 1
    choose(spanOf(after, after))
  }
  const hear = () => {
    const [startFrame, endFrame] = edgesOf(clip, slices, span)
    hearVersion(sliceVersion(pad, place, { startFrame: Math.max(clip.startFrame, startFrame), endFrame }))
  }
  return (
    <>
      <Chips label="What is drawn" hideLabel isOneLine options={lanes.map(({ key, text }) => ({ value: key, text }))} value={lane.key} onChoose={setLane} />
      {lanes.every(({ lane: one }) => one.kind !== 'send') && (
        <View style={{ flexDirection: 'row' }}>
          <Button
            label="Make a room to send to"
            icon="plus"
            onPress={() => {
              const { busId, edits } = roomEdits()
              editKit(kit.id, edits)
              setLane(busId)
            }}
          />
        </View>
      )}
      <SlicesWave
        {...{ clip, slices, sampleRateHz, lane, amounts, span, mode, onSlices, onDone }}
        onChoose={choose}
        onAmounts={draw}
        onCutAt={cutAt}
        onHear={hear}
        onKey={(key) => byKey(key, amounts, span, lane, act)}
      />
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Text look="strong" numberOfLines={1}>
            {span.first === span.last ? `Slice ${span.first + 1} of ${slices.length}` : `Slices ${span.first + 1} to ${span.last + 1} of ${slices.length}`}
          </Text>
          <Text look="small" tone="muted" numberOfLines={1}>
            {said(amounts, span, lane)}
          </Text>
        </View>
        <Button label="Hear it" icon="volume-high" onPress={hear} />
      </View>
      <Chips label="A finger here" hideLabel isOneLine options={MODES} value={mode} onChoose={setMode} />
      <Text look="small" tone="muted">
        {HINTS[mode]}
      </Text>
      {mode === 'cut' ? (
        <CutActs {...{ kit, pad, place, sampleRateHz, onSlices, onClips, onDone, slices, span, choose }} />
      ) : (
        <SliceActs lane={lane} amounts={amounts} span={span} alike={alike.find((group) => group.includes(span.first)) ?? []} onAmounts={act} />
      )}
      <InTempo {...{ kit, clip, sampleRateHz, onClips, onDone }} />
      <Text look="small" tone="muted">
        {lane.lane.kind !== 'send' ? 'A dashed line says that nothing is drawn there.' : lane.usual === 0 ? 'Where nothing is drawn, as much is sent as the ray sends.' : 'Where nothing is drawn, nothing is sent.'}
      </Text>
    </>
  )
} // prettier-ignore

type CutProps = PlacedProps & { readonly slices: Slices; readonly span: SliceSpan; readonly choose: (span: SliceSpan) => void }

/** What is done to borders at one tap. */
function CutActs({ kit, place, sampleRateHz, onSlices, onDone, slices, span, choose }: CutProps) {
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

function said(amounts: Amounts, { first, last }: SliceSpan, lane: Lane): string {
  const some = copied(amounts, { first, last })
  const set = some.filter((amount) => amount !== undefined)
  if (set.length === 0) return 'nothing drawn'
  const [least, most] = [Math.min(...set), Math.max(...set)]
  return least === most ? lane.words(least) : `${lane.words(least)} to ${lane.words(most)}`
}

type Key = Parameters<Parameters<typeof SlicesWave>[0]['onKey']>[0]

function byKey(key: Key, amounts: Amounts, span: SliceSpan, lane: Lane, act: (amounts: Amounts, span: SliceSpan) => void): void {
  const held = slicePiece.getState()
  const keep = () => slicePiece.setState({ piece: copied(amounts, span), least: lane.least, most: lane.most }, true)
  const resize = (last: number) => {
    const to = { first: span.first, last: Math.min(amounts.length - 1, Math.max(span.first, last)) }
    act(resizedSpan(amounts, span, to), to)
  }
  const move = (by: number) => {
    const moved = movedSpan(amounts, span, by)
    act(moved.amounts, moved.span)
  }
  if (key === 'cut' || key === 'copy') keep()
  if (key === 'cut' || key === 'clear') act(cleared(amounts, span), span)
  if (key === 'paste' && held && held.least === lane.least) act(pasted(amounts, span.first, held.piece), { first: span.first, last: Math.min(amounts.length, span.first + held.piece.length) - 1 }) // prettier-ignore
  if (key === 'earlier') move(-1)
  if (key === 'later') move(1)
  if (key === 'shorter') resize(span.last - 1)
  if (key === 'longer') resize(span.last + 1)
}
