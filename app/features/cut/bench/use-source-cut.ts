import type { Audio, Summary } from '@heliaster/core/audio'
import { attacksOf, findHits, gridMarks, handId, keptMarker, lineOf, liveMarkers, placesOf } from '@heliaster/core/cut'
import type { Hit, LiveMarker, Places, StrengthCurve, Strikes } from '@heliaster/core/cut'
import { wasCoded } from '@heliaster/core/kit'
import type { CutSettings, HitSettings, Marker, Source, SourceEdit } from '@heliaster/core/kit'
import { useEffect, useMemo, useRef, useState } from 'react'

import { decodedAudio } from '../../../audio/files/audio-files'
import { coreWork } from '../../../audio/workers/workers'
import { sources } from '../../../documents'
import { rememberCut } from '../../../documents/last-cut'
import type { Gesture } from '../../../documents/gesture'
import { makeId } from '../../../documents/make-id'
import { cutLooks } from './looks'

export interface Analysis {
  readonly audio: Audio
  readonly mono: Float32Array
  readonly summary: Summary
  /** Empty until the strikes of the recording have been listened for. */
  readonly curve: StrengthCurve
  /** The curve as the water line sees it: each rise as high as its strike counts; and what pictures of it are drawn from. */
  readonly shown: StrengthCurve
  readonly levels: Summary
  readonly strikes: Strikes
  /** Where strikes begin that were placed before: moving the line looks at none of them again. */
  readonly places: Places
}

const UNHEARD: StrengthCurve = { hopFrames: 1, strength: new Float32Array(0) }
const NO_STRIKES: Strikes = { hopFrames: 1, strikes: [], line: 0.3 }
const NO_LEVELS: Summary = { frames: 0, levels: [{ framesPerPoint: 1, low: new Float32Array(0), high: new Float32Array(0) }] }
const nothingHeard = () => ({ curve: UNHEARD, shown: UNHEARD, levels: NO_LEVELS, strikes: NO_STRIKES, places: new Map<number, number>() })
export const isHeard = ({ curve }: Analysis) => curve !== UNHEARD

/** A hit as Cut shows it: its marker, and what is known of it once it has been described. */
export interface CutHit {
  readonly marker: LiveMarker
  readonly hit?: Hit
}

export type AnalysisState =
  | { readonly type: 'reading' }
  | { readonly type: 'failed'; readonly message: string }
  | { readonly type: 'ready'; readonly analysis: Analysis }

/** A recording is seen as soon as it has been read; its strikes come when they have been listened for. */
export function useAnalysis(source: Source): AnalysisState {
  const [state, setState] = useState<AnalysisState>({ type: 'reading' })
  const seen = useRef<{ readonly hash: string; readonly analysis: Analysis }>(undefined)
  useEffect(() => {
    let gone = false
    const show = (analysis: Analysis) => {
      if (gone) return
      seen.current = { hash: source.audio, analysis }
      setState({ type: 'ready', analysis })
    }
    // Another way of listening comes behind what is seen.
    const before = seen.current?.hash === source.audio ? seen.current.analysis : undefined
    if (!before) setState({ type: 'reading' })
    analyse(source, before, show).catch((error: Error) => !gone && setState({ type: 'failed', message: error.message }))
    return () => {
      gone = true
    }
    // Only other audio, or another way of listening, is another analysis; every other field of the source is an edit of the cut.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [source.audio, source.cut.attack, source.cut.inTime])
  return state
}

async function analyse(source: Source, before: Analysis | undefined, show: (analysis: Analysis) => void): Promise<void> {
  const { audio } = await decodedAudio(source.audio)
  const { mono, summary } = before ?? (await coreWork().look(source.audio, audio))
  const seen: Analysis = before ?? { audio, mono, summary, ...nothingHeard() }
  if (!before) show(seen)
  const { attack, inTime } = source.cut
  const listen = () => coreWork().listen(source.audio, { attack, inTime, isCoded: wasCoded(source.info) })
  const heard = (await listen()) ?? (await coreWork().look(source.audio, audio), await listen())
  if (heard) show({ ...seen, ...heard })
}

/** The markers as the water stands, and the hits they begin. The curve is computed once; the line only picks again. */
export function useHits(source: Source, analysis: Analysis): CutHit[] {
  const { minGapSeconds, grid, marksStay } = source.cut
  const waterLine = lineOf(source.cut, analysis.strikes)
  const onsets = useMemo(() => {
    const rate = analysis.audio.sampleRateHz
    const { places } = analysis
    if (grid) return gridMarks(grid, analysis.mono.length, rate, marksStay ? [] : attacksOf(analysis.mono, rate, analysis, places))
    return isHeard(analysis) ? findHits(analysis.mono, rate, analysis.strikes, waterLine, minGapSeconds, places) : []
  }, [analysis, waterLine, minGapSeconds, grid, marksStay])
  const markers = useMemo(() => liveMarkers(source, onsets), [source, onsets])
  const described = useDescribed(source, markers)
  return useMemo(() => markers.map((marker) => ({ marker, hit: described.get(marker.frame) })), [markers, described])
}

const SETTLE_MS = 120

function useDescribed(source: Source, markers: readonly LiveMarker[]): Map<number, Hit> {
  const { snap = 'attack', grid, attack, inTime, marksStay, passedEnd } = source.cut
  const [described, setDescribed] = useState(new Map<number, Hit>())
  useEffect(() => {
    let gone = false
    const timer = setTimeout(() => {
      const frames = markers.map((marker) => marker.frame)
      const ends = markers.map((marker) => marker.endFrame)
      const over = passedEnd ? [] : markers.filter((marker) => marker.verdict === 'pass').map((marker) => marker.frame)
      void coreWork()
        .describe(source.audio, frames, ends, { ...placesOf(source.cut), over })
        .then((hits) => !gone && hits && setDescribed(new Map(hits.map((hit) => [hit.onsetFrame, hit]))))
    }, SETTLE_MS)
    return () => {
      gone = true
      clearTimeout(timer)
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [source.audio, markers, snap, grid, attack, inTime, marksStay, passedEnd])
  return described
}

/** What one does to a cut. Every touch is an edit of the source: saved, undone and opened again like a kit. */
export function useCutActions(source: Source) {
  const gesture = useRef<Gesture<SourceEdit>>(undefined)
  const isCutChanging = useRef(false)
  const { id } = source
  return useMemo(() => {
    const put = (marker: LiveMarker, changes: Partial<Marker>): SourceEdit => ({
      type: 'putMarkers',
      markers: [keptMarker(marker, changes)],
    })
    return {
      /** Follows a drag of a setting of the cut; `endGesture` ends it. */
      slideCut(changes: Partial<CutSettings>) {
        gesture.current ??= sources.gesture(id)
        isCutChanging.current = true
        const cut = sources.store.getState().entries[id].doc.cut
        gesture.current.set([{ type: 'setSource', fields: { cut: { ...cut, ...changes } } }])
      },
      slideMarker(marker: LiveMarker, frame: number) {
        gesture.current ??= sources.gesture(id)
        gesture.current.set([put(marker, movedTo(marker, frame, source.info.frames))])
      },
      /** The end of a hit follows a drag. */
      slideTail(marker: LiveMarker, frame: number) {
        gesture.current ??= sources.gesture(id)
        gesture.current.set([put(marker, { endFrame: Math.max(marker.frame + 1, frame) })])
      },
      /** Ends a hit at a frame from now on, or, without one, where its tail is found to end. */
      setEnd: (marker: LiveMarker, endFrame?: number) =>
        sources.edit(id, [
          put(marker, { endFrame: endFrame === undefined ? undefined : Math.max(marker.frame + 1, Math.round(endFrame)) }),
        ]),
      endGesture() {
        gesture.current?.end()
        gesture.current = undefined
        if (isCutChanging.current) rememberCut(sources.store.getState().entries[id].doc.cut)
        isCutChanging.current = false
      },
      nudge: (marker: LiveMarker, frames: number) =>
        sources.edit(id, [put(marker, movedTo(marker, marker.frame + frames, source.info.frames))]),
      pin: (marker: LiveMarker) => sources.edit(id, [put(marker, { pinned: !marker.pinned })]),
      remove: (marker: LiveMarker) => sources.edit(id, [put(marker, { removed: true })]),
      name: (marker: LiveMarker, name: string) => sources.edit(id, [put(marker, { name: name.slice(0, 120) })]),
      /** Judged so, or, where it is already, not judged any more. */
      judge: (marker: LiveMarker, verdict: 'keep' | 'pass') =>
        sources.edit(id, [put(marker, { verdict: marker.verdict === verdict ? undefined : verdict })]),
      setVerdict: (marker: LiveMarker, verdict: 'keep' | 'pass') => sources.edit(id, [put(marker, { verdict })]),
      /** Many markers in one step: away, or judged so. */
      removeAll: (markers: readonly LiveMarker[]) =>
        sources.edit(id, [{ type: 'putMarkers', markers: markers.map((marker) => keptMarker(marker, { removed: true })) }]),
      judgeAll: (markers: readonly LiveMarker[], verdict: 'keep' | 'pass') =>
        sources.edit(id, [{ type: 'putMarkers', markers: markers.map((marker) => keptMarker(marker, { verdict })) }]),
      add(frame: number) {
        const marker: Marker = {
          id: handId(Math.round(frame), makeId('marker')),
          frame: Math.round(frame),
          origin: 'hand',
          pinned: true,
          removed: false,
        }
        sources.edit(id, [{ type: 'putMarkers', markers: [marker] }])
        return marker.id
      },
      /** Strikes inside a hit become hits of their own. */
      cutOut(frames: readonly number[]) {
        const markers = frames.map((frame): Marker => ({
          id: handId(frame, makeId('marker')),
          frame,
          origin: 'hand',
          pinned: true,
          removed: false,
        }))
        sources.edit(id, [{ type: 'putMarkers', markers }])
      },
      /** A passage becomes a hit of its own, which begins and ends where it was dragged. */
      addPassage({ startFrame, endFrame }: { readonly startFrame: number; readonly endFrame: number }) {
        const marker: Marker = {
          id: handId(startFrame, makeId('marker')),
          frame: startFrame,
          endFrame,
          origin: 'hand',
          pinned: true,
          removed: false,
        }
        sources.edit(id, [{ type: 'putMarkers', markers: [marker] }])
        return marker.id
      },
      /** How the recording is cut: what the strikes are read with, and a grid instead of them. */
      setCut(changes: Partial<CutSettings>) {
        const cut = { ...sources.store.getState().entries[id].doc.cut, ...changes }
        sources.edit(id, [{ type: 'setSource', fields: { cut } }])
        rememberCut(cut)
      },
      /** Repairs of many hits in one gesture, which ends with `endGesture`. */
      slideClips(changes: readonly { readonly marker: LiveMarker; readonly clip: HitSettings }[]) {
        gesture.current ??= sources.gesture(id)
        gesture.current.set([{ type: 'putMarkers', markers: changes.map(({ marker, clip }) => keptMarker(marker, { clip })) }])
      },
      nameAll: (names: readonly { readonly marker: LiveMarker; readonly name: string }[]) =>
        sources.edit(id, [
          { type: 'putMarkers', markers: names.map(({ marker, name }) => keptMarker(marker, { name: name.slice(0, 120) })) },
        ]),
    }
  }, [id, source.info.frames])
}
export type CutActions = ReturnType<typeof useCutActions>

/** A window that was given its end is moved as a whole, unless its end is to stay where it is. */
function movedTo(marker: LiveMarker, frame: number, frames: number): Partial<Marker> {
  const to = Math.min(frames - 1, Math.max(0, frame))
  if (marker.endFrame === undefined) return { frame: to }
  if (cutLooks.getState().endsStay) return { frame: Math.min(to, marker.endFrame - 1) }
  return { frame: to, endFrame: Math.min(frames, marker.endFrame + to - marker.frame) }
}
