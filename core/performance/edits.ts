import type { EventId, PadId, Performance, PlayedEvent, PlayedStrike } from '../kit'

type Events = Pick<Performance, 'events' | 'edited'>
type Moved = Events & Partial<Pick<Performance, 'fromFrame' | 'toFrame'>>
type Event = Performance['events'][number]

/** A strike with the frame at which it is let go of; nothing where it never is. */
export interface HeldStrike {
  readonly strike: PlayedStrike
  readonly letGo?: PlayedEvent
}

/** The strikes of a performance, each with what lets go of it: the next letting go of its pad by its key. */
export function strikesOf({ events }: Pick<Performance, 'events'>): HeldStrike[] {
  const held: { strike: PlayedStrike; letGo?: PlayedEvent }[] = []
  const open = new Map<string, (typeof held)[number][]>()
  const nameOf = (event: { padId: PadId; key: number }) => `${event.padId} ${event.key}`
  for (const event of events) {
    if (event.type === 'strike') {
      const one = { strike: event }
      held.push(one)
      open.set(nameOf(event), [...(open.get(nameOf(event)) ?? []), one])
    } else if (event.type === 'letGo') {
      for (const one of open.get(nameOf(event)) ?? []) one.letGo = event
      open.delete(nameOf(event))
    }
  }
  return held
}

/** Events in the order of their frames; those of one frame stay in the order in which they were. */
function inOrder(events: readonly Event[]): Event[] {
  return [...events].sort((a, b) => a.frame - b.frame)
}

/**
 * Moves strikes, each by its own number of frames; what lets go of them goes along. Nothing goes before the beginning. What is
 * heard stays heard: where it goes over an edge, the edge goes along.
 */
function moved(performance: Performance, byFrames: (held: HeldStrike) => number): Moved {
  const by = new Map<EventId, number>()
  for (const held of strikesOf(performance)) {
    const frames = Math.max(-held.strike.frame, Math.round(byFrames(held)))
    if (frames === 0) continue
    by.set(held.strike.id, frames)
    if (held.letGo) by.set(held.letGo.id, frames)
  }
  if (by.size === 0) return { events: performance.events, ...(performance.edited ? { edited: true } : {}) }
  const events = performance.events.map((event) => ({ ...event, frame: event.frame + (by.get(event.id) ?? 0) }))
  return { events: inOrder(events), edited: true, ...edgesAround(performance, by) }
}

/** The edges of what is heard, further apart where a strike that was between them no longer is. */
function edgesAround(performance: Performance, by: ReadonlyMap<EventId, number>): Partial<Pick<Performance, 'fromFrame' | 'toFrame'>> {
  const { events, fromFrame, toFrame } = performance
  let [first, last] = [fromFrame, toFrame]
  for (const event of events) {
    const frames = by.get(event.id)
    if (frames === undefined || !isHeard(performance, event)) continue
    first = Math.min(first, event.frame + frames)
    last = Math.max(last, event.frame + frames + 1)
  }
  return { ...(first < fromFrame ? { fromFrame: first } : {}), ...(last > toFrame ? { toFrame: last } : {}) }
}

/** Strikes moved by so many frames. */
export function movedBy(performance: Performance, ids: ReadonlySet<EventId>, frames: number): Moved {
  return moved(performance, ({ strike }) => (ids.has(strike.id) ? frames : 0))
}

export interface Grid {
  /** Steps of a beat, 1 to 48; and how far strikes go to the nearest one, 0..1. */
  readonly stepsPerBeat: number
  readonly share: number
}

/** The strikes that are heard drawn to a grid in the tempo of the performance; the first of them is its beginning. */
export function drawnToGrid(performance: Performance, { stepsPerBeat, share }: Grid): Moved {
  const { sampleRateHz, tempoBpm } = performance
  const first = performance.events.find((event) => event.type === 'strike' && isHeard(performance, event))?.frame ?? 0
  const step = (60 / tempoBpm / stepsPerBeat) * sampleRateHz
  return moved(performance, ({ strike }) => {
    if (!isHeard(performance, strike)) return 0
    const place = (strike.frame - first) / step
    return share * (Math.round(place) - place) * step
  })
}

/** How far the strikes that are heard are from the grid, at most and in the middle, in ms. */
export function offGrid(performance: Performance, stepsPerBeat: number): { readonly mostMs: number; readonly medianMs: number } {
  const after = new Map(drawnToGrid(performance, { stepsPerBeat, share: 1 }).events.map(({ id, frame }) => [id, frame]))
  const off = performance.events
    .filter((event) => event.type === 'strike' && isHeard(performance, event))
    .map((event) => (1000 * Math.abs(after.get(event.id)! - event.frame)) / performance.sampleRateHz)
    .sort((a, b) => a - b)
  return { mostMs: off[off.length - 1] ?? 0, medianMs: off[Math.floor(off.length / 2)] ?? 0 }
}

export function isHeard({ fromFrame, toFrame }: Pick<Performance, 'fromFrame' | 'toFrame'>, { frame }: Pick<Event, 'frame'>): boolean {
  return frame >= fromFrame && frame < toFrame
}

/** All that is heard of one pad, or only some of its strikes, on another one. */
export function onOtherPad(performance: Performance, from: PadId, to: PadId, ids?: ReadonlySet<EventId>): Events {
  const going = new Set<EventId>()
  for (const { strike, letGo } of strikesOf(performance)) {
    if (strike.padId !== from || !isHeard(performance, strike) || (ids && !ids.has(strike.id))) continue
    going.add(strike.id)
    if (letGo) going.add(letGo.id)
  }
  return changed(performance, (event) => (going.has(event.id) ? rid({ ...event, padId: to } as Event) : event))
}

/** What a strike asks of its old pad means nothing on another one. */
function rid(event: Event): Event {
  if (event.type !== 'strike') return event
  const { band: _band, turn: _turn, ...rest } = event
  return rest
}

/** Strikes with other strengths or cells; nothing in a field leaves the choice to the pad again. */
export function withStrikes(
  performance: Performance,
  ids: ReadonlySet<EventId>,
  fields: { readonly velocity?: number; readonly cell?: Pick<PlayedStrike, 'band' | 'turn'> },
): Events {
  const { velocity, cell } = fields
  return changed(performance, (event) => {
    if (event.type !== 'strike' || !ids.has(event.id)) return event
    const strike = velocity === undefined ? event : { ...event, velocity: Math.min(127, Math.max(1, Math.round(velocity))) }
    return cell ? { ...(rid(strike) as PlayedStrike), ...cell } : strike
  })
}

function changed(performance: Performance, change: (event: Event) => Event): Events {
  const events = performance.events.map(change)
  const isSame = events.every((event, i) => event === performance.events[i])
  return isSame ? { events: performance.events, ...(performance.edited ? { edited: true } : {}) } : { events, edited: true }
}

/** Without some strikes and what lets go of them. */
export function withoutStrikes(performance: Performance, ids: ReadonlySet<EventId>): Events {
  const gone = new Set<EventId>()
  for (const { strike, letGo } of strikesOf(performance)) {
    if (!ids.has(strike.id)) continue
    gone.add(strike.id)
    if (letGo && !sharesLetGo(performance, letGo.id, ids)) gone.add(letGo.id)
  }
  return gone.size === 0 ? performance : { events: performance.events.filter(({ id }) => !gone.has(id)), edited: true }
}

/** Whether strikes that stay are let go of by the same. */
function sharesLetGo(performance: Performance, letGo: EventId, ids: ReadonlySet<EventId>): boolean {
  return strikesOf(performance).some((held) => held.letGo?.id === letGo && !ids.has(held.strike.id))
}
