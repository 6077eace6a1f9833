import type { LiveMarker } from '@heliaster/core/cut'
import type { MarkerId, Source } from '@heliaster/core/kit'
import { useCallback, useMemo, useRef, useState } from 'react'
import { FlatList, View } from 'react-native'
import { useStore } from 'zustand'

import { hearClip } from '../../audio/sound'
import { Button } from '../../ui/Button'
import { notify } from '../../ui/notices'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { useIsWide } from '../../ui/use-is-wide'
import { useKit } from '../shell'
import { BenchSheets } from './BenchSheets'
import type { OpenSheet } from './BenchSheets'
import { clipOfHit } from './hit-clip'
import { listedHits, plainHitList } from './hit-list'
import { HIT_ROW_HEIGHT, HitRow } from './HitRow'
import { ListBar } from './ListBar'
import { cutLooks } from './looks'
import { MarkerBar } from './MarkerBar'
import { Overview } from './Overview'
import { SourceTitle } from './SourceTitle'
import { Spectrogram } from './Spectrogram'
import { StrengthChart } from './StrengthChart'
import { TakesBar } from './TakesBar'
import { TimeScale } from './TimeScale'
import { UpdateOffer } from './UpdateOffer'
import { useCutKeys } from './use-cut-keys'
import { useHearRow } from './use-hear-row'
import { useAnalysis, useCutActions, useHits } from './use-source-cut'
import type { Analysis, CutHit } from './use-source-cut'
import { focused, gainFor, panned, wholeView, zoomed } from './view'
import { Waveform } from './Waveform'

/** One recording on the bench: reading it, or why it cannot be read. */
export function CutBench({ source }: { readonly source: Source }) {
  const state = useAnalysis(source)
  if (state.type === 'ready') return <ReadyBench source={source} analysis={state.analysis} />
  return (
    <View style={{ flex: 1 }}>
      <SourceTitle source={source} />
      <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', padding: 24 }}>
        <Text
          tone={state.type === 'failed' ? 'coral' : 'muted'}
          role={state.type === 'failed' ? 'alert' : 'status'}
          style={{ textAlign: 'center', maxWidth: 420 }}
        >
          {state.type === 'failed' ? state.message : 'Reading the recording'}
        </Text>
      </View>
    </View>
  )
}

const isKept = ({ marker, hit }: CutHit) => marker.verdict !== 'pass' && hit !== undefined

function ReadyBench({ source, analysis }: { readonly source: Source; readonly analysis: Analysis }) {
  const palette = usePalette()
  const isWide = useIsWide()
  const frames = analysis.mono.length
  const rate = analysis.audio.sampleRateHz
  const hits = useHits(source, analysis)
  const actions = useCutActions(source)
  const kit = useKit()
  const tempoBpm = kit?.tempoBpm ?? 120
  const hasSpectrogram = useStore(cutLooks, (state) => state.hasSpectrogram)
  const [view, setView] = useState(() => ({ ...wholeView(frames), gain: gainFor(analysis.summary) }))
  const [chosenId, setChosenId] = useState<MarkerId>()
  const [cursor, setCursor] = useState<number>()
  const [open, setOpen] = useState<OpenSheet>()
  const [listView, setListView] = useState(plainHitList)
  const listed = useMemo(() => listedHits(hits, listView), [hits, listView])
  const unpassed = useMemo(() => listed.filter(isKept), [listed])
  const numbers = useMemo(() => new Map(hits.map(({ marker }, i) => [marker.id, i])), [hits])
  const close = () => setOpen(undefined)
  const list = useRef<FlatList<CutHit>>(null)
  const chosen = hits.find(({ marker }) => marker.id === chosenId)
  const kept = useMemo(() => hits.filter(isKept), [hits])

  const hear = useCallback(
    ({ marker, hit }: CutHit) => {
      if (hit) hearClip(clipOfHit(source, marker, hit)).catch((error: Error) => notify(error.message))
    },
    [source],
  )
  const choose = useCallback(
    (item: CutHit) => {
      setChosenId(item.marker.id)
      setCursor(undefined)
      hear(item)
    },
    [hear],
  )
  const tap = (frame: number) => {
    const item = hits.find(({ hit }) => hit && frame >= hit.startFrame && frame < hit.endFrame)
    if (item) {
      choose(item)
      scrollTo(listed.indexOf(item))
    } else setChosenId(undefined)
    setCursor(frame)
  }
  const scrollTo = (index: number) => index >= 0 && list.current?.scrollToIndex({ index, viewPosition: 0.3, animated: false })
  const step = (by: number) => {
    const at = listed.findIndex(({ marker }) => marker.id === chosenId)
    const item = listed[Math.min(listed.length - 1, Math.max(0, at < 0 ? 0 : at + by))]
    if (!item) return
    choose(item)
    scrollTo(listed.indexOf(item))
    if (item.marker.frame < view.start || item.marker.frame > view.end)
      setView(panned(view, item.marker.frame - (view.start + view.end) / 2, frames))
  }
  const add = () => {
    const frame = cursor ?? (view.start + view.end) / 2
    setChosenId(actions.add(frame))
  }
  const remove = (marker: LiveMarker) => {
    actions.remove(marker)
    setChosenId(undefined)
  }
  const row = useHearRow(source, unpassed, (item) => {
    setChosenId(item.marker.id)
    scrollTo(listed.indexOf(item))
  })
  const isWhole = view.end - view.start >= frames
  const toggleZoom = () =>
    setView(
      isWhole && chosen?.hit
        ? focused(view, chosen.hit.startFrame, chosen.hit.endFrame, frames)
        : { ...wholeView(frames), gain: view.gain },
    )
  useCutKeys({
    step,
    add,
    zoom: (factor) => setView(zoomed(view, factor, chosen?.marker.frame ?? (view.start + view.end) / 2, frames)),
    toggleZoom,
    chosen,
    actions,
    remove,
    hear,
    rate,
  })

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
        right={`${hits.length} ${hits.length === 1 ? 'hit' : 'hits'}${kept.length < hits.length ? `, ${kept.length} kept` : ''}`}
      />
      <Overview analysis={analysis} view={view} onView={setView} />
      <Waveform
        analysis={analysis}
        hits={hits}
        view={view}
        onView={setView}
        chosen={chosenId}
        cursor={cursor}
        height={isWide ? 230 : 150}
        onTap={tap}
        onSlideMarker={(marker, frame) => {
          setChosenId(marker.id)
          actions.slideMarker(marker, frame)
        }}
        onSlideEnd={actions.endGesture}
      />
      <TimeScale source={source} view={view} tempoBpm={tempoBpm} />
      {hasSpectrogram && <Spectrogram source={source} view={view} height={isWide ? 96 : 72} />}
      {!source.cut.grid && (
        <StrengthChart
          analysis={analysis}
          view={view}
          waterLine={source.cut.waterLine}
          height={isWide ? 96 : 64}
          onSlide={(waterLine) => actions.slideCut({ waterLine })}
          onDone={actions.endGesture}
        />
      )}
      <View style={{ flexDirection: isWide ? 'row' : 'column', alignItems: isWide ? 'center' : 'stretch' }}>
        <View style={isWide && { flex: 3, minWidth: 0 }}>
          <MarkerBar
            chosen={chosen?.marker}
            rate={rate}
            onStep={step}
            onPin={actions.pin}
            onRemove={remove}
            onNudge={actions.nudge}
            onName={actions.name}
            onAdd={add}
            isWhole={isWhole}
            onZoom={toggleZoom}
            gain={view.gain}
            onGain={(gain) => setView({ ...view, gain })}
          />
        </View>
        <View style={isWide && { flex: 2, minWidth: 0 }}>
          <ListBar
            hits={hits}
            view={listView}
            onView={setListView}
            onHearAll={row.toggle}
            isHearing={row.isHearing}
            onNames={() => setOpen('names')}
            onRepairs={() => setOpen('repair')}
          />
        </View>
      </View>
      {kit && <UpdateOffer kit={kit} source={source} hits={hits} />}
      <TakesBar hits={hits} onRemovePassed={actions.removeAll} onPassRest={actions.passAll} />
      <FlatList
        ref={list}
        data={listed}
        keyExtractor={({ marker }) => marker.id}
        getItemLayout={(_, index) => ({ length: HIT_ROW_HEIGHT, offset: HIT_ROW_HEIGHT * index, index })}
        renderItem={({ item }) => (
          <HitRow
            item={item}
            index={numbers.get(item.marker.id) ?? 0}
            sampleRateHz={rate}
            sort={listView.sort}
            chosen={item.marker.id === chosenId}
            onChoose={choose}
            onJudge={({ marker }) => actions.judge(marker)}
          />
        )}
        style={{ flex: 1, minHeight: 0, borderTopWidth: 1, borderTopColor: palette.faint }}
        ListEmptyComponent={
          <Text tone="muted" style={{ padding: 20 }}>
            {hits.length > 0
              ? 'No hit is like this. The order of the list, above, shows all of them again.'
              : 'No hit stands out of the water. Lower the water line, or add a marker by hand.'}
          </Text>
        }
      />
      {!isWide && <View style={{ padding: 10, paddingHorizontal: 16 }}>{send}</View>}
      <BenchSheets
        source={source}
        analysis={analysis}
        tempoBpm={tempoBpm}
        open={open}
        chosen={chosen}
        kept={kept}
        listed={listed}
        unpassed={unpassed}
        actions={actions}
        onHear={hear}
        onClose={close}
      />
    </View>
  )
}
