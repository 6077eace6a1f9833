import { z } from 'zod'

import { audioHashSchema, markerIdSchema, sourceIdSchema } from './ids'
import type { AudioHash, MakeId, MarkerId } from './ids'
import { audioInfoSchema } from './kit'
import type { AudioInfo } from './kit'
import { merge, putById } from './list'

/**
 * A marker someone has touched. Markers that were only found are computed anew from the recording and the water line;
 * once pinned, moved, named or judged, a marker is written here and stays whatever the water does. A removed one
 * stays removed.
 */
export const markerSchema = z.strictObject({
  id: markerIdSchema,
  frame: z.number().int().min(0),
  origin: z.enum(['found', 'hand', 'file']),
  pinned: z.boolean(),
  removed: z.boolean(),
  name: z.string().max(120).optional(),
  verdict: z.enum(['keep', 'pass']).optional(),
  endFrame: z.number().int().min(0).optional(),
})
export type Marker = z.infer<typeof markerSchema>

export const verdicts = ['open', 'keep', 'pass'] as const
export const SOURCE_VERSION = 1

/** A recording or imported file with its cuts: edited, undone and saved like a kit. */
export const sourceSchema = z.strictObject({
  format: z.literal('heliaster-source'),
  version: z.literal(SOURCE_VERSION),
  id: sourceIdSchema,
  audio: audioHashSchema,
  info: audioInfoSchema,
  name: z.string().max(255),
  tags: z.array(z.string().max(60)).max(64),
  verdict: z.enum(verdicts),
  cut: z.strictObject({ waterLine: z.number().min(0).max(1), minGapSeconds: z.number().min(0.005).max(5) }),
  markers: z.array(markerSchema).max(20000),
})
export type Source = z.infer<typeof sourceSchema>

export const sourceEditSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('setSource'),
    fields: sourceSchema.pick({ name: true, tags: true, verdict: true, cut: true }).partial(),
  }),
  /** Puts or replaces markers, by id. */
  z.strictObject({ type: z.literal('putMarkers'), markers: z.array(markerSchema).max(20000) }),
  /** Forgets markers altogether; a found one may then be found again. */
  z.strictObject({ type: z.literal('forgetMarkers'), markerIds: z.array(markerIdSchema).max(20000) }),
])
export type SourceEdit = z.infer<typeof sourceEditSchema>

export function createSource(makeId: MakeId, audio: AudioHash, info: AudioInfo, name: string): Source {
  return {
    format: 'heliaster-source',
    version: SOURCE_VERSION,
    id: makeId('rec'),
    audio,
    info,
    name,
    tags: [],
    verdict: 'open',
    cut: { waterLine: 0.3, minGapSeconds: 0.06 },
    markers: [],
  }
}

/** Returns the same source when the edit changes nothing. */
export function applySourceEdit(source: Source, edit: SourceEdit): Source {
  switch (edit.type) {
    case 'setSource':
      return merge(source, edit.fields)
    case 'putMarkers': {
      const markers = edit.markers.reduce((list, marker) => putById(list, marker), source.markers)
      return merge(source, { markers })
    }
    case 'forgetMarkers':
      return merge(source, { markers: source.markers.filter((marker) => !edit.markerIds.includes(marker.id)) })
  }
}

/** The edits that undo `edit`. Markers keep no order of their own, so they come back at the end of the list. */
export function invertSourceEdit(before: Source, edit: SourceEdit): SourceEdit[] {
  if (applySourceEdit(before, edit) === before) return []
  switch (edit.type) {
    case 'setSource': {
      const keys = Object.keys(edit.fields) as (keyof typeof edit.fields)[]
      return [{ type: 'setSource', fields: Object.fromEntries(keys.map((key) => [key, before[key]])) }]
    }
    case 'putMarkers': {
      const held = markersOf(
        before,
        edit.markers.map((marker) => marker.id),
      )
      const heldIds = new Set(held.map((marker) => marker.id))
      const added = edit.markers.filter((marker) => !heldIds.has(marker.id)).map((marker) => marker.id)
      const edits: SourceEdit[] = []
      if (held.length > 0) edits.push({ type: 'putMarkers', markers: held })
      if (added.length > 0) edits.push({ type: 'forgetMarkers', markerIds: added })
      return edits
    }
    case 'forgetMarkers':
      return [{ type: 'putMarkers', markers: markersOf(before, edit.markerIds) }]
  }
}

function markersOf(source: Source, ids: readonly MarkerId[]): Marker[] {
  const wanted = new Set(ids)
  return source.markers.filter((marker) => wanted.has(marker.id))
}
