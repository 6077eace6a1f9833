import { z } from 'zod'

import { audioHashSchema } from './ids'
import { kitEditSchema } from './kit-edit'
import { sourceEditSchema } from './source'
import { performanceEditSchema } from './performance'
import { startEditSchema } from './start'

/** What travels between app and server, checked on both sides. */

const kindSchema = z.enum(['kit', 'source', 'start', 'performance'])
const revisionSchema = z.number().int().min(0)
/** Chosen by the sender; the same batch sent twice is applied once. */
export const batchIdSchema = z.string().regex(/^[A-Za-z0-9_-]{8,64}$/)

/** The most edits of one batch: every marker of a recording may be put in and set. */
export const MOST_EDITS = 100_000

const batchOf = <Edit extends z.ZodType>(edit: Edit) =>
  z.strictObject({
    baseRevision: revisionSchema,
    batchId: batchIdSchema,
    /** The version of the document its edits are for; pages that do not say it yet write the first one. */
    version: z.number().int().min(1).optional(),
    edits: z.array(edit).min(1).max(MOST_EDITS),
  })
export const kitBatchSchema = batchOf(kitEditSchema)
export const sourceBatchSchema = batchOf(sourceEditSchema)
export const startBatchSchema = batchOf(startEditSchema)
export const performanceBatchSchema = batchOf(performanceEditSchema)

export const audioAnnouncementSchema = z.strictObject({
  bytes: z
    .number()
    .int()
    .min(1)
    .max(2 ** 31),
  name: z.string().max(255),
})

export const CHUNK_BYTES = 1024 * 1024

/** So many files are asked for at once at most. */
export const MOST_TOGETHER = 32
/**
 * Files that are asked for at once. The answer holds each in the order it was asked for: its length in bytes as an unsigned
 * 32-bit number, the highest byte first, and then that many bytes; 0 for what is asked for by itself, being not there or
 * longer than a chunk.
 */
export const audioTogetherSchema = z.strictObject({ hashes: z.array(audioHashSchema).min(1).max(MOST_TOGETHER) })

/** The one shape of an error: what happened, and what to do. */
export const apiErrorSchema = z.object({
  error: z.object({ code: z.string(), message: z.string(), details: z.unknown().optional() }),
})
export type ApiError = z.infer<typeof apiErrorSchema>

/** What a list shows of a kit without reading it: how many pads, and of the first ones how many turns each band has. */
export const kitFacesSchema = z.object({ pads: z.number().int().min(0), faces: z.array(z.array(z.number().int().min(0))) })
export type KitFaces = z.infer<typeof kitFacesSchema>

export const documentSummarySchema = z.object({
  id: z.string(),
  name: z.string(),
  revision: revisionSchema,
  /** Milliseconds since 1970. */
  changedAt: z.number(),
  /** Taken off the list; told only to those who ask what has changed since they looked last. */
  deleted: z.boolean(),
  kit: kitFacesSchema.optional(),
  /** Recordings, starts and performances come whole. */
  doc: z.unknown().optional(),
})
export type DocumentSummary = z.infer<typeof documentSummarySchema>

/** Part of a list, the newest first; `next` asks for the part behind it. */
export const documentPageSchema = z.object({
  items: z.array(documentSummarySchema),
  next: z.string().optional(),
  /** The server's time when the list was read, in milliseconds since 1970: what has changed since is asked for with it. */
  readAt: z.number(),
})
export type DocumentPage = z.infer<typeof documentPageSchema>

export const savedDocumentSchema = z.object({
  revision: revisionSchema,
  doc: z.unknown(),
  /** Audio the document names whose bytes have not all arrived. */
  awaits: z.array(z.string()).optional(),
})
export interface SavedDocument<Doc> {
  readonly revision: number
  readonly doc: Doc
  readonly awaits: string[]
}

export const batchAnswerSchema = z.object({
  revision: revisionSchema,
  refused: z.array(z.object({ edit: z.unknown(), reason: z.string() })),
})
export interface BatchAnswer {
  readonly revision: number
  readonly refused: { readonly edit: unknown; readonly reason: string }[]
}

/** `doc` comes along where the server has another one than was sent. */
export const createAnswerSchema = z.object({ revision: revisionSchema, doc: z.unknown().optional() })

/** What a page is told while it listens: a document has another revision, or is gone or back. Without a kind: still here. */
export const changeEventSchema = z.object({
  kind: kindSchema.optional(),
  id: z.string().optional(),
  revision: revisionSchema.optional(),
  deleted: z.boolean().optional(),
})
export type ChangeEvent = z.infer<typeof changeEventSchema>

export const audioStateSchema = z.object({ state: z.enum(['uploading', 'ready']), bytes: z.number(), have: z.array(z.number().int()) })
