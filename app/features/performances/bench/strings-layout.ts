import type { EventId, PadId, Performance, PlayedStrike } from '@heliaster/core/kit'
import { padsHeard } from '@heliaster/core/performance'

/** The string of a pad is so high, px; its name stands over it. */
export const STRING_PX = 56
/** Room at both ends, so that edges can be taken hold of. */
export const END_PX = 22
/** Under the strings stands the time. */
export const TIME_PX = 36
const NAME_PX = 18
const REACH_PX = 20

/** A performance as it lies on the screen: time to the right, a string for each pad. */
export interface StringsLayout {
  readonly padIds: readonly PadId[]
  readonly width: number
  readonly height: number
  xOf(frame: number): number
  frameAt(x: number): number
  /** Of a strike: higher is harder. */
  yOf(strike: Pick<PlayedStrike, 'padId' | 'velocity'>): number
}

/** `span` is what is seen of it, in frames; all that is heard and a little more where it is not said. */
export function layStrings(performance: Performance, width: number, span: { readonly from: number; readonly to: number }): StringsLayout {
  const padIds = padsHeard({ ...performance, fromFrame: 0, toFrame: Infinity })
  const perFrame = (width - 2 * END_PX) / Math.max(1, span.to - span.from)
  return {
    padIds,
    width,
    height: padIds.length * STRING_PX + TIME_PX,
    xOf: (frame) => END_PX + (frame - span.from) * perFrame,
    frameAt: (x) => Math.round(span.from + (x - END_PX) / perFrame),
    yOf: ({ padId, velocity }) => padIds.indexOf(padId) * STRING_PX + NAME_PX + (1 - velocity / 127) * (STRING_PX - NAME_PX - 12) + 3,
  }
}

/** What is there to be seen at all: from the first to the last event, and what is heard. */
export function spanOf({ events, fromFrame, toFrame }: Performance): { readonly from: number; readonly to: number } {
  const first = events.find(({ type }) => type === 'strike')?.frame ?? fromFrame
  const last = events[events.length - 1]?.frame ?? toFrame
  return { from: Math.min(first, fromFrame), to: Math.max(last + 1, toFrame) }
}

const strikesIn = ({ events }: Performance) => events.filter((event): event is PlayedStrike => event.type === 'strike')

/** The strike that a finger means; nothing where none is near. */
export function strikeNear(performance: Performance, layout: StringsLayout, x: number, y: number): PlayedStrike | undefined {
  let nearest: PlayedStrike | undefined
  let least = REACH_PX
  for (const strike of strikesIn(performance)) {
    const away = Math.hypot(layout.xOf(strike.frame) - x, layout.yOf(strike) - y)
    if (away < least) [nearest, least] = [strike, away]
  }
  return nearest
}

/** The strikes on the strings and in the time that were dragged over. */
export function strikesWithin(
  performance: Performance,
  layout: StringsLayout,
  box: { readonly left: number; readonly top: number; readonly width: number; readonly height: number },
): EventId[] {
  const [firstString, lastString] = [Math.floor(box.top / STRING_PX), Math.floor((box.top + box.height) / STRING_PX)]
  const [from, to] = [layout.frameAt(box.left), layout.frameAt(box.left + box.width)]
  return strikesIn(performance).flatMap(({ id, padId, frame }) => {
    const string = layout.padIds.indexOf(padId)
    return string >= firstString && string <= lastString && frame >= from && frame <= to ? [id] : []
  })
}

/** Which edge of what is heard a finger takes hold of. */
export function edgeNear({ fromFrame, toFrame }: Performance, layout: StringsLayout, x: number, y: number): 'from' | 'to' | undefined {
  if (y < layout.height - TIME_PX - 8) return undefined
  const away = { from: Math.abs(layout.xOf(fromFrame) - x), to: Math.abs(layout.xOf(toFrame) - x) }
  const nearest = away.from <= away.to ? 'from' : 'to'
  return away[nearest] < REACH_PX ? nearest : undefined
}

const STEPS_SECONDS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 30, 60, 120]
const LEAST_PX = 52

/** Where times are written, seconds from what is heard first. */
export function timesOf({ fromFrame, sampleRateHz }: Performance, layout: StringsLayout): number[] {
  const perSecond = layout.xOf(sampleRateHz) - layout.xOf(0)
  const step = STEPS_SECONDS.find((seconds) => seconds * perSecond >= LEAST_PX) ?? 300
  const secondsAt = (x: number) => (layout.frameAt(x) - fromFrame) / sampleRateHz
  const [first, last] = [Math.ceil(secondsAt(END_PX) / step), Math.floor(secondsAt(layout.width - END_PX) / step)]
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step)
}
