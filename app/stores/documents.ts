import { applyBatch, kitKind, makeChange, sourceKind, startKind } from '@heliaster/core/kit'
import type { DocumentKind, Kind, Kit, KitEdit, Source, SourceEdit, Start, StartEdit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { answerOf, send } from './api'
import { emptyHistory, remember, stepBack, stepForward } from './history'
import type { History } from './history'
import { documentKey, localDb } from './local-db'
import type { Outgoing, StoredDocument } from './local-db'
import { makeId } from './make-id'
import { noticeOutgoing } from './outbox'

export interface Entry<Doc, Edit> {
  readonly doc: Doc
  readonly revision: number
  readonly changedAt: number
  readonly history: History<Edit>
}

interface State<Doc, Edit> {
  readonly entries: Readonly<Record<string, Entry<Doc, Edit>>>
  /** False until what this device keeps has been read. */
  readonly loaded: boolean
}

interface HasId {
  readonly id: string
  readonly name: string
}

/** A gesture under way: the document follows it, and it is written down once, when it ends. */
export interface Gesture<Edit> {
  /** Replaces what the gesture has done so far. */
  set(edits: Edit[]): void
  end(): void
}

/** Edits of one document among many. */
export interface DocumentChange<Edit> {
  readonly id: string
  readonly edits: Edit[]
}

interface Kept {
  readonly id: string
  readonly outgoing?: Omit<Outgoing, 'kind' | 'docId' | 'batchId'>
}

/** The documents of one kind: edits are here at once, in IndexedDB at once, and on their way to the server. */
export function createDocuments<Doc extends HasId, Edit extends { readonly type: string }>(kind: DocumentKind<Doc, Edit>) {
  const store = createStore<State<Doc, Edit>>(() => ({ entries: {}, loaded: false }))

  const entryOf = (id: string) => store.getState().entries[id]
  const put = (id: string, entry: Entry<Doc, Edit>) => store.setState(({ entries }) => ({ entries: { ...entries, [id]: entry } }))

  const writing = new Set<Promise<void>>()
  let changeCount = 0

  function keep(changes: readonly Kept[], hidden = false): Promise<void> {
    if (changes.some((change) => change.outgoing)) changeCount++
    const written = write(changes, hidden)
    writing.add(written)
    const done = () => void writing.delete(written)
    written.then(done, done)
    return written
  }

  /** One transaction: the documents as they are now, and what the server has yet to hear of each. */
  async function write(changes: readonly Kept[], hidden: boolean): Promise<void> {
    const db = await localDb()
    const transaction = db.transaction(['documents', 'outbox'], 'readwrite')
    for (const { id, outgoing } of changes) {
      const entry = entryOf(id)
      if (!entry) continue
      const { doc, revision, changedAt } = entry
      const stored: StoredDocument = { key: documentKey(kind.kind, id), kind: kind.kind, id, doc, revision, changedAt, hidden }
      void transaction.objectStore('documents').put(stored)
      if (outgoing) void transaction.objectStore('outbox').add({ ...outgoing, kind: kind.kind, docId: id, batchId: makeId('batch') })
    }
    await transaction.done
    const sent = changes.filter((change) => change.outgoing).length
    if (sent > 0) noticeOutgoing(sent)
  }

  /** Changes a document, keeps and sends the change; `history` is told what undoes it. */
  function apply(id: string, edits: Edit[], history: (inverses: Edit[]) => History<Edit>): void {
    const entry = entryOf(id)
    if (!entry || edits.length === 0) return
    const { doc, edits: elements, inverses } = makeChange(kind, entry.doc, edits)
    if (doc === entry.doc) {
      put(id, { ...entry, history: history([]) })
      return
    }
    put(id, { ...entry, doc, changedAt: Date.now(), history: history(inverses) })
    void keep([{ id, outgoing: { type: 'edits', edits: elements } }])
  }

  async function hideMany(ids: readonly string[]): Promise<() => Promise<void>> {
    const hidden = ids.flatMap((id) => (entryOf(id) ? [[id, entryOf(id)!] as const] : []))
    await keep(
      hidden.map(([id]) => ({ id, outgoing: { type: 'hide', edits: [] } })),
      true,
    )
    const gone = new Set(ids)
    store.setState(({ entries }) => ({ entries: Object.fromEntries(Object.entries(entries).filter(([id]) => !gone.has(id))) }))
    return async () => {
      store.setState(({ entries }) => ({ entries: { ...entries, ...Object.fromEntries(hidden) } }))
      await keep(hidden.map(([id]) => ({ id, outgoing: { type: 'restore', edits: [] } })))
    }
  }

  return {
    kind,
    store,
    /** One step: applied, undoable, saved. Edits that change nothing leave no step. */
    edit(id: string, edits: Edit[]): void {
      const before = entryOf(id)
      if (before) apply(id, edits, (inverses) => (inverses.length > 0 ? remember(before.history, { edits, inverses }) : before.history))
    },
    gesture(id: string): Gesture<Edit> {
      const start = entryOf(id)
      let last: Edit[] = []
      return {
        set(edits) {
          if (!start) return
          last = edits
          put(id, { ...entryOf(id)!, doc: applyBatch(kind, start.doc, edits).doc })
        },
        end() {
          if (!start || last.length === 0) return
          put(id, { ...entryOf(id)!, doc: start.doc })
          this.set = () => undefined
          const edits = last
          last = []
          apply(id, edits, (inverses) => (inverses.length > 0 ? remember(start.history, { edits, inverses }) : start.history))
        },
      }
    },
    undo(id: string): void {
      const back = entryOf(id) && stepBack(entryOf(id)!.history)
      if (back) apply(id, back.edits, () => back.history)
    },
    redo(id: string): void {
      const forward = entryOf(id) && stepForward(entryOf(id)!.history)
      if (forward) apply(id, forward.edits, () => forward.history)
    },
    async create(doc: Doc): Promise<void> {
      put(doc.id, { doc, revision: 0, changedAt: Date.now(), history: emptyHistory })
      await keep([{ id: doc.id, outgoing: { type: 'create', edits: [doc] } }])
    },
    /** Many at once: one change of the store, one transaction. */
    async createMany(docs: readonly Doc[]): Promise<void> {
      const changedAt = Date.now()
      const added = Object.fromEntries(docs.map((doc) => [doc.id, { doc, revision: 0, changedAt, history: emptyHistory as History<Edit> }]))
      store.setState(({ entries }) => ({ entries: { ...entries, ...added } }))
      await keep(docs.map((doc) => ({ id: doc.id, outgoing: { type: 'create', edits: [doc] } })))
    },
    /** Edits of many documents in one change of the store. Returns what undoes them; histories of each stay as they are. */
    editMany(changes: readonly DocumentChange<Edit>[]): DocumentChange<Edit>[] {
      const entries = { ...store.getState().entries }
      const undone: DocumentChange<Edit>[] = []
      const kept: Kept[] = []
      for (const { id, edits } of changes) {
        const entry = entries[id]
        if (!entry) continue
        const { doc, edits: elements, inverses } = makeChange(kind, entry.doc, edits)
        if (doc === entry.doc) continue
        entries[id] = { ...entry, doc, changedAt: Date.now() }
        undone.unshift({ id, edits: inverses })
        kept.push({ id, outgoing: { type: 'edits', edits: elements } })
      }
      if (kept.length > 0) {
        store.setState({ entries })
        void keep(kept)
      }
      return undone
    },
    /** Takes a document off the list. Its data stays, here and on the server, so that it can be brought back. */
    hide: async (id: string) => hideMany([id]),
    hideMany,
    /** Reads what this device keeps, then asks the server for what is newer. */
    async load(): Promise<void> {
      const db = await localDb()
      const stored = await db.getAllFromIndex('documents', 'kind', kind.kind)
      const entries: Record<string, Entry<Doc, Edit>> = {}
      for (const { id, doc, revision, changedAt, hidden } of stored) {
        const read = kind.read(doc)
        if (read.ok && !hidden) entries[id] = { doc: read.value, revision, changedAt, history: emptyHistory }
      }
      // What was made while this was read is newer than what was read.
      store.setState(({ entries: made }) => ({ entries: { ...entries, ...made }, loaded: true }))
      await this.refresh(new Set(stored.filter((one) => one.hidden).map((one) => one.id)))
    },
    async refresh(hidden: ReadonlySet<string> = new Set()): Promise<void> {
      const folder = `${kind.kind}s`
      const listed = await answerOf<{ id: string; revision: number; changedAt: string; doc?: unknown }[]>(send('GET', folder))
      const waiting = new Set((await (await localDb()).getAll('outbox')).map((one) => one.docId))
      for (const { id, revision, changedAt, doc: given } of listed) {
        const entry = entryOf(id)
        if (hidden.has(id) || waiting.has(id) || (entry && entry.revision >= revision)) continue
        const json = given ?? (await answerOf<{ doc: unknown }>(send('GET', `${folder}/${id}`))).doc
        const read = kind.read(json)
        if (read.ok) await this.accept(id, revision, read.value, Date.parse(changedAt))
      }
    },
    /** How many changes have been made here so far. */
    changes: () => changeCount,
    /** Waits until all that was changed is written down, on its way to the server too. */
    async written(): Promise<void> {
      while (writing.size > 0) await Promise.allSettled(writing)
    },
    /** Takes over what the server says a document is. */
    async accept(id: string, revision: number, doc: Doc | undefined, changedAt?: number): Promise<void> {
      const entry = entryOf(id)
      if (!entry && !doc) return
      const history = entry?.history ?? emptyHistory
      put(id, { doc: doc ?? entry!.doc, revision, changedAt: changedAt ?? entry?.changedAt ?? Date.now(), history })
      await keep([{ id }])
    },
  }
}

export type Documents<Doc extends HasId, Edit extends { readonly type: string }> = ReturnType<typeof createDocuments<Doc, Edit>>

export const kits = createDocuments<Kit, KitEdit>(kitKind)
export const sources = createDocuments<Source, SourceEdit>(sourceKind)
export const starts = createDocuments<Start, StartEdit>(startKind)

/** The documents of a kind, where only their data is looked at. */
export function documentsOf(kind: Kind): Documents<HasId, never> {
  return { kit: kits, source: sources, start: starts }[kind] as unknown as Documents<HasId, never>
}
