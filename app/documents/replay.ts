import { applyBatch, editsOfNow } from '@heliaster/core/kit'
import type { AnyEdit, DocumentKind } from '@heliaster/core/kit'

import type { StoredDocument } from '../sync/local-db'
import type { OnShelf } from '../sync/shelf'

/** A document as this device sees it. */
export interface Replayed<Doc> {
  readonly doc: Doc
  readonly hidden: boolean
}

/**
 * The server's last word with all that waits made again on it, in its order: what every page of this device sees, and
 * what the server will have once it has heard everything.
 */
export function replay<Doc extends object, Edit extends AnyEdit>(
  kind: DocumentKind<Doc, Edit>,
  base: Doc,
  { row, batches }: OnShelf,
): Replayed<Doc> {
  let doc = base
  let hidden = row?.hidden ?? false
  for (const batch of batches) {
    if (batch.type === 'edits') ({ doc } = applyBatch(kind, doc, editsOfNow(kind, doc, batch.edits as AnyEdit[], batch.version).edits))
    if (batch.type === 'hide') hidden = true
    if (batch.type === 'restore') hidden = false
  }
  return { doc, hidden }
}

/** The documents of the server's last word, read once for each revision. */
export class Bases<Doc extends object, Edit extends AnyEdit> {
  private readonly held = new Map<string, { readonly revision: number; readonly doc: Doc }>()

  constructor(private readonly kind: Pick<DocumentKind<Doc, Edit>, 'read'>) {}

  of(row: StoredDocument): { readonly doc: Doc } | { readonly reason: string } {
    const held = this.held.get(row.id)
    if (held && held.revision === row.revision) return held
    const read = this.kind.read(row.doc)
    if (!read.ok) return { reason: read.message }
    return this.remember(row.id, row.revision, read.value)
  }

  remember(id: string, revision: number, doc: Doc): { readonly doc: Doc } {
    const held = { revision, doc }
    this.held.set(id, held)
    return held
  }
}
