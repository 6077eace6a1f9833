import { columnsOf } from '@heliaster/core/audio'
import type { LiveMarker } from '@heliaster/core/cut'
import type { MarkerId } from '@heliaster/core/kit'

import type { Palette } from '../../../ui/theme/theme'
import type { Analysis, CutHit } from '../bench/use-source-cut'
import { gainToFill, xOf } from './view'
import type { View } from './view'

/** A stretch of the recording that someone dragged over. Frames of the file. */
export interface Passage {
  readonly startFrame: number
  readonly endFrame: number
}

/** What of a recording is drawn. */
export interface Drawn {
  readonly analysis: Analysis
  readonly hits: readonly CutHit[]
  readonly view: View
  readonly chosen?: MarkerId
  /** Where it sounds, frame of the file. */
  readonly cursor?: number
  readonly passage?: Passage
}

/** Markers are taken by their flags in this strip on top of the wave. */
export const FLAGS_PX = 34
const SECOND_PX = 10

/** What is drawn on, in its own pixels, of which each of the page's has `scale`. */
interface Ground {
  readonly pen: CanvasRenderingContext2D
  readonly palette: Palette
  readonly width: number
  readonly height: number
  readonly scale: number
  /** Where the strip of flags ends, from the top. */
  readonly flags: number
  /** Where a frame lies. */
  readonly at: (frame: number) => number
}

/** Where a hit ends: where it was dragged to, before all else. */
export function endOf({ marker, hit }: CutHit): number {
  return marker.endFrame ?? hit?.endFrame ?? marker.frame
}

/** Draws a recording with its hits, from what lies behind to what is held in hand. */
export function drawRecording(canvas: HTMLCanvasElement, palette: Palette, drawn: Drawn): void {
  const { width, height } = canvas
  const scale = width / Math.max(1, canvas.clientWidth)
  const at = (frame: number) => xOf(drawn.view, frame, width)
  const ground: Ground = { pen: canvas.getContext('2d')!, palette, width, height, scale, flags: FLAGS_PX * scale, at }
  ground.pen.clearRect(0, 0, width, height)
  drawHits(ground, drawn)
  if (drawn.passage) drawPassage(ground, drawn.passage)
  drawWave(ground, drawn)
  drawMarkers(ground, drawn)
  drawSeconds(ground, drawn)
  const own = drawn.hits.find(({ marker }) => marker.id === drawn.chosen)
  if (own?.hit) drawFoot(ground, at(endOf(own)))
  if (drawn.cursor === undefined) return
  ground.pen.fillStyle = palette.ink
  ground.pen.fillRect(at(drawn.cursor), ground.flags, scale, height - ground.flags)
}

function drawHits({ pen, palette, width, height, flags, at }: Ground, { hits, chosen }: Drawn): void {
  let drawnTo = -Infinity
  for (const item of hits) {
    const { marker, hit } = item
    if (!hit || marker.verdict === 'pass') continue
    const [x, end] = [at(hit.startFrame), at(endOf(item))]
    if (end < 0 || x > width || (end < drawnTo + 1 && marker.id !== chosen)) continue
    drawnTo = Math.max(drawnTo, end)
    pen.fillStyle = marker.id === chosen ? palette.water : palette.surface
    pen.fillRect(x, flags, Math.max(1, end - x), height - flags)
  }
}

function drawPassage({ pen, palette, height, scale, flags, at }: Ground, { startFrame, endFrame }: Passage): void {
  const [from, to] = [at(startFrame), at(endFrame)]
  pen.fillStyle = palette.kelpWash
  pen.fillRect(from, flags, Math.max(1, to - from), height - flags)
  pen.fillStyle = palette.kelp
  for (const edge of [from, to]) {
    pen.fillRect(edge - scale, flags, 2 * scale, height - flags)
    drawDot(pen, edge, flags + (height - flags) / 2, 7 * scale)
    pen.fill()
  }
}

function drawWave({ pen, palette, width, height, scale, flags }: Ground, { analysis, view }: Drawn): void {
  const middle = flags + (height - flags) / 2
  const half = (height - flags) / 2 - 2 * scale
  pen.fillStyle = palette.line
  pen.fillRect(0, middle, width, scale)
  pen.fillStyle = palette.waterInk
  const { low, high } = columnsOf(analysis.summary, analysis.mono, view.start, view.end, width)
  const gain = view.isAuto ? gainToFill(low, high) : view.gain
  // One outline filled at once is much faster than a bar for each pixel.
  pen.beginPath()
  for (let x = 0; x < width; x++) pen.lineTo(x + 0.5, middle - Math.min(1, high[x] * gain) * half - 0.5)
  for (let x = width - 1; x >= 0; x--) pen.lineTo(x + 0.5, middle - Math.max(-1, low[x] * gain) * half + 0.5)
  pen.fill()
}

function drawMarkers(ground: Ground, { hits, view, chosen }: Drawn): void {
  const { width, scale, at } = ground
  const seen = hits.filter(({ marker }) => marker.frame >= view.start && marker.frame <= view.end).length
  const crowding = Math.min(1, Math.max(0.5, width / scale / 14 / Math.max(1, seen))) // flags shrink where they would touch
  let drawnAt = -Infinity
  for (const { marker } of hits) {
    const x = at(marker.frame)
    const isChosen = marker.id === chosen
    if (x < -20 * scale || x > width + 20 * scale || (x - drawnAt < scale && !isChosen)) continue // nobody sees two on one pixel
    drawMarker({ ...ground, scale: scale * crowding }, marker, x, isChosen)
    drawnAt = x
  }
}

/** Found markers are open flags, pinned and hand-made ones full; a passed hit's flag lies low. */
function drawMarker({ pen, palette, height, scale, flags }: Ground, marker: LiveMarker, x: number, isChosen: boolean): void {
  const color = isChosen ? palette.coral : marker.verdict === 'pass' ? palette.muted : palette.kelp
  pen.fillStyle = color
  pen.strokeStyle = color
  pen.lineWidth = 1.5 * scale
  pen.globalAlpha = marker.verdict === 'pass' ? 0.5 : 1
  pen.fillRect(x - (isChosen ? scale : 0.5 * scale), flags * 0.5, isChosen ? 2 * scale : scale, height - flags * 0.5)
  drawDot(pen, x, flags * 0.45, (isChosen ? 8 : 6) * scale)
  if (marker.pinned || marker.origin !== 'found') pen.fill()
  else {
    pen.fillStyle = palette.paper
    pen.fill()
    pen.stroke()
  }
  pen.globalAlpha = 1
}

/** Strikes that belong to a hit: short strokes that rise from the ground. */
function drawSeconds({ pen, palette, width, height, scale, at }: Ground, { hits, view }: Drawn): void {
  pen.fillStyle = palette.coral
  let drawnAt = -Infinity
  for (const { marker, hit } of hits) {
    if (!hit || marker.verdict === 'pass' || hit.endFrame < view.start || hit.startFrame > view.end) continue
    for (const frame of hit.secondFrames) {
      const x = at(frame)
      if (x < 0 || x > width || x - drawnAt < 3 * scale) continue
      pen.fillRect(x, height - SECOND_PX * scale, 1.5 * scale, SECOND_PX * scale)
      drawnAt = x
    }
  }
}

/** The end of the chosen hit, with a foot to drag it by. */
function drawFoot({ pen, palette, height, scale, flags }: Ground, x: number): void {
  pen.fillStyle = palette.coral
  pen.fillRect(x - scale, flags, 2 * scale, height - flags)
  drawDot(pen, x, height - 9 * scale, 8 * scale)
  pen.fill()
}

function drawDot(pen: CanvasRenderingContext2D, x: number, y: number, radius: number): void {
  pen.beginPath()
  pen.arc(x, y, radius, 0, 2 * Math.PI)
}
