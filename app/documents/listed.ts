import { applyBatch } from '@heliaster/core/kit'
import type { AnyEdit, DocumentKind, DocumentSummary } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import type { History } from './history'

export interface Entry<Doc, Edit> {
  readonly doc: Doc
  readonly revision: number
  readonly changedAt: number
  readonly history: History<Edit>
}

/** A document that cannot be read here: kept as it is, and shown so that it can be saved as a file. */
export interface SetApart {
  readonly id: string
  /** As it is kept here; nothing where only the server has it. */
  readonly doc?: unknown
  readonly reason: string
}

export interface State<Doc, Edit> {
  readonly entries: Readonly<Record<string, Entry<Doc, Edit>>>
  /** What the server lists and this device has not fetched. */
  readonly elsewhere: Readonly<Record<string, DocumentSummary>>
  readonly setApart: Readonly<Record<string, SetApart>>
  /** False until what this device keeps has been read. */
  readonly loaded: boolean
}

/** An entry that is put on the list; without a history it keeps its own. */
export type Shown<Doc, Edit> = Omit<Entry<Doc, Edit>, 'history'> & { readonly history?: History<Edit> }

/** The documents of one kind as they are shown: as they are kept, with what drags under way make of them. `historyOf` is that of one that is new on the list. */
export function createListed<Doc extends object, Edit extends AnyEdit>(
  kind: DocumentKind<Doc, Edit>,
  historyOf: (id: string) => History<Edit>,
) {
  const store = createStore<State<Doc, Edit>>(() => ({ entries: {}, elsewhere: {}, setApart: {}, loaded: false }))
  /** Documents as they are without the drags under way. */
  const settled = new Map<string, Doc>()
  /** What each drag under way has made of a document so far. */
  const drags = new Map<string, Map<object, readonly Edit[]>>()
  const entryOf = (id: string): Entry<Doc, Edit> | undefined => store.getState().entries[id]
  const docOf = (id: string) => settled.get(id)

  /** Puts documents on the list, with the drags under way made on them; `undefined` takes one off. */
  function show(changes: ReadonlyMap<string, Shown<Doc, Edit> | undefined>): void {
    const entries = { ...store.getState().entries }
    for (const [id, change] of changes) {
      if (!change) {
        delete entries[id]
        settled.delete(id)
        continue
      }
      settled.set(id, change.doc)
      const moving = [...(drags.get(id)?.values() ?? [])].flat()
      const doc = moving.length > 0 ? applyBatch(kind, change.doc, moving, false).doc : change.doc
      entries[id] = { ...change, doc, history: change.history ?? entries[id]?.history ?? historyOf(id) }
    }
    store.setState({ entries })
  }

  return {
    store,
    entryOf,
    /** A document as it is kept, without the drags under way. */
    docOf,
    show,
    /** What a drag has made of a document so far; nothing once it is over. */
    drag(id: string, token: object, edits: readonly Edit[] | undefined): void {
      const ofDoc = drags.get(id) ?? new Map<object, readonly Edit[]>()
      drags.set(id, ofDoc)
      if (edits) ofDoc.set(token, edits)
      else ofDoc.delete(token)
      if (ofDoc.size === 0) drags.delete(id)
      const entry = entryOf(id)
      const doc = docOf(id)
      if (entry && doc) show(new Map([[id, { ...entry, doc }]]))
    },
    noteElsewhere(summaries: readonly DocumentSummary[]): void {
      const { entries, elsewhere } = store.getState()
      const added = summaries.filter(({ id }) => !(id in entries)).map((summary) => [summary.id, summary])
      if (added.length > 0) store.setState({ elsewhere: { ...elsewhere, ...Object.fromEntries(added) } })
    },
    forgetElsewhere(ids: readonly string[]): void {
      const gone = new Set(ids)
      const held = Object.entries(store.getState().elsewhere)
      const elsewhere = held.filter(([id]) => !gone.has(id))
      if (elsewhere.length < held.length) store.setState({ elsewhere: Object.fromEntries(elsewhere) })
    },
    /** The server cannot read a document: what it has can be saved as a file. */
    noteUnreadable(id: string, reason: string): void {
      store.setState(({ setApart }) => ({ setApart: { ...setApart, [id]: { id, reason } } }))
    },
  }
}
