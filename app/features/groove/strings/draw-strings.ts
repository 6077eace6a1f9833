import { divisionOf, grooveBeats, lapBeats, stepsOf, stringBeats, stringOf } from '@heliaster/core/groove'
import type { BeadId, Groove, GrooveString } from '@heliaster/core/kit'

import type { Palette } from '../../../ui/theme/theme'
import { drawBead } from './draw-beads'
import { beadX, beadY, END_PX, lineY, ROW_PX, rowsIn, rowTop, RULER_PX, stepPx, stepX } from './strings-layout'
import type { Place, Sight, StringsLayout } from './strings-layout'

export interface StringsLook {
  readonly chosen: ReadonlySet<BeadId>
  /** Where keys are; seen while the strings have the focus. */
  readonly cursor?: Place
  /** Beads that are being dragged off. */
  readonly leaving?: ReadonlySet<BeadId>
  readonly box?: Sight
}

const BAR_BEATS = 4
/** Steps stand no nearer than this, or they are not drawn. */
const LEAST_STEP_PX = 5

/** Draws what is in sight, on a canvas that lies over it. */
export function drawStrings(on: CanvasRenderingContext2D, palette: Palette, layout: StringsLayout, sight: Sight, look: StringsLook): void {
  on.clearRect(0, 0, sight.width, sight.height)
  on.save()
  on.translate(-sight.left, -sight.top)
  const [first, last] = rowsIn(layout, sight)
  drawGround(on, palette, layout, [first, last])
  for (let row = first; row < last; row++) drawString(on, palette, layout, sight, row, look)
  if (look.cursor) drawCursor(on, palette, layout, look.cursor)
  if (look.box) drawBox(on, palette, look.box)
  on.restore()
  drawRuler(on, palette, layout, sight)
}

/** Every second beat stands on another ground, and ends where the groove does. */
function drawGround(on: CanvasRenderingContext2D, palette: Palette, layout: StringsLayout, rows: readonly [number, number]): void {
  const { pxPerBeat, groove } = layout
  const [top, tall] = [rowTop(rows[0]), rowTop(rows[1]) - rowTop(rows[0])]
  on.fillStyle = palette.surface
  const beats = grooveBeats(groove)
  const half = halfStep(layout)
  for (let beat = 0; beat < beats; beat += 2) on.fillRect(END_PX + beat * pxPerBeat - half, top, Math.min(1, beats - beat) * pxPerBeat, tall)
  if (layout.beats > beats) return
  on.fillStyle = palette.line
  on.fillRect(END_PX + beats * pxPerBeat - half, top, 1, tall)
} // prettier-ignore

const halfStep = (layout: StringsLayout) => Math.min(END_PX - 2, stepPx(layout, {}) / 2)

function drawString(on: CanvasRenderingContext2D, palette: Palette, layout: StringsLayout, sight: Sight, row: number, look: StringsLook): void {
  const string = stringOf(layout.groove, layout.padIds[row]!)
  drawLine(on, palette, layout, sight, row, string)
  const steps = stepsOf(layout.groove, string)
  const wide = stepPx(layout, string)
  const [from, to] = [sight.left - 20, sight.left + sight.width + 20]
  for (const bead of string.beads) {
    if (bead.step >= steps) continue
    const x = beadX(layout, string, bead)
    const at = { y: beadY(row, bead.velocity), lineY: lineY(row), stepPx: wide }
    for (const echo of lapBeats(layout.groove, string).slice(1)) {
      const there = x + echo * layout.pxPerBeat
      if (there >= from && there <= to) drawBead(on, palette, bead, { ...at, x: there, stepX: there, isChosen: false, isEcho: true })
    }
    if (x < from || x > to) continue
    const isLeaving = look.leaving?.has(bead.id) === true
    drawBead(on, palette, bead, { ...at, x, stepX: stepX(layout, string, bead.step), isChosen: look.chosen.has(bead.id), isLeaving })
  }
} // prettier-ignore

/** The line of a string with its steps: beats stand out, and where it goes round by itself it is closed. */
function drawLine(on: CanvasRenderingContext2D, palette: Palette, layout: StringsLayout, sight: Sight, row: number, string: GrooveString): void {
  const y = lineY(row)
  const steps = stepsOf(layout.groove, string)
  const division = divisionOf(layout.groove, string)
  const wide = stepPx(layout, string)
  const ends = END_PX + stringBeats(layout.groove, string) * layout.pxPerBeat - Math.min(wide / 2, END_PX)
  on.fillStyle = palette.line
  on.fillRect(0, y, ends, 1)
  if (string.lengthSteps !== undefined) {
    on.fillStyle = palette.muted
    on.fillRect(ends, y - 6, 2, 12)
  }
  if (wide < LEAST_STEP_PX) return
  const first = Math.max(0, Math.floor((sight.left - END_PX) / wide) - 1)
  const last = Math.min(steps - 1, Math.ceil((sight.left + sight.width - END_PX) / wide))
  for (let step = first; step <= last; step++) {
    const isBeat = step % division === 0
    on.fillStyle = isBeat ? palette.muted : palette.line
    on.fillRect(stepX(layout, string, step), y - (isBeat ? 7 : 3), 1, isBeat ? 11 : 6)
  }
} // prettier-ignore

function drawCursor(on: CanvasRenderingContext2D, palette: Palette, layout: StringsLayout, { padId, row, step }: Place): void {
  const string = stringOf(layout.groove, padId)
  const wide = Math.max(12, stepPx(layout, string) - 2)
  on.strokeStyle = palette.waterInk
  on.lineWidth = 2
  const x = stepX(layout, string, step)
  const left = Math.max(1, x - wide / 2)
  on.strokeRect(left, rowTop(row) + 1, x + wide / 2 - left, ROW_PX - 2)
}

function drawBox(on: CanvasRenderingContext2D, palette: Palette, box: Sight): void {
  on.globalAlpha = 0.5
  on.fillStyle = palette.kelpWash
  on.fillRect(box.left, box.top, box.width, box.height)
  on.globalAlpha = 1
  on.strokeStyle = palette.kelp
  on.lineWidth = 1.5
  on.setLineDash([4, 3])
  on.strokeRect(box.left, box.top, box.width, box.height)
  on.setLineDash([])
}

/** Beats over the strings, counted in bars of four where there is no room for all. It stays while strings are scrolled. */
function drawRuler(on: CanvasRenderingContext2D, palette: Palette, layout: StringsLayout, sight: Sight): void {
  on.fillStyle = palette.paper
  on.fillRect(0, 0, sight.width, RULER_PX)
  on.fillStyle = palette.muted
  on.font = '11px Mono_500, monospace'
  on.textBaseline = 'middle'
  const every = [1, 2, BAR_BEATS, 4 * BAR_BEATS, 16 * BAR_BEATS].find((beats) => beats * layout.pxPerBeat >= 34) ?? 64 * BAR_BEATS
  const first = Math.max(0, Math.floor((sight.left - END_PX) / layout.pxPerBeat / every) * every)
  const last = Math.min(layout.beats, (sight.left + sight.width) / layout.pxPerBeat)
  for (let beat = first; beat < last; beat += every)
    on.fillText(beatName(layout.groove, beat), END_PX + beat * layout.pxPerBeat - sight.left - 3, RULER_PX / 2)
}

/** `2.3` is the third beat of the second bar; in a groove of one bar beats alone are counted. */
export function beatName(groove: Groove, beat: number): string {
  const [bar, inBar] = [Math.floor(beat / BAR_BEATS) + 1, (beat % BAR_BEATS) + 1]
  return grooveBeats(groove) <= BAR_BEATS ? `${beat + 1}` : `${bar}.${inBar}`
}
