import { columnsOf } from '@heliaster/core/audio'
import type { LiveMarker } from '@heliaster/core/cut'
import type { MarkerId } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'
import { View as NativeView } from 'react-native'

import { Canvas } from '../../ui/Canvas'
import { usePalette } from '../../ui/theme'
import type { Palette } from '../../ui/theme'
import type { Analysis, CutHit } from './use-source-cut'
import { useWavePointers } from './use-wave-pointers'
import { frameAt, panned, xOf, zoomed } from './view'
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
  readonly onSlideEnd: (marker: LiveMarker) => void
}

/** Markers are taken by their flags in this strip on top of the wave. */
const FLAGS_PX = 34
const REACH_PX = 22

/** The waveform with its markers: pan by a drag, zoom by two fingers or the wheel, markers by their flags. */
export function Waveform(props: Props) {
  const { analysis, hits, view, onView, chosen, cursor, height } = props
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [size, setSize] = useState(0)
  const grabbed = useRef<LiveMarker>(undefined)
  const frames = analysis.mono.length
  const width = () => canvas.current?.clientWidth ?? 1
  const ref = useWavePointers({
    onTap: (x) => props.onTap(frameAt(view, x, width())),
    canGrab(x, y) {
      grabbed.current = y < FLAGS_PX ? nearest(hits, view, x, width()) : undefined
      return grabbed.current !== undefined
    },
    onGrabMove: (x) => grabbed.current && props.onSlideMarker(grabbed.current, Math.round(frameAt(view, x, width()))),
    onGrabEnd: () => grabbed.current && props.onSlideEnd(grabbed.current),
    onPan: (byX) => onView(panned(view, (-byX / width()) * (view.end - view.start), frames)),
    onZoom: (factor, x) => onView(zoomed(view, factor, frameAt(view, x, width()), frames)),
  })
  useEffect(() => {
    if (canvas.current) draw(canvas.current, analysis, hits, view, palette, chosen, cursor)
  }, [analysis, hits, view, palette, chosen, cursor, size])
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

function draw(
  canvas: HTMLCanvasElement,
  analysis: Analysis,
  hits: readonly CutHit[],
  view: View,
  palette: Palette,
  chosen?: MarkerId,
  cursor?: number,
): void {
  const context = canvas.getContext('2d')!
  const { width, height } = canvas
  const scale = width / Math.max(1, canvas.clientWidth)
  const flags = FLAGS_PX * scale
  const middle = flags + (height - flags) / 2
  const half = (height - flags) / 2 - 2 * scale
  context.clearRect(0, 0, width, height)
  drawHits(context, hits, view, palette, width, flags, height, chosen)
  context.fillStyle = palette.line
  context.fillRect(0, middle, width, scale)
  drawWave(context, analysis, view, palette, width, middle, half)
  const seen = hits.filter(({ marker }) => marker.frame >= view.start && marker.frame <= view.end).length
  const crowding = Math.min(1, Math.max(0.5, width / scale / 14 / Math.max(1, seen))) // flags shrink where they would touch
  for (const { marker } of hits) {
    const x = xOf(view, marker.frame, width)
    if (x >= -20 * scale && x <= width + 20 * scale)
      drawMarker(context, marker, x, marker.id === chosen, palette, scale * crowding, flags, height)
  }
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
  for (const { marker, hit } of hits) {
    if (!hit || marker.verdict === 'pass') continue
    const x = xOf(view, hit.startFrame, width)
    const end = xOf(view, hit.endFrame, width)
    if (end < 0 || x > width) continue
    context.fillStyle = marker.id === chosen ? palette.water : palette.surface
    context.fillRect(x, top, Math.max(1, end - x), height - top)
  }
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
  for (let x = 0; x < width; x++) {
    const top = Math.min(1, high[x] * view.gain)
    const bottom = Math.max(-1, low[x] * view.gain)
    context.fillRect(x, middle - top * half, 1, Math.max(1, (top - bottom) * half))
  }
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
