import { amountsOf, copied, slicedAt, spanOf, withAmounts } from '@heliaster/core/slices'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'
import { useState } from 'react'
import { View } from 'react-native'

import { hearVersion } from '../../../audio/engine/sound'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'
import { CutActs } from './CutActs'
import { InTempo } from './InTempo'
import { lanesOf } from './lanes'
import type { Lane } from './lanes'
import type { PlacedProps } from './placed'
import { roomEdits } from './room'
import { SliceActs } from './SliceActs'
import { sliceVersion } from './slice-edits'
import { byKey } from './slice-keys'
import { SlicesWave } from './SlicesWave'
import { useAlike } from './use-alike'
import { edgesOf, sliceAt } from './use-slice-hand'
import type { HandMode } from './use-slice-hand'

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

/** Slices with what is drawn over them, and what is done to them at a tap. */
export function SlicesDrawn({ kit, pad, place, sampleRateHz, onSlices, onClips, onDone }: PlacedProps) {
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
      {mode !== 'cut' && (
        <Text look="small" tone="muted">
          {lane.lane.kind !== 'send' ? 'A dashed line says that nothing is drawn there.' : lane.usual === 0 ? 'Where nothing is drawn, as much is sent as the ray sends.' : 'Where nothing is drawn, nothing is sent.'}
        </Text>
      )}
      {mode === 'cut' ? (
        <CutActs {...{ kit, pad, place, sampleRateHz, onSlices, onClips, onDone, slices, span, choose }} />
      ) : (
        <SliceActs lane={lane} amounts={amounts} span={span} alike={alike.find((group) => group.includes(span.first)) ?? []} onAmounts={act} />
      )}
      <InTempo {...{ kit, clip, sampleRateHz, onClips, onDone }} />
    </>
  )
} // prettier-ignore

function said(amounts: Amounts, { first, last }: SliceSpan, lane: Lane): string {
  const some = copied(amounts, { first, last })
  const set = some.filter((amount) => amount !== undefined)
  if (set.length === 0) return 'nothing drawn'
  const [least, most] = [Math.min(...set), Math.max(...set)]
  return least === most ? lane.words(least) : `${lane.words(least)} to ${lane.words(most)}`
}
