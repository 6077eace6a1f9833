import { beadsOf, divisionOf, grooveBeats, stepBeat, stepsOf, stringBeats, stringOf } from '@heliaster/core/groove'
import type { Bead, BeadId, Groove, GrooveString, PadId } from '@heliaster/core/kit'

/** A string is so high, px: a finger finds it. */
export const ROW_PX = 44
/** Over the strings stand the beats. */
export const RULER_PX = 22
/** Room before the first step and after the last: the ring of a chosen bead of full velocity is not cut there. */
export const END_PX = 14
/** How far a finger may be off a bead, px. */
const REACH_PX = 22
/** From the top of its row a bead of full velocity stands so deep, and one of the least so much deeper. */
const TOP_PX = 9
const LINE_PX = 8

/** A groove as it lies on the screen, px from its corner: time to the right, a string for each pad. */
export interface StringsLayout {
  readonly groove: Groove
  readonly padIds: readonly PadId[]
  readonly pxPerBeat: number
  /** As long as its longest string. */
  readonly beats: number
  readonly width: number
  readonly height: number
}

export function layStrings(groove: Groove, padIds: readonly PadId[], pxPerBeat: number): StringsLayout {
  const beats = Math.max(grooveBeats(groove), ...groove.strings.map((string) => stringBeats(groove, string)))
  return { groove, padIds, pxPerBeat, beats, width: beats * pxPerBeat + 2 * END_PX, height: RULER_PX + padIds.length * ROW_PX }
}

export const rowTop = (row: number): number => RULER_PX + row * ROW_PX
export const lineY = (row: number): number => rowTop(row) + ROW_PX - LINE_PX
export const beadY = (row: number, velocity: number): number => rowTop(row) + TOP_PX + (1 - velocity / 127) * (ROW_PX - TOP_PX - LINE_PX - 7) // prettier-ignore

/** Where a step of a string stands, as it swings. */
export function stepX(
  { groove, pxPerBeat }: StringsLayout,
  string: Pick<GrooveString, 'stepsPerBeat' | 'swing'>,
  step: number,
  offset = 0,
): number {
  // prettier-ignore
  return END_PX + stepBeat(groove, string, step, offset) * pxPerBeat
}

/** Where a bead stands; one that is early on the first step as near before it as there is room. */
export const beadX = (layout: StringsLayout, string: GrooveString, bead: Bead): number => Math.max(END_PX - 1, stepX(layout, string, bead.step, bead.offset)) // prettier-ignore

/** How wide a step of a string is. */
export function stepPx({ groove, pxPerBeat }: StringsLayout, string: Pick<GrooveString, 'stepsPerBeat'>): number {
  return pxPerBeat / divisionOf(groove, string)
}

/** What lies under a point: the pad of the string, the step that is nearest, and the bead that a finger means there. */
export interface Place {
  readonly padId: PadId
  readonly row: number
  readonly step: number
  readonly bead?: Bead
}

export function placeAtPoint(layout: StringsLayout, x: number, y: number): Place | undefined {
  const row = Math.floor((y - RULER_PX) / ROW_PX)
  const padId = layout.padIds[row]
  if (padId === undefined || y < RULER_PX) return undefined
  const string = stringOf(layout.groove, padId)
  const steps = stepsOf(layout.groove, string)
  const wide = stepPx(layout, string)
  const near = Math.floor((x - END_PX) / wide)
  let step = 0
  for (let one = Math.max(0, near - 1); one <= Math.min(steps - 1, near + 2); one++)
    if (Math.abs(stepX(layout, string, one) - x) < Math.abs(stepX(layout, string, step) - x)) step = one
  const isBeyond = x > stepX(layout, string, steps - 1) + wide
  const bead = beadNear(layout, string, steps, x, Math.min(REACH_PX, Math.max(8, wide * 0.6)))
  return isBeyond && !bead ? undefined : { padId, row, step: bead?.step ?? step, ...(bead ? { bead } : {}) }
}

function beadNear(layout: StringsLayout, string: GrooveString, steps: number, x: number, reach: number): Bead | undefined {
  let nearest: Bead | undefined
  let least = reach
  for (const bead of string.beads) {
    const away = bead.step < steps ? Math.abs(beadX(layout, string, bead) - x) : Infinity
    if (away < least) [nearest, least] = [bead, away]
  }
  return nearest
}

/** The beads within a box that was dragged over the strings. */
export function beadsWithin(layout: StringsLayout, box: { readonly left: number; readonly top: number; readonly width: number; readonly height: number }): Set<BeadId> {
  const first = Math.floor((box.top - RULER_PX) / ROW_PX)
  const last = Math.floor((box.top + box.height - RULER_PX) / ROW_PX)
  const rows = new Map(layout.padIds.map((padId, row) => [padId, row]))
  const chosen = beadsOf(layout.groove).filter(({ bead, string }) => {
    const row = rows.get(string.padId) ?? -1
    const x = beadX(layout, string, bead)
    return row >= first && row <= last && x >= box.left && x <= box.left + box.width
  })
  return new Set(chosen.map(({ bead }) => bead.id))
} // prettier-ignore

/** The part of the strings that is in sight, px. */
export interface Sight {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

/** The rows that are in sight, from the first to the one after the last. */
export function rowsIn({ padIds }: Pick<StringsLayout, 'padIds'>, { top, height }: Sight): readonly [number, number] {
  return [Math.max(0, Math.floor((top - RULER_PX) / ROW_PX)), Math.min(padIds.length, Math.ceil((top + height - RULER_PX) / ROW_PX))]
}
