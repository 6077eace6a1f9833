import { toMono } from '@heliaster/core/audio'
import type { Audio, Summary } from '@heliaster/core/audio'
import { findOnsets, foundId, gridFrames, keptMarker, liveMarkers } from '@heliaster/core/cut'
import type { Hit, LiveMarker, StrengthCurve } from '@heliaster/core/cut'
import type { CutSettings, HitSettings, Marker, MarkerId, Source, SourceEdit } from '@heliaster/core/kit'
import { useEffect, useMemo, useRef, useState } from 'react'

import { decodedAudio } from '../../audio/audio-files'
import { coreWork } from '../../audio/workers'
import { sources } from '../../stores/documents'
import type { Gesture } from '../../stores/documents'
import { makeId } from '../../stores/make-id'

export interface Analysis {
  readonly audio: Audio
  readonly mono: Float32Array
  readonly curve: StrengthCurve
  readonly summary: Summary
}

/** A hit as Cut shows it: its marker, and what is known of it once it has been described. */
export interface CutHit {
  readonly marker: LiveMarker
  readonly hit?: Hit
}

export type AnalysisState =
  | { readonly type: 'reading' }
  | { readonly type: 'failed'; readonly message: string }
  | { readonly type: 'ready'; readonly analysis: Analysis }

export function useAnalysis(source: Source): AnalysisState {
  const [state, setState] = useState<AnalysisState>({ type: 'reading' })
  const read = useRef<string>(undefined)
  useEffect(() => {
    let gone = false
    if (read.current !== source.audio) setState({ type: 'reading' }) // another kind of attack is read behind what is seen
    analyse(source).then(
      (analysis) => {
        if (gone) return
        read.current = source.audio
        setState({ type: 'ready', analysis })
      },
      (error: Error) => !gone && setState({ type: 'failed', message: error.message }),
    )
    return () => {
      gone = true
    }
    // Only other audio, or another kind of attack, is another analysis; every other field of the source is an edit of the cut.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [source.audio, source.cut.attack])
  return state
}

async function analyse(source: Source): Promise<Analysis> {
  const { audio } = await decodedAudio(source.audio)
  const { curve, summary } = await coreWork().analyse(source.audio, audio, source.cut.attack ?? 'fast')
  return { audio, mono: toMono(audio), curve, summary }
}

/** The markers as the water stands, and the hits they begin. The curve is computed once; the line only picks again. */
export function useHits(source: Source, analysis: Analysis): CutHit[] {
  const { waterLine, minGapSeconds, grid } = source.cut
  const onsets = useMemo(() => {
    const rate = analysis.audio.sampleRateHz
    if (grid) return gridFrames(grid, analysis.mono.length, rate).map((frame) => ({ frame, strength: 1 }))
    return findOnsets(analysis.mono, rate, analysis.curve, waterLine, minGapSeconds)
  }, [analysis, waterLine, minGapSeconds, grid])
  const markers = useMemo(() => liveMarkers(source, onsets), [source, onsets])
  const described = useDescribed(source, markers)
  return useMemo(() => markers.map((marker) => ({ marker, hit: described.get(marker.frame) })), [markers, described])
}

const SETTLE_MS = 120

function useDescribed(source: Source, markers: readonly LiveMarker[]): Map<number, Hit> {
  const { snap = 'attack', grid, attack } = source.cut
  const [described, setDescribed] = useState(new Map<number, Hit>())
  useEffect(() => {
    let gone = false
    const timer = setTimeout(() => {
      const frames = markers.map((marker) => marker.frame)
      const ends = markers.map((marker) => marker.endFrame)
      void coreWork()
        .describe(source.audio, frames, ends, grid ? { snap: 'none', ends: 'next' } : { snap, ends: 'tail' })
        .then((hits) => !gone && hits && setDescribed(new Map(hits.map((hit) => [hit.onsetFrame, hit]))))
    }, SETTLE_MS)
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [source.audio, markers, snap, grid, attack])
  return described
}

/** What one does to a cut. Every touch is an edit of the source: saved, undone and opened again like a kit. */
export function useCutActions(source: Source) {
  const gesture = useRef<Gesture<SourceEdit>>(undefined)
  const { id } = source
  return useMemo(() => {
    const put = (marker: LiveMarker, changes: Partial<Marker>): SourceEdit => ({
      type: 'putMarkers',
      markers: [keptMarker(idOnceKept(marker), changes)],
    })
    return {
      /** Follows a drag of a setting of the cut; `endGesture` ends it. */
      slideCut(changes: Partial<CutSettings>) {
        gesture.current ??= sources.gesture(id)
        const cut = sources.store.getState().entries[id].doc.cut
        gesture.current.set([{ type: 'setSource', fields: { cut: { ...cut, ...changes } } }])
      },
      slideMarker(marker: LiveMarker, frame: number) {
        gesture.current ??= sources.gesture(id)
        gesture.current.set([put(marker, { frame: Math.max(0, frame) })])
      },
      endGesture() {
        gesture.current?.end()
        gesture.current = undefined
      },
      nudge: (marker: LiveMarker, frames: number) => sources.edit(id, [put(marker, { frame: Math.max(0, marker.frame + frames) })]),
      pin: (marker: LiveMarker) => sources.edit(id, [put(marker, { pinned: !marker.pinned })]),
      remove: (marker: LiveMarker) => sources.edit(id, [put(marker, { removed: true })]),
      name: (marker: LiveMarker, name: string) => sources.edit(id, [put(marker, { name: name.slice(0, 120) })]),
      judge: (marker: LiveMarker) => sources.edit(id, [put(marker, { verdict: marker.verdict === 'pass' ? 'keep' : 'pass' })]),
      setVerdict: (marker: LiveMarker, verdict: 'keep' | 'pass') => sources.edit(id, [put(marker, { verdict })]),
      /** Many markers in one step: away, or passed. */
      removeAll: (markers: readonly LiveMarker[]) =>
        sources.edit(id, [{ type: 'putMarkers', markers: markers.map((marker) => keptMarker(idOnceKept(marker), { removed: true })) }]),
      passAll: (markers: readonly LiveMarker[]) =>
        sources.edit(id, [{ type: 'putMarkers', markers: markers.map((marker) => keptMarker(idOnceKept(marker), { verdict: 'pass' })) }]),
      add(frame: number) {
        const marker: Marker = { id: makeId<MarkerId>('marker'), frame: Math.round(frame), origin: 'hand', pinned: true, removed: false }
        sources.edit(id, [{ type: 'putMarkers', markers: [marker] }])
        return marker.id
      },
      /** How the recording is cut: what the strikes are read with, and a grid instead of them. */
      setCut: (changes: Partial<CutSettings>) =>
        sources.edit(id, [{ type: 'setSource', fields: { cut: { ...sources.store.getState().entries[id].doc.cut, ...changes } } }]),
      /** Repairs of many hits in one gesture, which ends with `endGesture`. */
      slideClips(changes: readonly { readonly marker: LiveMarker; readonly clip: HitSettings }[]) {
        gesture.current ??= sources.gesture(id)
        gesture.current.set([{ type: 'putMarkers', markers: changes.map(({ marker, clip }) => keptMarker(idOnceKept(marker), { clip })) }])
      },
      nameAll: (names: readonly { readonly marker: LiveMarker; readonly name: string }[]) =>
        sources.edit(id, [
          { type: 'putMarkers', markers: names.map(({ marker, name }) => keptMarker(idOnceKept(marker), { name: name.slice(0, 120) })) },
        ]),
    }
  }, [id])
}
export type CutActions = ReturnType<typeof useCutActions>

/** A found marker keeps the id of the place where it was found, so that it stays chosen when it is written down. */
function idOnceKept(marker: LiveMarker): LiveMarker {
  return marker.kept ? marker : { ...marker, id: foundId(marker.frame) }
}
