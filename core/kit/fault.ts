import type { z } from 'zod'

import { audioInfoSchema, bandSchema, bandsRule, busSchema, grooveSchema, kitSchema, MOST, padSchema, stringSchema, tieSchema } from './kit'
import type { Groove, Kit, Pad } from './kit'
import { brokenRule } from './rules'
import { sourceSchema, markerSchema } from './source'
import type { Source } from './source'
import { startSchema } from './start'
import { MOST_EVENTS, performanceSchema, playedEventSchema } from './performance'
import type { Performance } from './performance'
import type { Start } from './start'

/** Parts that were found good. Documents share their parts, so an edit costs no more than what it touched. */
const good = new WeakSet<object>()

function faultOf(schema: z.ZodType, part: object, where: string): string | undefined {
  if (good.has(part)) return undefined
  const parsed = schema.safeParse(part)
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!
    return `It would leave ${[where, ...issue.path.map(String)].filter(Boolean).join('.') || 'the document'} in a form that is not allowed: ${issue.message}.`
  }
  good.add(part)
  return undefined
}

function faultInList(schema: z.ZodType, list: readonly object[], where: string, most: number, words: string): string | undefined {
  return faultInEach(list, most, words, (item) => faultOf(schema, item, where))
}

function faultInEach<T extends object>(
  list: readonly T[],
  most: number,
  words: string,
  faultOfItem: (item: T) => string | undefined,
): string | undefined {
  if (good.has(list)) return undefined
  if (list.length > most) return `A kit holds at most ${most} ${words}.`
  for (const item of list) {
    const fault = faultOfItem(item)
    if (fault) return fault
  }
  good.add(list)
  return undefined
}

const padHeadSchema = padSchema.omit({ bands: true })

/** A pad, band by band: an edit in one looks at that one alone. */
function faultOfPad(pad: Pad): string | undefined {
  if (good.has(pad)) return undefined
  const { bands, ...head } = pad
  const isList = Array.isArray(bands)
  const fault =
    faultOf(padHeadSchema, head, 'a pad') ??
    (isList ? faultInList(bandSchema, bands, 'a pad.bands', MOST.bands, 'bands on a pad') : faultOf(padSchema, pad, 'a pad')) ??
    (bandsRule.holds(bands) ? undefined : `It would leave a pad.bands in a form that is not allowed: ${bandsRule.message}.`)
  if (!fault) good.add(pad)
  return fault
}

const grooveHeadSchema = grooveSchema.omit({ strings: true })

/** A groove, string by string. */
function faultOfGroove(groove: Groove): string | undefined {
  if (good.has(groove)) return undefined
  const { strings, ...head } = groove
  const isList = Array.isArray(strings)
  const fault =
    faultOf(grooveHeadSchema, head, 'a groove') ??
    (isList
      ? faultInList(stringSchema, strings, 'a groove.strings', MOST.pads, 'strings in a groove')
      : faultOf(grooveSchema, groove, 'a groove'))
  if (!fault) good.add(groove)
  return fault
}

const kitHeadSchema = kitSchema.omit({ pads: true, buses: true, ties: true, grooves: true, audio: true })

/** Why a kit may not be left as it is, in a sentence; nothing when it is one that can be kept and read again. */
export function kitFault(kit: Kit): string | undefined {
  if (good.has(kit)) return undefined
  const { pads, buses, ties, grooves, audio, ...head } = kit
  const fault =
    faultOf(kitHeadSchema, head, '') ??
    faultInEach(pads, MOST.pads, 'pads', faultOfPad) ??
    faultInList(busSchema, buses, 'a bus', MOST.buses, 'buses') ??
    faultInList(tieSchema, ties, 'a tie', MOST.ties, 'ties') ??
    faultInEach(grooves, MOST.grooves, 'grooves', faultOfGroove) ??
    faultInList(audioInfoSchema, Object.values(audio), 'a file', Infinity, 'files') ??
    brokenRule(kit)
  if (!fault) good.add(kit)
  return fault
}

const sourceHeadSchema = sourceSchema.omit({ markers: true, strikes: true })

export function sourceFault(source: Source): string | undefined {
  if (good.has(source)) return undefined
  const { markers, strikes: _never, ...head } = source
  if (markers.length > MOST.markers) return `A recording holds at most ${MOST.markers} markers.`
  if (!good.has(markers)) {
    const ids = new Set(markers.map((marker) => marker.id))
    if (ids.size < markers.length) return 'Two markers have the same id.'
    for (const marker of markers) {
      const fault = faultOf(markerSchema, marker, 'a marker')
      if (fault) return fault
    }
    good.add(markers)
  }
  return faultOf(sourceHeadSchema, head, '')
}

export function startFault(start: Start): string | undefined {
  return faultOf(startSchema, start, '')
}

const performanceHeadSchema = performanceSchema.omit({ events: true })

/** A performance, event by event. */
export function performanceFault(performance: Performance): string | undefined {
  if (good.has(performance)) return undefined
  const { events, ...head } = performance
  if (events.length > MOST_EVENTS) return `A performance holds at most ${MOST_EVENTS} events.`
  if (performance.toFrame <= performance.fromFrame) return 'A performance ends after it begins.'
  const isInOrder = events.every((event, i) => i === 0 || events[i - 1].frame <= event.frame)
  if (!isInOrder) return 'What was played stands in the order in which it was played.'
  const fault =
    faultOf(performanceHeadSchema, head, '') ?? events.map((event) => faultOf(playedEventSchema, event, 'an event')).find(Boolean)
  if (!fault) good.add(performance)
  return fault
}
