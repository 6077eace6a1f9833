import type { Bead } from '@heliaster/core/kit'

import type { Palette } from '../../../ui/theme/theme'

/** Where a bead is drawn, and how. */
export interface BeadLook {
  readonly x: number
  readonly y: number
  /** Where its string runs, px. */
  readonly lineY: number
  /** Where its step is, from which it may stand off. */
  readonly stepX: number
  /** How wide a step is there. */
  readonly stepPx: number
  readonly isChosen: boolean
  readonly isSounding?: boolean
  /** It is being dragged off its string. */
  readonly isLeaving?: boolean
  /** It comes again where a shorter string goes round. */
  readonly isEcho?: boolean
}

const LEAST = 4.5
const MORE = 4

const sizeOf = (bead: Bead) => LEAST + (bead.velocity / 127) * MORE

/**
 * A bead on its string. Height is velocity, fill is chance from the bottom up; a foot asks for a cell of its own, a notch on top sets
 * parameters, dots under it are laps, a hook looks at another bead, small dots behind it are repeats, a thread leads to its step.
 */
export function drawBead(on: CanvasRenderingContext2D, palette: Palette, bead: Bead, look: BeadLook): void {
  const { x, y, lineY, isChosen, isSounding, isLeaving, isEcho } = look
  const size = sizeOf(bead)
  const colour = isSounding ? palette.coral : isEcho ? palette.line : palette.kelp
  on.lineWidth = 1
  on.strokeStyle = palette.muted
  on.globalAlpha = isEcho ? 0.5 : isLeaving ? 0.4 : 1
  stem(on, x, y + size, lineY)
  if (isEcho) return circle(on, x, y, size - 1, palette.paper, palette.muted)
  if (bead.offset) thread(on, look)
  if (bead.repeats && bead.repeats.count > 1) repeats(on, bead, look, colour)
  const chance = bead.chance ?? 1
  circle(on, x, y, size, chance < 1 ? palette.paper : colour, colour, chance < 1 ? 1.5 : 0)
  if (chance < 1) filled(on, x, y, size, chance, colour)
  if (bead.band ?? bead.turn ?? bead.clip) bar(on, x - 5, lineY - 1.5, 10, 3, palette.ink)
  if (bead.locks && bead.locks.length > 0) notch(on, x, y - size, palette.ink)
  if (bead.when?.laps) laps(on, bead.when.laps, x, lineY, palette)
  if (bead.when?.after ?? bead.when?.unless) hook(on, look, size, bead.when?.unless !== undefined, palette.ink)
  if (isChosen) circle(on, x, y, size + 3, undefined, palette.ink, 2)
  if (isLeaving) crossed(on, x, y, size + 4, palette.coral)
  on.globalAlpha = 1
}

function stem(on: CanvasRenderingContext2D, x: number, from: number, to: number): void {
  on.beginPath()
  on.moveTo(x, from)
  on.lineTo(x, to)
  on.stroke()
}

function circle(
  on: CanvasRenderingContext2D,
  x: number,
  y: number,
  size: number,
  fill: string | undefined,
  line: string,
  wide = 1.5,
): void {
  on.beginPath()
  on.arc(x, y, size, 0, 2 * Math.PI)
  if (fill) {
    on.fillStyle = fill
    on.fill()
  }
  if (wide > 0) {
    on.lineWidth = wide
    on.strokeStyle = line
    on.stroke()
  }
  on.globalAlpha = 1
}

/** Filled from the bottom by a share, as a vessel is. */
function filled(on: CanvasRenderingContext2D, x: number, y: number, size: number, share: number, colour: string): void {
  const half = Math.acos(Math.min(1, Math.max(-1, 1 - 2 * share)))
  on.beginPath()
  on.arc(x, y, size, Math.PI / 2 - half, Math.PI / 2 + half)
  on.closePath()
  on.fillStyle = colour
  on.fill()
}

/** From a bead that stands off its step to that step. */
function thread(on: CanvasRenderingContext2D, { x, stepX, lineY }: BeadLook): void {
  on.lineWidth = 2
  on.beginPath()
  on.moveTo(x, lineY)
  on.lineTo(stepX, lineY)
  on.stroke()
  on.lineWidth = 1
}

/** Where the others of its strikes fall, by how much they are drawn together and how they grow. */
function repeats(on: CanvasRenderingContext2D, { repeats, velocity }: Bead, { x, y, stepPx, lineY }: BeadLook, colour: string): void {
  const { count, steps = 1, rise = 0, draw = 0 } = repeats!
  const curve = 64 ** -draw
  on.fillStyle = colour
  for (let place = 1; place < count; place++) {
    const even = place / count
    const share = even / (even + curve * (1 - even))
    const strength = Math.min(1.6, Math.max(0.15, 1 + (rise * place) / (count - 1))) * (velocity / 127)
    on.beginPath()
    on.arc(x + share * steps * stepPx, Math.min(lineY - 3, y + 5), 1.2 + 1.6 * strength, 0, 2 * Math.PI)
    on.fill()
  }
}

function bar(on: CanvasRenderingContext2D, x: number, y: number, wide: number, tall: number, colour: string): void {
  on.fillStyle = colour
  on.fillRect(x, y, wide, tall)
}

function notch(on: CanvasRenderingContext2D, x: number, y: number, colour: string): void {
  on.fillStyle = colour
  on.beginPath()
  on.moveTo(x - 4, y - 4)
  on.lineTo(x + 4, y - 4)
  on.lineTo(x, y + 1)
  on.fill()
}

const MOST_DOTS = 8

/** The laps in which it sounds, as a row of dots: full where it does. */
function laps(on: CanvasRenderingContext2D, given: { readonly of: number; readonly in: readonly number[] }, x: number, lineY: number, palette: Palette): void {
  const shown = Math.min(given.of, MOST_DOTS)
  const apart = 4
  for (let lap = 0; lap < shown; lap++) {
    on.beginPath()
    on.arc(x + (lap - (shown - 1) / 2) * apart, lineY + 5, 1.4, 0, 2 * Math.PI)
    on.fillStyle = given.in.includes(lap + 1) ? palette.ink : palette.line
    on.fill()
  }
} // prettier-ignore

/** It looks at another bead: a hook beside it, crossed where it sounds unless that one did. */
function hook(on: CanvasRenderingContext2D, { x, y }: BeadLook, size: number, isUnless: boolean, colour: string): void {
  on.strokeStyle = colour
  on.lineWidth = 1.5
  on.beginPath()
  on.arc(x - size - 3, y, 3, -Math.PI / 2, Math.PI / 2, true)
  on.stroke()
  if (!isUnless) return
  on.beginPath()
  on.moveTo(x - size - 8, y + 4)
  on.lineTo(x - size - 1, y - 4)
  on.stroke()
}

function crossed(on: CanvasRenderingContext2D, x: number, y: number, size: number, colour: string): void {
  on.globalAlpha = 1
  on.strokeStyle = colour
  on.lineWidth = 2
  on.beginPath()
  on.moveTo(x - size, y - size)
  on.lineTo(x + size, y + size)
  on.moveTo(x + size, y - size)
  on.lineTo(x - size, y + size)
  on.stroke()
}
