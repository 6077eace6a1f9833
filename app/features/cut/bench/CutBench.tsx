import { lineOf } from '@heliaster/core/cut'
import type { MarkerId, Source } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { useKit } from '../../../kit-view'
import { BenchSheets } from './BenchSheets'
import type { OpenSheet } from './BenchSheets'
import { HitList } from '../hits/HitList'
import { ListBar } from '../hits/ListBar'
import { cutLooks } from './looks'
import { MarkerBar } from './MarkerBar'
import { Overview } from '../wave/Overview'
import { PassageBar } from './PassageBar'
import { ReadingPicture } from '../wave/ReadingPicture'
import { SourceTitle } from './SourceTitle'
import { Spectrogram } from '../wave/Spectrogram'
import { StrengthChart } from '../wave/StrengthChart'
import { TakesBar } from './TakesBar'
import { TimeScale } from '../wave/TimeScale'
import { UpdateOffer } from './UpdateOffer'
import { useBench } from './use-bench'
import { isHeard, useAnalysis } from './use-source-cut'
import type { Analysis } from './use-source-cut'
import { WaterBar } from './WaterBar'
import { Waveform } from '../wave/Waveform'

/** One recording on the bench: reading it, or why it cannot be read. */
export function CutBench({ source }: { readonly source: Source }) {
  const state = useAnalysis(source)
  const isWide = useIsWide()
  if (state.type === 'ready') return <ReadyBench source={source} analysis={state.analysis} />
  if (state.type === 'reading')
    return (
      <View style={{ flex: 1 }}>
        <SourceTitle source={source} />
        <ReadingPicture source={source} height={isWide ? 262 : 182} />
      </View>
    )
  return (
    <View style={{ flex: 1 }}>
      <SourceTitle source={source} />
      <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', padding: 24 }}>
        <Text tone="coral" role="alert" style={{ textAlign: 'center', maxWidth: 420 }}>
          {state.message}
        </Text>
      </View>
    </View>
  )
}

function ReadyBench({ source, analysis }: { readonly source: Source; readonly analysis: Analysis }) {
  const isWide = useIsWide()
  const bench = useBench(source, analysis)
  const { hits, kept, listed, chosen, actions, view, setView, rate, passage } = bench
  const kit = useKit()
  const tempoBpm = kit?.tempoBpm ?? 120
  const hasSpectrogram = useStore(cutLooks, (state) => state.hasSpectrogram)
  const [open, setOpen] = useState<OpenSheet>()
  /** A passage that is sent by itself. */
  const [alone, setAlone] = useState<MarkerId>()
  const close = () => {
    setOpen(undefined)
    setAlone(undefined)
  }
  const send = (
    <Button
      label={kept.length === 1 ? 'Send 1 hit to pads' : `Send ${kept.length} hits to pads`}
      kind="main"
      disabled={kept.length === 0}
      onPress={() => setOpen('send')}
    />
  )
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <SourceTitle
        source={source}
        action={isWide && send}
        onCut={() => setOpen('cut')}
        right={isHeard(analysis) ? countOf(hits.length, kept.length) : 'Listening for strikes'}
      />
      <Overview analysis={analysis} view={view} onView={setView} />
      <Waveform
        analysis={analysis}
        hits={hits}
        view={view}
        onView={setView}
        chosen={bench.chosenId}
        cursor={bench.cursor}
        height={isWide ? 230 : 150}
        onTap={bench.tap}
        onSlideMarker={(marker, frame) => {
          bench.setChosenId(marker.id)
          actions.slideMarker(marker, frame)
        }}
        onSlideTail={actions.slideTail}
        onSlid={actions.endGesture}
        passage={passage}
        onPassage={bench.setPassage}
      />
      <TimeScale source={source} view={view} tempoBpm={tempoBpm} />
      {hasSpectrogram && <Spectrogram source={source} view={view} height={isWide ? 96 : 72} />}
      {!source.cut.grid && (
        <>
          <StrengthChart
            analysis={analysis}
            view={view}
            waterLine={lineOf(source.cut, analysis.strikes)}
            height={isWide ? 96 : 64}
            onSlide={(waterLine) => actions.slideCut({ waterLine, findsLevel: undefined })}
            onDone={actions.endGesture}
          />
          {isHeard(analysis) && <WaterBar source={source} analysis={analysis} onCut={actions.setCut} />}
        </>
      )}
      <View style={{ flexDirection: isWide ? 'row' : 'column', alignItems: isWide ? 'center' : 'stretch' }}>
        <View style={isWide && { flex: 3, minWidth: 0 }}>
          <MarkerBar bench={bench} onDetails={() => setOpen('hit')} />
        </View>
        <View style={isWide && { flex: 2, minWidth: 0 }}>
          <ListBar
            hits={hits}
            view={bench.listView}
            onView={bench.setListView}
            onHearAll={bench.row.toggle}
            isHearing={bench.row.isHearing}
            onNames={() => setOpen('names')}
            onRepairs={() => setOpen('repair')}
          />
        </View>
      </View>
      {passage && (
        <PassageBar
          passage={passage}
          rate={rate}
          onHear={bench.hearPassage}
          onKeep={bench.keepPassage}
          onSend={() => {
            setAlone(bench.keepPassage())
            setOpen('send')
          }}
          onClose={() => bench.setPassage(undefined)}
        />
      )}
      {kit && <UpdateOffer kit={kit} source={source} hits={hits} />}
      <TakesBar hits={hits} onRemovePassed={actions.removeAll} onPassRest={actions.passAll} />
      <HitList
        ref={bench.list}
        hits={listed}
        rate={rate}
        sort={bench.listView.sort}
        chosenId={bench.chosenId}
        emptyWords={isHeard(analysis) ? whyEmpty(source, hits.length) : LISTENING}
        onChoose={bench.choose}
        onJudge={bench.judge}
      />
      {!isWide && <View style={{ padding: 10, paddingHorizontal: 16 }}>{send}</View>}
      <BenchSheets
        source={source}
        analysis={analysis}
        tempoBpm={tempoBpm}
        open={open}
        chosen={chosen}
        kept={alone ? hits.filter(({ marker }) => marker.id === alone) : kept}
        listed={listed}
        unpassed={bench.unpassed}
        actions={actions}
        onHear={bench.hear}
        onClose={close}
      />
    </View>
  )
}

const LISTENING = 'The recording is being listened to. It can be heard, marked and cut by hand already.'

function countOf(hits: number, kept: number): string {
  return `${hits} ${hits === 1 ? 'hit' : 'hits'}${kept < hits ? `, ${kept} kept` : ''}`
}

function whyEmpty(source: Source, hits: number): string {
  if (hits > 0) return 'No hit is like this. The order of the list, above, shows all of them again.'
  if (source.cut.grid?.kind === 'marks') return 'There is no marker yet. Add one, or mark a passage.'
  return 'No hit stands out of the water. Lower the water line, or add a marker by hand.'
}
