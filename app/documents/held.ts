import type { AnyEdit, DocumentKind, MakeId } from '@heliaster/core/kit'

import { documentKey } from '../sync/local-db'
import type { Outgoing } from '../sync/local-db'
import type { Shelf } from '../sync/shelf'
import { emptyHistory } from './history'
import type { History } from './history'
import { createListed } from './listed'
import { Bases } from './replay'

export interface HasId {
  readonly id: string
  readonly name: string
}

/** Edits of one document among many. */
export interface DocumentChange<Edit> {
  readonly id: string
  readonly edits: Edit[]
}

export interface DocumentsNeed {
  readonly shelf: Shelf
  readonly makeId: MakeId
  now(): number
  /** Is told why a change was not made. */
  onRefused(reason: string): void
  /** Is told of what came from elsewhere: a document that is new here, or one that others have changed. */
  onArrived?(before: unknown, after: unknown): void
  /** Is told of documents that were made here. */
  onMade?(ids: readonly string[]): void
  /** What could be taken back of a document before its page was loaded anew. */
  stepsOf?(key: string): History<unknown> | undefined
}

/** What all that is done with the documents of one kind works on: how they are shown, on what they stand, how they go out. */
export function createHeld<Doc extends HasId, Edit extends AnyEdit>(kind: DocumentKind<Doc, Edit>, need: DocumentsNeed) {
  const keyOf = (id: string) => documentKey(kind.kind, id)
  const stepsOf = (id: string) => (need.stepsOf?.(keyOf(id)) as History<Edit> | undefined) ?? emptyHistory
  return {
    kind,
    need,
    keyOf,
    listed: createListed(kind, stepsOf),
    bases: new Bases<Doc, Edit>(kind),
    outgoing: (id: string, type: Outgoing['type'], edits: readonly unknown[]): Outgoing => ({
      key: keyOf(id),
      kind: kind.kind,
      docId: id,
      type,
      batchId: need.makeId('batch'),
      edits,
      version: kind.version,
    }),
  }
}

export type Held<Doc extends HasId, Edit extends AnyEdit> = ReturnType<typeof createHeld<Doc, Edit>>
