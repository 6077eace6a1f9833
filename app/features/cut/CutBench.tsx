import type { LiveMarker } from '@heliaster/core/cut'
import type { MarkerId, Source } from '@heliaster/core/kit'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { FlatList, View } from 'react-native'

import { isTyping } from '../../audio/computer-keys'
import { hearClip } from '../../audio/sound'
import { Button, IconButton } from '../../ui/Button'
import { notify } from '../../ui/notices'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { useIsWide } from '../../ui/use-is-wide'
import { session } from '../shell/session'
import { clipOfHit } from './hit-clip'
import { HIT_ROW_HEIGHT, HitRow } from './HitRow'
import { MarkerBar } from './MarkerBar'
import { Overview } from './Overview'
import { SendSheet } from './SendSheet'
import { StrengthChart } from './StrengthChart'
import { TakesBar } from './TakesBar'
import { useAnalysis, useCutActions, useHits } from './use-source-cut'
import type { Analysis, CutHit } from './use-source-cut'
import { focused, panned, wholeView, zoomed } from './view'
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

function SourceTitle({ source, right }: { readonly source: Source; readonly right?: string }) {
  const isWide = useIsWide()
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', paddingRight: 16, paddingLeft: isWide ? 16 : 6, height: 44 }}>
      {!isWide && (
        <IconButton name="format-list-bulleted" label="All recordings" onPress={() => session.setState({ sourceId: undefined })} />
      )}
      <Text look="strong" numberOfLines={1} style={{ flex: 1 }}>
        {source.name}
      </Text>
      <Text look="label" tone="muted">
        {right}
      </Text>
    </View>
  )
}

function ReadyBench({ source, analysis }: { readonly source: Source; readonly analysis: Analysis }) {
  const palette = usePalette()
  const isWide = useIsWide()
  const frames = analysis.mono.length
  const rate = analysis.audio.sampleRateHz
  const hits = useHits(source, analysis)
  const actions = useCutActions(source)
  const [view, setView] = useState(() => ({ ...wholeView(frames), gain: gainFor(analysis) }))
  const [chosenId, setChosenId] = useState<MarkerId>()
  const [cursor, setCursor] = useState<number>()
  const [sending, setSending] = useState(false)
  const list = useRef<FlatList<CutHit>>(null)
  const chosen = hits.find(({ marker }) => marker.id === chosenId)
  const kept = useMemo(() => hits.filter(({ marker, hit }) => marker.verdict !== 'pass' && hit), [hits])

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
      scrollTo(hits.indexOf(item))
    } else setChosenId(undefined)
    setCursor(frame)
  }
  const scrollTo = (index: number) => index >= 0 && list.current?.scrollToIndex({ index, viewPosition: 0.3, animated: false })
  const step = (by: number) => {
    const at = hits.findIndex(({ marker }) => marker.id === chosenId)
    const item = hits[Math.min(hits.length - 1, Math.max(0, at < 0 ? 0 : at + by))]
    if (!item) return
    choose(item)
    scrollTo(hits.indexOf(item))
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

  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <SourceTitle
        source={source}
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
        height={isWide ? 230 : 168}
        onTap={tap}
        onSlideMarker={(marker, frame) => {
          setChosenId(marker.id)
          actions.slideMarker(marker, frame)
        }}
        onSlideEnd={actions.endGesture}
      />
      <StrengthChart
        analysis={analysis}
        view={view}
        waterLine={source.cut.waterLine}
        height={isWide ? 96 : 72}
        onSlide={actions.slideWater}
        onDone={actions.endGesture}
      />
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
      <TakesBar hits={hits} onRemovePassed={actions.removeAll} onPassRest={actions.passAll} />
      <FlatList
        ref={list}
        data={hits}
        keyExtractor={({ marker }) => marker.id}
        getItemLayout={(_, index) => ({ length: HIT_ROW_HEIGHT, offset: HIT_ROW_HEIGHT * index, index })}
        renderItem={({ item, index }) => (
          <HitRow
            item={item}
            index={index}
            sampleRateHz={rate}
            chosen={item.marker.id === chosenId}
            onChoose={choose}
            onJudge={({ marker }) => actions.judge(marker)}
          />
        )}
        style={{ flex: 1, minHeight: 0, borderTopWidth: 1, borderTopColor: palette.faint }}
        ListEmptyComponent={
          <Text tone="muted" style={{ padding: 20 }}>
            No hit stands out of the water. Lower the water line, or add a marker by hand.
          </Text>
        }
      />
      <View style={{ padding: 10, paddingHorizontal: 16 }}>
        <Button
          label={kept.length === 1 ? 'Send 1 hit to pads' : `Send ${kept.length} hits to pads`}
          kind="main"
          disabled={kept.length === 0}
          onPress={() => setSending(true)}
        />
      </View>
      {sending && <SendSheet source={source} hits={kept} onClose={() => setSending(false)} />}
    </View>
  )
}

/** Quiet recordings are raised so that they can be seen. */
function gainFor({ summary }: Analysis): number {
  const top = summary.levels[summary.levels.length - 1]
  const peak = Math.max(1e-4, ...top.high, ...top.low.map((value) => -value))
  return Math.min(64, Math.max(1, 0.92 / peak))
}

interface CutKeys {
  step(by: number): void
  add(): void
  zoom(factor: number): void
  toggleZoom(): void
  chosen: CutHit | undefined
  actions: ReturnType<typeof useCutActions>
  remove(marker: LiveMarker): void
  hear(item: CutHit): void
  rate: number
}

/**
 * Arrows go from hit to hit; with Shift they move the chosen marker by a millisecond, with Alt by a sample. Enter keeps
 * the chosen hit, Backspace passes it, Down hears it again.
 */
function useCutKeys(keys: CutKeys): void {
  const latest = useRef(keys)
  useEffect(() => {
    latest.current = keys
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const role = (event.target as HTMLElement).getAttribute?.('role')
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || role === 'slider' || (role === 'button' && event.key === 'Enter'))
        return
      const { step, add, zoom, toggleZoom, chosen, actions, remove, hear, rate } = latest.current
      const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
      if (way !== 0 && chosen && (event.shiftKey || event.altKey))
        actions.nudge(chosen.marker, way * (event.altKey ? 1 : Math.round(rate / 1000)))
      else if (way !== 0) step(way)
      else if (event.key === '+' || event.key === '=') zoom(0.5)
      else if (event.key === '-') zoom(2)
      else if (event.key === '0') toggleZoom()
      else if (event.key === 'Insert') add()
      else if (event.key === 'Delete' && chosen) remove(chosen.marker)
      else if (event.key === 'Home' && chosen) actions.pin(chosen.marker)
      else if (event.key === 'ArrowDown' && chosen) hear(chosen)
      else if (event.key === 'Enter' && chosen) actions.setVerdict(chosen.marker, 'keep')
      else if (event.key === 'Backspace' && chosen) actions.setVerdict(chosen.marker, 'pass')
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
