import type { AnyEdit, DocumentKind } from '@heliaster/core/kit'

import { changesOf } from './changes'
import { comingsOf } from './comings'
import { createHeld } from './held'
import type { DocumentsNeed, HasId } from './held'
import { takingUp } from './taking-up'

/** The documents of one kind: edits are here at once, written on this device at once, and on their way to the server. */
export function createDocuments<Doc extends HasId, Edit extends AnyEdit>(kind: DocumentKind<Doc, Edit>, need: DocumentsNeed) {
  const held = createHeld(kind, need)
  const { sync, load } = takingUp(held)
  const { store, noteElsewhere, noteUnreadable, forgetElsewhere } = held.listed
  return {
    kind,
    store,
    bases: held.bases,
    sync,
    load,
    ...changesOf(held),
    ...comingsOf(held, sync),
    noteElsewhere,
    noteUnreadable,
    forgetElsewhere,
  }
}

export type { DocumentChange, DocumentsNeed } from './held'
export type { Entry, SetApart } from './listed'
export type Documents<Doc extends HasId, Edit extends AnyEdit> = ReturnType<typeof createDocuments<Doc, Edit>>
