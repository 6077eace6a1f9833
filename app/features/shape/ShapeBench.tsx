import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { useEffect, useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { padGesture, padName } from '../../kit-view/use-kit'
import { Chips } from '../../ui/controls/Chips'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { PARTS, showPart, shownPart } from '../../kit-view/shape-parts'
import { chartSettings, chartView } from './chart/chart-view'
import { ChartViewBar } from './chart/ChartViewBar'
import { EnvelopeBar } from './chart/EnvelopeBar'
import { EnvelopePart } from './chart/EnvelopePart'
import { TideChart } from './chart/TideChart'
import { useDrawnHit } from './chart/use-drawn-hit'
import { useEnvelope } from './chart/use-envelope'
import { WaterWords } from './chart/WaterWords'
import { Movers } from './responses/Movers'
import { CharacterPart, ClipPart, FiltersPart } from './controls/parts'
import { DynamicsPart } from './dynamics/DynamicsPart'
import { MatterPart } from './matter-later'
import { QuickShape } from './quick/QuickShape'
import { ShapeTitle } from './ShapeTitle'
import { SlicesPart } from './slices/SlicesPart'
import { SpectrumChart } from './spectrum/SpectrumChart'
import { firstWhom, keepGroup } from './whom/group'
import { responsesOfAll } from './whom/responses-of-all'
import { targetOf } from './whom/target'
import { WhomChips } from './whom/WhomChips'

/** The chart on a phone: beside the recipe, and where envelopes are drawn on it. */
const QUICK_PX = 108
const TALL_PX = 262
/** Spectrum and dynamics under the chart of a wide screen. */
const LOW_PX = 148
const PANEL_PX = 420

interface Props {
  readonly kit: Kit
  readonly pad: Pad
}

/** The hit as the engine draws it, and what shapes it: the recipe at once, all else one step away. */
export function ShapeBench({ kit, pad }: Props) {
  const isWide = useIsWide()
  const part = useStore(shownPart, (state) => state.part)
  const { isFirst, showsSpectrum, showsMatter } = useStore(chartView)
  const isSnapping = useStore(chartSettings, (state) => state.isSnapping)
  const [whom, setWhom] = useState(() => firstWhom(pad.id))
  useEffect(() => keepGroup(whom), [whom])
  const target = useMemo(() => targetOf(kit, pad, whom), [kit, pad, whom])
  const drawn = useDrawnHit(kit, target.drawn)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const envelope = useEnvelope(target, drawn, gesture)
  const { settings } = target
  const baseHz = drawn?.pitchHz && drawn.pitchHz * 2 ** (settings.values.tuneCents / 1200)
  const all = { kit, pad, target, drawn, onEdits: gesture.set, onDone: gesture.end }
  const isQuick = !isWide && part !== 'envelopes'
  const chart = (
    <View style={isWide ? { flex: 1, minHeight: 0 } : undefined}>
      <TideChart
        isWide={isWide || isQuick}
        isStill={isQuick}
        isFirst={isFirst && !isQuick}
        showsSpectrum={part === 'matter' ? showsMatter : showsSpectrum && !isQuick}
        isSnapping={isSnapping && !isQuick}
        heightPx={isWide ? undefined : isQuick ? QUICK_PX : TALL_PX}
        drawn={drawn}
        baseHz={baseHz}
        shape={settings}
        family={settings.family}
        work={envelope.chart}
      />
      {!isQuick && <ChartViewBar isWide={isWide} isOfMatter={part === 'matter'} />}
    </View>
  )
  const dynamics = <DynamicsPart kit={kit} pad={target.drawn} heightPx={isWide ? LOW_PX : undefined} />
  const setResponses = (edits: KitEdit[]) => gesture.set(responsesOfAll(kit, pad, target.pads, edits))
  const movers = (
    <>
      {whom.kind === 'pads' && (
        <Text look="small" tone="muted">
          {`These are the responses of ${padName(kit, pad)}. What you set is set on the others too; what else answers on them stays.`}
        </Text>
      )}
      <Movers kit={kit} pad={pad} rayId={whom.kind === 'ray' ? whom.rayId : undefined} onSlide={setResponses} onDone={gesture.end} />
    </>
  )
  const parts = {
    recipe: () => <QuickShape {...all} onResponses={setResponses} />,
    envelopes: () => <EnvelopePart {...all} work={envelope} baseHz={baseHz} hasBar={!isWide} />,
    clip: () => <ClipPart {...all} />,
    slices: () => <SlicesPart {...all} />,
    matter: () => <MatterPart {...all} />,
    character: () => <CharacterPart {...all} />,
    filters: () => <FiltersPart {...all} hasChart={!isWide} />,
    movers: () => (
      <>
        {!isWide && dynamics}
        {movers}
      </>
    ),
  }
  const body = parts[part]()
  const title = <ShapeTitle kit={kit} pad={pad} drawn={drawn} baseHz={baseHz} />
  const water = <WaterWords kit={kit} settings={settings} drawn={drawn} baseHz={baseHz} />
  const chips = (
    <>
      <WhomChips kit={kit} pad={pad} whom={target.whom} onWhom={setWhom} />
      <Chips label="What shapes it" hideLabel isOneLine options={PARTS} value={part} onChoose={showPart} />
    </>
  )
  if (!isWide) return <PhoneBench title={title} chart={chart} water={water} chips={chips} body={body} />
  const bar = <EnvelopeBar envelope={envelope} onEnvelopes={() => showPart('envelopes')} />
  const spectrum = (
    <SpectrumChart
      settings={settings}
      drawn={drawn}
      heightPx={LOW_PX}
      onChange={(own) => gesture.set(target.edits(own))}
      onDone={gesture.end}
    />
  )
  return <WideBench {...{ title, chart, water, chips, body, bar, spectrum, dynamics }} />
}

interface LaidOut {
  readonly title: ReactNode
  readonly chart: ReactNode
  readonly water: ReactNode
  readonly chips: ReactNode
  readonly body: ReactNode
}

function PhoneBench({ title, chart, water, chips, body }: LaidOut) {
  const palette = usePalette()
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <View style={{ paddingHorizontal: 16, gap: 6, paddingBottom: 6 }}>
        {title}
        {chart}
        {water}
      </View>
      <View style={{ paddingHorizontal: 16, paddingBottom: 6, gap: 6 }}>{chips}</View>
      <ScrollView
        style={{ flex: 1, borderTopWidth: 1, borderTopColor: palette.faint }}
        contentContainerStyle={{ padding: 16, paddingTop: 10, gap: 12 }}
      >
        {body}
      </ScrollView>
    </View>
  )
}

interface WideProps extends LaidOut {
  readonly bar: ReactNode
  readonly spectrum: ReactNode
  readonly dynamics: ReactNode
}

/** Chart, spectrum and dynamics stand together; what changes them beside. */
function WideBench({ title, chart, water, chips, body, bar, spectrum, dynamics }: WideProps) {
  const palette = usePalette()
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      <View style={{ flex: 1, minWidth: 0, paddingHorizontal: 20, paddingVertical: 12, gap: 8 }}>
        {title}
        {chart}
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 16 }}>
          {bar}
          <View style={{ flex: 1, minWidth: 0 }}>{water}</View>
        </View>
        <View style={{ flexDirection: 'row', gap: 16 }}>
          <View style={{ flex: 1, minWidth: 0 }}>{spectrum}</View>
          <View style={{ flex: 1, minWidth: 0 }}>{dynamics}</View>
        </View>
      </View>
      <ScrollView
        style={{ width: PANEL_PX, flexGrow: 0, flexShrink: 0, borderLeftWidth: 1, borderLeftColor: palette.faint }}
        contentContainerStyle={{ padding: 20, gap: 14 }}
      >
        {chips}
        {body}
      </ScrollView>
    </View>
  )
}
