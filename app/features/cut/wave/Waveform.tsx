import type { LiveMarker } from '@heliaster/core/cut'
import type { MarkerId } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'
import { View as NativeView } from 'react-native'

import { Canvas } from '../../../ui/drawing/Canvas'
import { usePalette } from '../../../ui/theme/theme'
import type { Analysis, CutHit } from '../bench/use-source-cut'
import { drawRecording, endOf, FLAGS_PX } from './draw-recording'
import type { Passage } from './draw-recording'
import { useWavePointers } from './use-wave-pointers'
import { frameAt, panned, taller, xOf, zoomed } from './view'
import type { View } from './view'

interface Props {
  readonly analysis: Analysis
  readonly hits: readonly CutHit[]
  readonly view: View
  readonly onView: (view: View) => void
  readonly chosen?: MarkerId
  readonly cursor?: number
  readonly height: number
  readonly onTap: (frame: number) => void
  readonly onSlideMarker: (marker: LiveMarker, frame: number) => void
  /** The end of the chosen hit is dragged. */
  readonly onSlideTail: (marker: LiveMarker, frame: number) => void
  readonly onSlid: () => void
  readonly passage?: Passage
  readonly onPassage: (passage: Passage) => void
}

/** The end of the chosen hit is taken by its foot. */
const FOOT_PX = 40
const REACH_PX = 22

type Grabbed =
  | { readonly kind: 'flag' | 'tail'; readonly marker: LiveMarker }
  /** One edge follows the finger, the other stays. */
  | { readonly kind: 'passage'; readonly otherFrame: number }

/** The waveform with its markers: pan by a drag, zoom by two fingers or the wheel, markers by their flags. */
export function Waveform(props: Props) {
  const { analysis, hits, view, onView, chosen, cursor, height, passage } = props
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [size, setSize] = useState(0)
  const grabbed = useRef<Grabbed>(undefined)
  const frames = analysis.mono.length
  const width = () => canvas.current?.clientWidth ?? 1
  const place = (x: number) => Math.min(frames, Math.max(0, Math.round(frameAt(view, x, width()))))
  const ref = useWavePointers({
    onTap: (x) => props.onTap(frameAt(view, x, width())),
    canGrab(x, y, isMarking) {
      grabbed.current = grabAt(x, y, isMarking)
      return grabbed.current !== undefined
    },
    onGrabMove(x) {
      const at = grabbed.current
      if (at?.kind === 'flag') props.onSlideMarker(at.marker, place(x))
      if (at?.kind === 'tail') props.onSlideTail(at.marker, place(x))
      if (at?.kind === 'passage') {
        const [startFrame, endFrame] = [place(x), at.otherFrame].sort((a, b) => a - b)
        if (endFrame > startFrame) props.onPassage({ startFrame, endFrame })
      }
    },
    onGrabEnd: () => grabbed.current?.kind !== 'passage' && props.onSlid(),
    onPan: (byX) => onView(panned(view, (-byX / width()) * (view.end - view.start), frames)),
    onZoom: (factor, x) => onView(zoomed(view, factor, frameAt(view, x, width()), frames)),
    onHeight: (factor) => onView(taller(view, factor)),
  })
  const isNear = (x: number, frame: number) => Math.abs(xOf(view, frame, width()) - x) < REACH_PX
  const grabAt = (x: number, y: number, isMarking: boolean): Grabbed | undefined => {
    if (isMarking) return { kind: 'passage', otherFrame: place(x) }
    if (y < FLAGS_PX) {
      const marker = nearest(hits, view, x, width())
      return marker && { kind: 'flag', marker }
    }
    const own = y > height - FOOT_PX ? hits.find(({ marker }) => marker.id === chosen) : undefined
    if (own?.hit && isNear(x, endOf(own))) return { kind: 'tail', marker: own.marker }
    if (passage && isNear(x, passage.endFrame)) return { kind: 'passage', otherFrame: passage.startFrame }
    if (passage && isNear(x, passage.startFrame)) return { kind: 'passage', otherFrame: passage.endFrame }
    return undefined
  }
  useEffect(() => {
    if (canvas.current && size > 0) {
      drawRecording(canvas.current, palette, { analysis, hits, view, chosen, cursor, passage })
      performance.mark('heliaster-wave-drawn') // what the bench waits for
    }
  }, [analysis, hits, view, palette, chosen, cursor, passage, size])
  return (
    <NativeView ref={ref} style={{ height }}>
      <Canvas ref={canvas} height={height} label={`Waveform, ${hits.length} hits`} onSize={(w, h) => setSize(w * 10000 + h)} />
    </NativeView>
  )
}

function nearest(hits: readonly CutHit[], view: View, x: number, width: number): LiveMarker | undefined {
  let best: LiveMarker | undefined
  let distance = REACH_PX
  for (const { marker } of hits) {
    const away = Math.abs(xOf(view, marker.frame, width) - x)
    if (away < distance) {
      distance = away
      best = marker
    }
  }
  return best
}
