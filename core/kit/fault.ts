import type { z } from 'zod'

import { audioInfoSchema, busSchema, grooveSchema, kitSchema, MOST, padSchema, tieSchema } from './kit'
import type { Kit } from './kit'
import { brokenRule } from './rules'
import { sourceSchema, markerSchema } from './source'
import type { Source } from './source'
import { startSchema } from './start'
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
  if (good.has(list)) return undefined
  if (list.length > most) return `A kit holds at most ${most} ${words}.`
  for (const item of list) {
    const fault = faultOf(schema, item, where)
    if (fault) return fault
  }
  good.add(list)
  return undefined
}

const kitHeadSchema = kitSchema.omit({ pads: true, buses: true, ties: true, grooves: true, audio: true })

/** Why a kit may not be left as it is, in a sentence; nothing when it is one that can be kept and read again. */
export function kitFault(kit: Kit): string | undefined {
  if (good.has(kit)) return undefined
  const { pads, buses, ties, grooves, audio, ...head } = kit
  const fault =
    faultOf(kitHeadSchema, head, '') ??
    faultInList(padSchema, pads, 'a pad', MOST.pads, 'pads') ??
    faultInList(busSchema, buses, 'a bus', MOST.buses, 'buses') ??
    faultInList(tieSchema, ties, 'a tie', MOST.ties, 'ties') ??
    faultInList(grooveSchema, grooves, 'a groove', MOST.grooves, 'grooves') ??
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
