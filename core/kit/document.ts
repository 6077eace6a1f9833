import type { z } from 'zod'

import type { Kit } from './kit'
import { applyEdit, EditDoesNotApply, kitEditSchema } from './kit-edit'
import type { KitEdit } from './kit-edit'
import { invertEdit } from './kit-invert'
import { applySourceEdit, invertSourceEdit, sourceEditSchema } from './source'
import type { Source, SourceEdit } from './source'
import { applyStartEdit, invertStartEdit, startEditSchema } from './start'
import type { Start, StartEdit } from './start'
import { readKit, readSource, readStart } from './upgrade'
import type { Read } from './upgrade'

export const kinds = ['kit', 'source', 'start'] as const
export type Kind = (typeof kinds)[number]

/** What a store, the wire and the server need to know of a kind of document; all kinds share the rest. */
export interface DocumentKind<Doc, Edit> {
  readonly kind: Kind
  read(json: unknown): Read<Doc>
  readonly editSchema: z.ZodType<Edit>
  apply(doc: Doc, edit: Edit): Doc
  invert(before: Doc, edit: Edit): Edit[]
}

export const kitKind: DocumentKind<Kit, KitEdit> = {
  kind: 'kit',
  read: readKit,
  editSchema: kitEditSchema,
  apply: applyEdit,
  invert: invertEdit,
}

export const sourceKind: DocumentKind<Source, SourceEdit> = {
  kind: 'source',
  read: readSource,
  editSchema: sourceEditSchema,
  apply: applySourceEdit,
  invert: invertSourceEdit,
}

export const startKind: DocumentKind<Start, StartEdit> = {
  kind: 'start',
  read: readStart,
  editSchema: startEditSchema,
  apply: applyStartEdit,
  invert: invertStartEdit,
}

export interface Applied<Doc, Edit> {
  readonly doc: Doc
  /** In the order in which they undo. */
  readonly inverses: Edit[]
  /** Edits that no longer fit, each with its reason; the others are applied. */
  readonly refused: { readonly edit: Edit; readonly reason: string }[]
}

/** Applies a batch in order. What no longer fits is told, never dropped silently. */
export function applyBatch<Doc, Edit>(kind: DocumentKind<Doc, Edit>, before: Doc, edits: readonly Edit[]): Applied<Doc, Edit> {
  let doc = before
  const inverses: Edit[] = []
  const refused: { edit: Edit; reason: string }[] = []
  for (const edit of edits) {
    try {
      const undo = kind.invert(doc, edit)
      doc = kind.apply(doc, edit)
      inverses.unshift(...undo)
    } catch (error) {
      if (!(error instanceof EditDoesNotApply)) throw error
      refused.push({ edit, reason: error.message })
    }
  }
  return { doc, inverses, refused }
}
