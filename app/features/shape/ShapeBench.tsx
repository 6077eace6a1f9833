import type { Kit, Pad } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import { padGesture } from '../../kit-view/use-kit'
import { Chips } from '../../ui/controls/Chips'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { usePalette } from '../../ui/theme/theme'
import { EnvelopeBar } from './chart/EnvelopeBar'
import { TideChart } from './chart/TideChart'
import { useDrawnHit } from './chart/use-drawn-hit'
import { useEnvelope } from './chart/use-envelope'
import { EnvelopePart } from './chart/EnvelopePart'
import { CharacterPart, ClipPart, FiltersPart } from './controls/parts'
import { Movers } from './controls/Movers'
import { DynamicsPart } from './dynamics/DynamicsPart'
import { QuickShape } from './quick/QuickShape'
import { ShapeTitle } from './ShapeTitle'
import { targetOf } from './whom/target'
import type { Whom } from './whom/target'
import { WhomChips } from './whom/WhomChips'

const PARTS = [
  { value: 'recipe', text: 'Recipe' },
  { value: 'envelopes', text: 'Envelopes' },
  { value: 'clip', text: 'Clip' },
  { value: 'character', text: 'Character' },
  { value: 'filters', text: 'Filters' },
  { value: 'movers', text: 'Dynamics' },
] as const
/** The chart on a phone: beside the recipe, and where envelopes are drawn on it. */
const QUICK_PX = 132
const TALL_PX = 262
type PartName = (typeof PARTS)[number]['value']

/** The part that is looked at stays when another pad is struck. */
const shown = createStore<{ part: PartName }>(() => ({ part: 'recipe' }))
const setPart = (part: PartName) => shown.setState({ part })

interface Props {
  readonly kit: Kit
  readonly pad: Pad
}

/** The hit as the engine draws it, and what shapes it: the recipe at once, all else one step away. */
export function ShapeBench({ kit, pad }: Props) {
  const palette = usePalette()
  const isWide = useIsWide()
  const part = useStore(shown, (state) => state.part)
  const [whom, setWhom] = useState<Whom>({ kind: 'pad' })
  const target = useMemo(() => targetOf(kit, pad, whom), [kit, pad, whom])
  const drawn = useDrawnHit(kit, target.drawn)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const envelope = useEnvelope(target, drawn, gesture)
  const { settings } = target
  const baseHz = drawn?.pitchHz && drawn.pitchHz * 2 ** (settings.values.tuneCents / 1200)
  const all = { kit, pad, target, drawn, onEdits: gesture.set, onDone: gesture.end }
  const title = <ShapeTitle kit={kit} pad={pad} drawn={drawn} baseHz={baseHz} />
  const isQuick = !isWide && part !== 'envelopes'
  const chart = (
    <TideChart
      isWide={isWide || isQuick}
      isStill={isQuick}
      heightPx={isWide ? undefined : isQuick ? QUICK_PX : TALL_PX}
      drawn={drawn}
      baseHz={baseHz}
      shape={settings}
      family={settings.family}
      {...envelope.chart}
    />
  )
  const body = {
    recipe: <QuickShape {...all} />,
    envelopes: <EnvelopePart envelope={envelope} mode={settings.mode} hasBar={!isWide} />,
    clip: <ClipPart {...all} />,
    character: <CharacterPart {...all} />,
    filters: <FiltersPart {...all} />,
    movers: (
      <>
        <DynamicsPart kit={kit} pad={target.drawn} />
        <Movers kit={kit} pad={pad} rayId={whom.kind === 'ray' ? whom.rayId : undefined} onSlide={gesture.set} onDone={gesture.end} />
      </>
    ),
  }[part]
  const parts = <Chips label="What shapes it" hideLabel isOneLine options={PARTS} value={part} onChoose={setPart} />
  const chips = <WhomChips kit={kit} pad={pad} whom={target.whom} onWhom={setWhom} />
  if (isWide)
    return (
      <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
        <View style={{ flex: 1, minWidth: 0, padding: 20, gap: 12 }}>
          {title}
          {chart}
          <EnvelopeBar envelope={envelope} onEnvelopes={() => setPart('envelopes')} />
        </View>
        <ScrollView
          style={{ width: 420, flexGrow: 0, flexShrink: 0, borderLeftWidth: 1, borderLeftColor: palette.faint }}
          contentContainerStyle={{ padding: 20, gap: 14 }}
        >
          {chips}
          {parts}
          {body}
        </ScrollView>
      </View>
    )
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <View style={{ paddingHorizontal: 16, gap: 6, paddingBottom: 6 }}>
        {title}
        {chart}
      </View>
      <View style={{ paddingHorizontal: 16, paddingBottom: 6, gap: 6 }}>
        {chips}
        {parts}
      </View>
      <ScrollView
        style={{ flex: 1, borderTopWidth: 1, borderTopColor: palette.faint }}
        contentContainerStyle={{ padding: 16, paddingTop: 10, gap: 12 }}
      >
        {body}
      </ScrollView>
    </View>
  )
}
