import type { MarkerId, Source } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { useKit } from '../../../kit-view'
import { usePalette } from '../../../ui/theme/theme'
import { BenchSheets } from './BenchSheets'
import { session } from '../../../kit-view/session'
import type { OpenSheet } from './BenchSheets'
import { BenchWaves } from './BenchWaves'
import { HitList } from '../hits/HitList'
import { ListBar } from '../hits/ListBar'
import { MarkerBar } from './MarkerBar'
import { PassageBar } from './PassageBar'
import { ReadingPicture } from '../wave/ReadingPicture'
import { SourceTitle } from './SourceTitle'
import { TakesBar } from './TakesBar'
import { UpdateOffer } from './UpdateOffer'
import { useBench } from './use-bench'
import { isHeard, useAnalysis } from './use-source-cut'
import type { Analysis } from './use-source-cut'

/** Beside the wave of a wide screen. */
const LIST_PX = 360
/** Scrolled so far, a long list on a phone takes the room of what stands above it. */
const SCROLLED_PX = 24
const LONG_LIST_PX = 700

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
  const { hits, kept, listed, chosen, actions, rate, passage, list: rows, listView } = bench
  const kit = useKit()
  const tempoBpm = kit?.tempoBpm ?? 120
  const [open, setOpen] = useState<OpenSheet | undefined>(() => (session.getState().asRhythm === source.id ? 'rhythm' : undefined))
  useEffect(() => session.setState({ asRhythm: undefined }), [])
  /** A passage that is sent by itself. */
  const [alone, setAlone] = useState<MarkerId>()
  const close = () => {
    setOpen(undefined)
    setAlone(undefined)
  }
  const [isScrolled, setScrolled] = useState(false)
  const onScrolled = (offsetPx: number, heightPx: number) => setScrolled(offsetPx > SCROLLED_PX && heightPx > LONG_LIST_PX)
  const isLow = !isWide && isScrolled
  const title = (
    <SourceTitle
      source={source}
      onCut={() => setOpen('cut')}
      right={isHeard(analysis) ? countOf(hits.length, kept.length) : 'Listening for strikes'}
    />
  )
  const wave = <BenchWaves source={source} analysis={analysis} bench={bench} tempoBpm={tempoBpm} isLow={isLow} />
  const bars = (
    <>
      <MarkerBar bench={bench} onDetails={() => setOpen('hit')} onNames={() => setOpen('names')} onRepairs={() => setOpen('repair')} />
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
    </>
  )
  const list = (
    <>
      {kit && <UpdateOffer kit={kit} source={source} hits={hits} />}
      <TakesBar hits={hits} onRemovePassed={actions.removeAll} onPassRest={(markers) => actions.judgeAll(markers, 'pass')} />
      <HitList
        ref={rows}
        hits={listed}
        rate={rate}
        sort={listView.sort}
        chosenId={bench.chosenId}
        emptyWords={isHeard(analysis) ? whyEmpty(source, hits.length) : LISTENING}
        onChoose={bench.choose}
        onJudge={bench.judge}
        onJudgeAll={bench.judgeAll}
        onScrolled={onScrolled}
      />
      <View style={{ padding: 8, paddingHorizontal: 16 }}>
        <Button
          label={sendWords(isHeard(analysis), kept.length)}
          kind="main"
          disabled={kept.length === 0}
          onPress={() => setOpen('send')}
        />
      </View>
    </>
  )
  const listBar = (
    <ListBar
      hits={hits}
      view={listView}
      onView={bench.setListView}
      onHearAll={bench.row.toggle}
      isHearing={bench.row.isHearing}
      onNames={() => setOpen('names')}
      onRepairs={() => setOpen('repair')}
    />
  )
  const sheets = (
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
  )
  return isWide ? <WideBench {...{ title, wave, bars, listBar, list, sheets }} /> : <PhoneBench {...{ title, wave, bars, list, sheets }} />
}

interface LaidOut {
  readonly title: ReactNode
  readonly wave: ReactNode
  readonly bars: ReactNode
  readonly list: ReactNode
  readonly sheets: ReactNode
}

function PhoneBench({ title, wave, bars, list, sheets }: LaidOut) {
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      {title}
      {wave}
      {bars}
      {list}
      {sheets}
    </View>
  )
}

/** The wave and its hits side by side: the list is as high as the screen. */
function WideBench({ title, wave, bars, listBar, list, sheets }: LaidOut & { readonly listBar: ReactNode }) {
  const palette = usePalette()
  return (
    <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
      <View style={{ flex: 1, minWidth: 0 }}>
        {title}
        {bars}
        {wave}
      </View>
      <View style={{ width: LIST_PX, borderLeftWidth: 1, borderLeftColor: palette.faint }}>
        {listBar}
        {list}
      </View>
      {sheets}
    </View>
  )
}

function sendWords(isKnown: boolean, count: number): string {
  if (!isKnown && count === 0) return 'Send hits to pads'
  return count === 1 ? 'Send 1 hit to pads' : `Send ${count} hits to pads`
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
