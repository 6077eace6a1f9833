import { z } from 'zod'

import { kitEditSchema } from './kit-edit'
import { sourceEditSchema } from './source'
import { startEditSchema } from './start'

/** What travels between app and server, checked on both sides. */

export const documentKinds = ['kits', 'sources', 'starts'] as const
export type DocumentFolder = (typeof documentKinds)[number]

const batchOf = <Edit extends z.ZodType>(edit: Edit) =>
  z.strictObject({
    baseRevision: z.number().int().min(0),
    /** Chosen by the sender; the same batch sent twice is applied once. */
    batchId: z.string().regex(/^[A-Za-z0-9_-]{8,64}$/),
    edits: z.array(edit).min(1).max(5000),
  })
export const kitBatchSchema = batchOf(kitEditSchema)
export const sourceBatchSchema = batchOf(sourceEditSchema)
export const startBatchSchema = batchOf(startEditSchema)

export const audioAnnouncementSchema = z.strictObject({
  bytes: z
    .number()
    .int()
    .min(1)
    .max(2 ** 31),
  name: z.string().max(255),
})

export const CHUNK_BYTES = 1024 * 1024

/** The one shape of an error: what happened, and what to do. */
export interface ApiError {
  readonly error: { readonly code: string; readonly message: string; readonly details?: unknown }
}

export interface DocumentSummary {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly changedAt: string
  readonly pads?: number
}

export interface SavedDocument<Doc> {
  readonly revision: number
  readonly doc: Doc
  /** Audio the document names whose bytes have not all arrived. */
  readonly awaits: string[]
}

export interface BatchAnswer {
  readonly revision: number
  readonly refused: { readonly edit: unknown; readonly reason: string }[]
}
