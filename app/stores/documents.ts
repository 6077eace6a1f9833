import { applyBatch, kitKind, sourceKind } from '@heliaster/core/kit'
import type { DocumentKind, Kit, KitEdit, Source, SourceEdit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { answerOf, send } from './api'
import { emptyHistory, remember, stepBack, stepForward } from './history'
import type { History } from './history'
import { documentKey, localDb } from './local-db'
import type { Kind, Outgoing, StoredDocument } from './local-db'
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

/** The documents of one kind: edits are here at once, in IndexedDB at once, and on their way to the server. */
export function createDocuments<Doc extends HasId, Edit>(kind: DocumentKind<Doc, Edit>) {
  const store = createStore<State<Doc, Edit>>(() => ({ entries: {}, loaded: false }))

  const entryOf = (id: string) => store.getState().entries[id]
  const put = (id: string, entry: Entry<Doc, Edit>) => store.setState(({ entries }) => ({ entries: { ...entries, [id]: entry } }))

  /** One transaction: the document as it is now, and what the server has yet to hear. */
  async function keep(id: string, outgoing: Omit<Outgoing, 'kind' | 'docId' | 'batchId'> | undefined, hidden = false): Promise<void> {
    const entry = entryOf(id)
    if (!entry) return
    const db = await localDb()
    const transaction = db.transaction(['documents', 'outbox'], 'readwrite')
    const stored: StoredDocument = {
      key: documentKey(kind.kind, id),
      kind: kind.kind,
      id,
      doc: entry.doc,
      revision: entry.revision,
      changedAt: entry.changedAt,
      hidden,
    }
    void transaction.objectStore('documents').put(stored)
    if (outgoing) void transaction.objectStore('outbox').add({ ...outgoing, kind: kind.kind, docId: id, batchId: makeId('batch') })
    await transaction.done
    if (outgoing) noticeOutgoing()
  }

  /** Changes a document, keeps and sends the change; `history` is told what undoes it. */
  function apply(id: string, edits: Edit[], history: (inverses: Edit[]) => History<Edit>): void {
    const entry = entryOf(id)
    if (!entry || edits.length === 0) return
    const { doc, inverses } = applyBatch(kind, entry.doc, edits)
    if (doc === entry.doc) {
      put(id, { ...entry, history: history([]) })
      return
    }
    put(id, { ...entry, doc, changedAt: Date.now(), history: history(inverses) })
    void keep(id, { type: 'edits', edits })
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
      await keep(doc.id, { type: 'create', edits: [doc] })
    },
    /** Takes a document off the list. Its data stays, here and on the server, so that it can be brought back. */
    async hide(id: string): Promise<() => Promise<void>> {
      const entry = entryOf(id)
      await keep(id, { type: 'hide', edits: [] }, true)
      store.setState(({ entries }) => {
        const { [id]: _hidden, ...rest } = entries
        return { entries: rest }
      })
      return async () => {
        if (!entry) return
        put(id, entry)
        await keep(id, { type: 'restore', edits: [] })
      }
    },
    /** Reads what this device keeps, then asks the server for what is newer. */
    async load(): Promise<void> {
      const db = await localDb()
      const stored = await db.getAllFromIndex('documents', 'kind', kind.kind)
      const entries: Record<string, Entry<Doc, Edit>> = {}
      for (const { id, doc, revision, changedAt, hidden } of stored) {
        const read = kind.read(doc)
        if (read.ok && !hidden) entries[id] = { doc: read.value, revision, changedAt, history: emptyHistory }
      }
      store.setState({ entries, loaded: true })
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
    /** Takes over what the server says a document is. */
    async accept(id: string, revision: number, doc: Doc | undefined, changedAt?: number): Promise<void> {
      const entry = entryOf(id)
      if (!entry && !doc) return
      const history = entry?.history ?? emptyHistory
      put(id, { doc: doc ?? entry!.doc, revision, changedAt: changedAt ?? entry?.changedAt ?? Date.now(), history })
      await keep(id, undefined)
    },
  }
}

export type Documents<Doc extends HasId, Edit> = ReturnType<typeof createDocuments<Doc, Edit>>

export const kits = createDocuments<Kit, KitEdit>(kitKind)
export const sources = createDocuments<Source, SourceEdit>(sourceKind)

/** The documents of a kind, where only their data is looked at. */
export function documentsOf(kind: Kind): Documents<HasId, unknown> {
  return (kind === 'kit' ? kits : sources) as unknown as Documents<HasId, unknown>
}
