import { z } from 'zod'

import type { ScoreEvent } from '../engine'
import { EventType } from '../engine'
import type { PadId } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { notesOfPads } from '../kit/resolve'

const noteSchema = z.strictObject({
  ms: z.number().min(0).max(86_400_000),
  note: z.number().int().min(0).max(127),
  velocity: z.number().int().min(0).max(127),
  lengthMs: z.number().min(0).optional(),
})
const controllerSchema = z.strictObject({
  ms: z.number().min(0).max(86_400_000),
  controller: z.number().int().min(0).max(127),
  value: z.number().int().min(0).max(127),
})
/** The notes of a performance as JSON: strikes in milliseconds, and what controllers are moved to. */
export const notesSchema = z.array(z.union([noteSchema, controllerSchema])).max(1_000_000)
export type Notes = z.infer<typeof notesSchema>

/** Turns notes into engine events for all pads that answer them, and controllers as they move. A velocity of 0 strikes nothing. */
export function scoreOfNotes(kit: Kit, notes: Notes, sampleRateHz: number, slotOf: (padId: PadId) => number): ScoreEvent[] {
  const padsOf = new Map<number, PadId[]>()
  for (const [padId, padNotes] of notesOfPads(kit)) for (const note of padNotes) padsOf.set(note, [...(padsOf.get(note) ?? []), padId])
  const events: ScoreEvent[] = []
  notes.forEach((entry, index) => {
    const frame = Math.round((entry.ms * sampleRateHz) / 1000)
    if (!('note' in entry)) {
      events.push({ frame, type: EventType.controller, padSlot: 0, note: entry.controller, velocity: entry.value })
      return
    }
    if (entry.velocity === 0) return
    const key = index + 1
    for (const padId of padsOf.get(entry.note) ?? []) {
      const padSlot = slotOf(padId)
      events.push({ frame, type: EventType.strike, padSlot, velocity: entry.velocity, note: entry.note, key })
      if (entry.lengthMs !== undefined)
        events.push({ frame: Math.round(((entry.ms + entry.lengthMs) * sampleRateHz) / 1000), type: EventType.release, padSlot, key })
    }
  })
  return events
}
