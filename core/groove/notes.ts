import { z } from 'zod'

import type { ScoreEvent } from '../engine'
import { controlNumbers, EventType } from '../engine'
import type { PadId } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { bendShare } from '../hands/messages'
import { padsOfNotes } from '../kit/resolve'

const ms = z.number().min(0).max(86_400_000)
const midi = z.number().int().min(0).max(127)
const noteSchema = z.strictObject({ ms, note: midi, velocity: midi, lengthMs: z.number().min(0).optional() })
const controllerSchema = z.strictObject({ ms, controller: midi, value: midi })
/** How far the pitch is bent, as MIDI counts it: 0 is straight. */
const bendSchema = z.strictObject({ ms, bend: z.number().int().min(-8192).max(8191) })
/** How hard is pressed, on one note or on all. */
const pressureSchema = z.strictObject({ ms, pressure: midi, note: midi.optional() })

/** A performance as JSON: strikes in milliseconds, and what controllers, bend and pressure are moved to. */
export const notesSchema = z.array(z.union([noteSchema, controllerSchema, bendSchema, pressureSchema])).max(1_000_000)
export type Notes = z.infer<typeof notesSchema>
export type NotesEntry = Notes[number]

type PadsOf = (note: number) => readonly PadId[]

/**
 * Turns notes into engine events for all pads that answer them, and moves of controllers, bend and pressure. A velocity of 0
 * strikes nothing.
 */
export function scoreOfNotes(kit: Kit, notes: Notes, sampleRateHz: number, slotOf: (padId: PadId) => number): ScoreEvent[] {
  const byNote = padsOfNotes(kit)
  const padsOf: PadsOf = (note) => byNote.get(note) ?? []
  const toFrame = (at: number) => Math.round((at * sampleRateHz) / 1000)
  return notes.flatMap(
    (entry, index) =>
    'velocity' in entry
      ? strikesOf(entry, index + 1, padsOf, slotOf, toFrame)
      : movesOf(entry, padsOf, slotOf).map(([control, value]) => ({ frame: toFrame(entry.ms), type: EventType.controller, padSlot: 0, note: control, velocity: value })), // prettier-ignore
  )
}

function strikesOf(
  entry: z.infer<typeof noteSchema>,
  key: number,
  padsOf: PadsOf,
  slotOf: (padId: PadId) => number,
  toFrame: (ms: number) => number,
): ScoreEvent[] {
  const { note, velocity, lengthMs } = entry
  if (velocity === 0) return []
  return padsOf(note).flatMap((padId): ScoreEvent[] => {
    const padSlot = slotOf(padId)
    const strike = { frame: toFrame(entry.ms), type: EventType.strike, padSlot, velocity, note, key }
    return lengthMs === undefined ? [strike] : [strike, { frame: toFrame(entry.ms + lengthMs), type: EventType.release, padSlot, key }]
  })
}

/** Which controls of the engine something moves, and where to. */
function movesOf(
  entry: Exclude<NotesEntry, z.infer<typeof noteSchema>>,
  padsOf: PadsOf,
  slotOf: (padId: PadId) => number,
): [control: number, value: number][] {
  if ('controller' in entry) return [[entry.controller, entry.value]]
  if ('bend' in entry) return [[controlNumbers.bend, bendShare(entry.bend)]]
  if (entry.note === undefined) return [[controlNumbers.pressure, entry.pressure / 127]]
  return padsOf(entry.note).map((padId) => [controlNumbers.keyPressure + slotOf(padId), entry.pressure / 127])
}
