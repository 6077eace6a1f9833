import { columnsOf } from '@heliaster/core/audio'
import type { LiveMarker } from '@heliaster/core/cut'
import type { MarkerId } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'
import { View as NativeView } from 'react-native'

import { Canvas } from '../../../ui/drawing/Canvas'
import { usePalette } from '../../../ui/theme/theme'
import type { Palette } from '../../../ui/theme/theme'
import type { Analysis, CutHit } from '../bench/use-source-cut'
import { useWavePointers } from './use-wave-pointers'
import { frameAt, gainToFill, panned, taller, xOf, zoomed } from './view'
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

/** A stretch of the recording that someone dragged over. Frames of the file. */
export interface Passage {
  readonly startFrame: number
  readonly endFrame: number
}

/** Markers are taken by their flags in this strip on top of the wave. */
const FLAGS_PX = 34
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
      draw(canvas.current, analysis, hits, view, palette, chosen, cursor, passage)
      performance.mark('heliaster-wave-drawn') // what the bench waits for
    }
  }, [analysis, hits, view, palette, chosen, cursor, passage, size])
  return (
    <NativeView ref={ref} style={{ height }}>
      <Canvas ref={canvas} height={height} label={`Waveform, ${hits.length} hits`} onSize={(w, h) => setSize(w * 10000 + h)} />
    </NativeView>
  )
}

/** Where a hit ends: where it was dragged to, before all else. */
function endOf({ marker, hit }: CutHit): number {
  return marker.endFrame ?? hit?.endFrame ?? marker.frame
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

function draw(
  canvas: HTMLCanvasElement,
  analysis: Analysis,
  hits: readonly CutHit[],
  view: View,
  palette: Palette,
  chosen?: MarkerId,
  cursor?: number,
  passage?: Passage,
): void {
  const context = canvas.getContext('2d')!
  const { width, height } = canvas
  const scale = width / Math.max(1, canvas.clientWidth)
  const flags = FLAGS_PX * scale
  const middle = flags + (height - flags) / 2
  const half = (height - flags) / 2 - 2 * scale
  context.clearRect(0, 0, width, height)
  drawHits(context, hits, view, palette, width, flags, height, chosen)
  if (passage) drawPassage(context, passage, view, palette, width, flags, height, scale)
  context.fillStyle = palette.line
  context.fillRect(0, middle, width, scale)
  drawWave(context, analysis, view, palette, width, middle, half)
  const seen = hits.filter(({ marker }) => marker.frame >= view.start && marker.frame <= view.end).length
  const crowding = Math.min(1, Math.max(0.5, width / scale / 14 / Math.max(1, seen))) // flags shrink where they would touch
  let drawnAt = -Infinity
  for (const { marker } of hits) {
    const x = xOf(view, marker.frame, width)
    const isChosen = marker.id === chosen
    if (x < -20 * scale || x > width + 20 * scale || (x - drawnAt < scale && !isChosen)) continue // nobody sees two on one pixel
    drawMarker(context, marker, x, isChosen, palette, scale * crowding, flags, height)
    drawnAt = x
  }
  drawSeconds(context, hits, view, palette, width, height, scale)
  const own = hits.find(({ marker }) => marker.id === chosen)
  if (own?.hit) drawFoot(context, xOf(view, endOf(own), width), flags, height, scale, palette)
  if (cursor !== undefined) {
    context.fillStyle = palette.ink
    context.fillRect(xOf(view, cursor, width), flags, scale, height - flags)
  }
}

function drawHits(
  context: CanvasRenderingContext2D,
  hits: readonly CutHit[],
  view: View,
  palette: Palette,
  width: number,
  top: number,
  height: number,
  chosen?: MarkerId,
): void {
  let drawnTo = -Infinity
  for (const item of hits) {
    const { marker, hit } = item
    if (!hit || marker.verdict === 'pass') continue
    const x = xOf(view, hit.startFrame, width)
    const end = xOf(view, endOf(item), width)
    if (end < 0 || x > width || (end < drawnTo + 1 && marker.id !== chosen)) continue
    drawnTo = Math.max(drawnTo, end)
    context.fillStyle = marker.id === chosen ? palette.water : palette.surface
    context.fillRect(x, top, Math.max(1, end - x), height - top)
  }
}

const SECOND_PX = 10

/** Strikes that belong to a hit: short strokes that rise from the ground. */
function drawSeconds(
  context: CanvasRenderingContext2D,
  hits: readonly CutHit[],
  view: View,
  palette: Palette,
  width: number,
  height: number,
  scale: number,
): void {
  context.fillStyle = palette.coral
  let drawnAt = -Infinity
  for (const { marker, hit } of hits) {
    if (!hit || marker.verdict === 'pass' || hit.endFrame < view.start || hit.startFrame > view.end) continue
    for (const frame of hit.secondFrames) {
      const x = xOf(view, frame, width)
      if (x < 0 || x > width || x - drawnAt < 3 * scale) continue
      context.fillRect(x, height - SECOND_PX * scale, 1.5 * scale, SECOND_PX * scale)
      drawnAt = x
    }
  }
}

function drawPassage(
  context: CanvasRenderingContext2D,
  { startFrame, endFrame }: Passage,
  view: View,
  palette: Palette,
  width: number,
  top: number,
  height: number,
  scale: number,
): void {
  const [from, to] = [xOf(view, startFrame, width), xOf(view, endFrame, width)]
  context.fillStyle = palette.kelpWash
  context.fillRect(from, top, Math.max(1, to - from), height - top)
  context.fillStyle = palette.kelp
  for (const edge of [from, to]) {
    context.fillRect(edge - scale, top, 2 * scale, height - top)
    context.beginPath()
    context.arc(edge, top + (height - top) / 2, 7 * scale, 0, 2 * Math.PI)
    context.fill()
  }
}

/** The end of the chosen hit, with a foot to drag it by. */
function drawFoot(context: CanvasRenderingContext2D, x: number, top: number, height: number, scale: number, palette: Palette): void {
  context.fillStyle = palette.coral
  context.fillRect(x - scale, top, 2 * scale, height - top)
  context.beginPath()
  context.arc(x, height - 9 * scale, 8 * scale, 0, 2 * Math.PI)
  context.fill()
}

function drawWave(
  context: CanvasRenderingContext2D,
  analysis: Analysis,
  view: View,
  palette: Palette,
  width: number,
  middle: number,
  half: number,
): void {
  context.fillStyle = palette.waterInk
  const { low, high } = columnsOf(analysis.summary, analysis.mono, view.start, view.end, width)
  const gain = view.isAuto ? gainToFill(low, high) : view.gain
  // One outline filled at once is much faster than a bar for each pixel.
  context.beginPath()
  for (let x = 0; x < width; x++) context.lineTo(x + 0.5, middle - Math.min(1, high[x] * gain) * half - 0.5)
  for (let x = width - 1; x >= 0; x--) context.lineTo(x + 0.5, middle - Math.max(-1, low[x] * gain) * half + 0.5)
  context.fill()
}

/** Found markers are open flags, pinned and hand-made ones full; a passed hit's flag lies low. */
function drawMarker(
  context: CanvasRenderingContext2D,
  marker: LiveMarker,
  x: number,
  isChosen: boolean,
  palette: Palette,
  scale: number,
  flags: number,
  height: number,
): void {
  const color = isChosen ? palette.coral : marker.verdict === 'pass' ? palette.muted : palette.kelp
  context.fillStyle = color
  context.strokeStyle = color
  context.lineWidth = 1.5 * scale
  context.globalAlpha = marker.verdict === 'pass' ? 0.5 : 1
  context.fillRect(x - (isChosen ? scale : 0.5 * scale), flags * 0.5, isChosen ? 2 * scale : scale, height - flags * 0.5)
  context.beginPath()
  context.arc(x, flags * 0.45, (isChosen ? 8 : 6) * scale, 0, 2 * Math.PI)
  if (marker.pinned || marker.origin !== 'found') context.fill()
  else {
    context.fillStyle = palette.paper
    context.fill()
    context.stroke()
  }
  context.globalAlpha = 1
}
