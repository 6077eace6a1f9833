import type { MarkerId, Source } from '@heliaster/core/kit'
import type { LiveMarker } from '@heliaster/core/cut'
import { useCallback, useMemo, useRef, useState } from 'react'
import type { LongListControls } from '../../../ui/layout/LongList'

import { hearClip } from '../../../audio/engine/sound'
import { notify } from '../../../ui/layout/notices'
import { clipOfHit, clipOfPassage } from '../hits/hit-clip'
import type { Verdict } from '../hits/HitRow'
import { listedHits, plainHitList } from '../hits/hit-list'
import { useCutKeys } from './use-cut-keys'
import { useHearRow } from '../hits/use-hear-row'
import { useCutActions, useHits } from './use-source-cut'
import type { Analysis, CutHit } from './use-source-cut'
import { focused, gainFor, nextHeight, panned, wholeView, zoomed } from '../wave/view'
import type { View } from '../wave/view'
import type { Passage } from '../wave/draw-recording'

const isKept = ({ marker, hit }: CutHit) => marker.verdict !== 'pass' && hit !== undefined

/** What happens on the bench: what is seen, chosen, marked, listed and heard. */
export function useBench(source: Source, analysis: Analysis) {
  const frames = analysis.mono.length
  const rate = analysis.audio.sampleRateHz
  const hits = useHits(source, analysis)
  const actions = useCutActions(source)
  const [view, setView] = useState<View>(() => ({ ...wholeView(frames), gain: gainFor(analysis.summary) }))
  const [chosenId, setChosenId] = useState<MarkerId>()
  const [cursor, setCursor] = useState<number>()
  const [passage, setPassage] = useState<Passage>()
  const [listView, setListView] = useState(plainHitList)
  const listed = useMemo(() => listedHits(hits, listView, rate), [hits, listView, rate])
  const unpassed = useMemo(() => listed.filter(isKept), [listed])
  const kept = useMemo(() => hits.filter(isKept), [hits])
  const list = useRef<LongListControls>(null)
  const closeUp = useRef<View>(undefined)
  const chosen = hits.find(({ marker }) => marker.id === chosenId)

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
  const scrollTo = (index: number) => index >= 0 && list.current?.show(index)
  const tap = (frame: number) => {
    const item = hits.find(({ hit }) => hit && frame >= hit.startFrame && frame < hit.endFrame)
    if (item) {
      choose(item)
      scrollTo(listed.indexOf(item))
    } else setChosenId(undefined)
    setCursor(frame)
  }
  const step = (by: number) => {
    const at = listed.findIndex(({ marker }) => marker.id === chosenId)
    const item = listed[Math.min(listed.length - 1, Math.max(0, at < 0 ? 0 : at + by))]
    if (!item) return
    choose(item)
    scrollTo(listed.indexOf(item))
    if (item.marker.frame < view.start || item.marker.frame > view.end)
      setView(panned(view, item.marker.frame - (view.start + view.end) / 2, frames))
  }
  const judge = useCallback(({ marker }: CutHit, verdict: Verdict) => actions.judge(marker, verdict), [actions])
  const judgeAll = useCallback(
    (items: readonly CutHit[], verdict: Verdict) => actions.judgeAll(items.map(({ marker }) => marker), verdict), // prettier-ignore
    [actions],
  )
  const middle = () => cursor ?? (view.start + view.end) / 2
  const add = () => setChosenId(actions.add(middle()))
  const remove = (marker: LiveMarker) => {
    actions.remove(marker)
    setChosenId(undefined)
  }
  /** Marks the chosen hit, or a fifth of what is seen; a drag changes it. */
  const mark = () => {
    if (passage) return setPassage(undefined)
    if (chosen?.hit) return setPassage({ startFrame: chosen.hit.startFrame, endFrame: chosen.hit.endFrame })
    const half = (view.end - view.start) / 10
    const at = Math.min(view.end - half, Math.max(view.start + half, middle()))
    setPassage({ startFrame: Math.round(at - half), endFrame: Math.max(Math.round(at - half) + 1, Math.round(at + half)) })
  }
  const hearPassage = () => passage && hearClip(clipOfPassage(source, passage)).catch((error: Error) => notify(error.message))
  const keepPassage = (): MarkerId | undefined => {
    if (!passage) return undefined
    const id = actions.addPassage(passage)
    setChosenId(id)
    setPassage(undefined)
    return id
  }
  const row = useHearRow(source, unpassed, (item) => {
    setChosenId(item.marker.id)
    scrollTo(listed.indexOf(item))
  })
  const isWhole = view.end - view.start >= frames
  /** Between the whole and what was looked at last; a hit that was chosen meanwhile elsewhere comes first. */
  const toggleZoom = () => {
    if (!isWhole) {
      closeUp.current = view
      return setView({ ...wholeView(frames), gain: view.gain, isAuto: view.isAuto })
    }
    const before = closeUp.current
    const isIn = before && (!chosen || (chosen.marker.frame >= before.start && chosen.marker.frame < before.end))
    if (isIn) setView({ ...before, gain: view.gain, isAuto: view.isAuto })
    else if (chosen?.hit) setView(focused(view, chosen.hit.startFrame, chosen.hit.endFrame, frames))
  }
  const changeHeight = () => setView(nextHeight(view))
  const zoom = (factor: number) => setView(zoomed(view, factor, chosen?.marker.frame ?? (view.start + view.end) / 2, frames))
  useCutKeys({ step, add, zoom, toggleZoom, changeHeight, mark, hearPassage, chosen, actions, remove, hear, rate })

  return {
    rate, hits, listed, unpassed, kept, list, actions, view, setView, isWhole, toggleZoom, changeHeight, listView, setListView,
    chosen, chosenId, setChosenId, choose, judge, judgeAll, hear, cursor, tap, step, add, remove, row, passage, setPassage, mark, hearPassage, keepPassage,
  } // prettier-ignore
}
export type Bench = ReturnType<typeof useBench>
