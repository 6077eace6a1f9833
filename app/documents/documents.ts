import { makeChange, sharedWith } from '@heliaster/core/kit'
import type { AnyEdit, DocumentKind, MakeId } from '@heliaster/core/kit'

import { documentKey } from '../sync/local-db'
import type { Outgoing, StoredDocument } from '../sync/local-db'
import type { OnShelf, Shelf } from '../sync/shelf'
import { intendedOnly } from './gesture'
import type { Gesture } from './gesture'
import { emptyHistory, remember, stepBack, stepForward } from './history'
import type { History } from './history'
import { createListed } from './listed'
import type { Entry } from './listed'
import { Bases, replay } from './replay'

interface HasId {
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

/** The documents of one kind: edits are here at once, written on this device at once, and on their way to the server. */
export function createDocuments<Doc extends HasId, Edit extends AnyEdit>(kind: DocumentKind<Doc, Edit>, need: DocumentsNeed) {
  const { shelf, makeId } = need
  const keyOf = (id: string) => documentKey(kind.kind, id)
  const before = (id: string) => (need.stepsOf?.(keyOf(id)) as History<Edit> | undefined) ?? emptyHistory
  const listed = createListed(kind, before)
  const { store, entryOf, docOf, show } = listed
  const bases = new Bases<Doc, Edit>(kind)

  const outgoing = (id: string, type: Outgoing['type'], edits: readonly unknown[]): Outgoing => ({
    key: keyOf(id),
    kind: kind.kind,
    docId: id,
    type,
    batchId: makeId('batch'),
    edits,
    version: kind.version,
  })

  /** Makes a change; `history` is told what undoes it. */
  function apply(id: string, edits: Edit[], history: (made: { edits: Edit[]; inverses: Edit[] }) => History<Edit>): void {
    const entry = entryOf(id)
    const before = docOf(id)
    if (!entry || !before || edits.length === 0) return
    const made = makeChange(kind as never, before, edits) as ReturnType<typeof makeChange<Doc, Edit>>
    if (made.refused.length > 0) need.onRefused(made.refused[0].reason)
    const isSame = made.doc === before
    show(new Map([[id, { ...entry, doc: made.doc, changedAt: isSame ? entry.changedAt : need.now(), history: history(made) }]]))
    if (!isSame) void shelf.write({ add: [outgoing(id, 'edits', made.edits)] })
  }

  const newRow = (doc: Doc, changedAt: number): StoredDocument => ({
    key: keyOf(doc.id),
    kind: kind.kind,
    id: doc.id,
    doc,
    revision: 0,
    changedAt,
    hidden: false,
  })

  async function createMany(docs: readonly Doc[]): Promise<void> {
    const changedAt = need.now()
    need.onMade?.(docs.map(({ id }) => id))
    show(new Map(docs.map((doc) => [doc.id, { doc, revision: 0, changedAt, history: emptyHistory }])))
    await shelf.write({ rows: docs.map((doc) => newRow(doc, changedAt)), add: docs.map((doc) => outgoing(doc.id, 'create', [doc])) })
  }

  async function hideMany(ids: readonly string[]): Promise<() => Promise<void>> {
    const hidden = new Map(ids.flatMap((id) => (entryOf(id) && docOf(id) ? [[id, { ...entryOf(id)!, doc: docOf(id)! }] as const] : [])))
    show(new Map([...hidden.keys()].map((id) => [id, undefined])))
    await shelf.write({ add: [...hidden.keys()].map((id) => outgoing(id, 'hide', [])) })
    return async () => {
      show(hidden)
      await shelf.write({ add: [...hidden.keys()].map((id) => outgoing(id, 'restore', [])) })
      await sync([...hidden.keys()])
    }
  }

  /** Returns how many of them this device still has. */
  async function bringBackMany(ids: readonly string[]): Promise<number> {
    const found = await Promise.all(ids.map(async (id) => ((await shelf.read(keyOf(id))).row ? [id] : [])))
    const here = found.flat()
    if (here.length === 0) return 0
    await shelf.write({ add: here.map((id) => outgoing(id, 'restore', [])) })
    await sync(here)
    return here.length
  }

  /** Looks anew at what is on the shelf, after another page or the server has changed it. */
  async function sync(ids: readonly string[]): Promise<void> {
    take(new Map(await Promise.all(ids.map(async (id) => [id, await shelf.read(keyOf(id))] as const))))
  }

  function take(found: ReadonlyMap<string, OnShelf>): void {
    const shown = new Map<string, Omit<Entry<Doc, Edit>, 'history'> | undefined>()
    const apart = { ...store.getState().setApart }
    const elsewhere = { ...store.getState().elsewhere }
    for (const [id, onShelf] of found) {
      const { row, batches } = onShelf
      if (!row) continue
      delete apart[id]
      delete elsewhere[id]
      const base = bases.of(row)
      if ('reason' in base) {
        apart[id] = { id, doc: row.doc, reason: base.reason }
        continue
      }
      const now = replay(kind, base.doc, onShelf)
      const held = entryOf(id)
      if (now.hidden) {
        if (held) shown.set(id, undefined)
        continue
      }
      const before = docOf(id)
      const doc = before ? sharedWith(kind, before, now.doc) : now.doc
      if (held && doc === before && held.revision === row.revision) continue
      if (doc !== before && store.getState().loaded) need.onArrived?.(before, doc)
      const changedAt = Math.max(row.changedAt, batches.length > 0 ? (held?.changedAt ?? 0) : 0)
      shown.set(id, { doc, revision: row.revision, changedAt })
    }
    if (shown.size > 0) show(shown)
    store.setState({ setApart: apart, elsewhere })
  }

  return {
    kind,
    store,
    /** One step: applied, undoable, saved. Edits that change nothing leave no step. */
    edit(id: string, edits: Edit[]): void {
      const before = entryOf(id)
      if (before) apply(id, edits, (made) => (made.inverses.length > 0 ? remember(before.history, made) : before.history))
    },
    /** A drag: it keeps its edits only, and makes them on the document of the moment, whoever has changed that meanwhile. */
    gesture(id: string): Gesture<Edit> {
      const token = {}
      const seen = docOf(id)
      let meant: Edit[] = []
      return {
        set(edits) {
          const now = docOf(id)
          if (!seen || !now) return
          meant = intendedOnly(kind, seen, now, edits)
          listed.drag(id, token, meant)
        },
        end() {
          const edits = meant
          meant = []
          this.set = () => undefined
          listed.drag(id, token, undefined)
          if (edits.length > 0) {
            if (entryOf(id)) apply(id, edits, (made) => (made.inverses.length > 0 ? remember(entryOf(id)!.history, made) : entryOf(id)!.history))
            else void shelf.write({ refused: [{ kind: kind.kind, docId: id, reason: 'It was deleted while it was being changed.', edits, version: kind.version, at: need.now() }] }) // prettier-ignore
          }
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
    create: async (doc: Doc) => createMany([doc]),
    /** Many at once: one change of the store, one transaction. Resolves when they are kept on this device. */
    createMany,
    /** Edits of many documents in one change of the store. Returns what undoes them; histories of each stay as they are. */
    editMany(changes: readonly DocumentChange<Edit>[]): DocumentChange<Edit>[] {
      const undone: DocumentChange<Edit>[] = []
      const shown = new Map<string, Omit<Entry<Doc, Edit>, 'history'>>()
      const add: Outgoing[] = []
      const changedAt = need.now()
      for (const { id, edits } of changes) {
        const before = shown.get(id)?.doc ?? docOf(id)
        if (!before) continue
        const made = makeChange(kind as never, before, edits) as ReturnType<typeof makeChange<Doc, Edit>>
        if (made.doc === before) continue
        shown.set(id, { ...entryOf(id)!, doc: made.doc, changedAt })
        undone.unshift({ id, edits: made.inverses })
        add.push(outgoing(id, 'edits', made.edits))
      }
      if (add.length > 0) {
        show(shown)
        void shelf.write({ add })
      }
      return undone
    },
    /** Takes a document off the list. Its data stays, here and on the server, so that it can be brought back. */
    hide: async (id: string) => hideMany([id]),
    hideMany,
    /** Brings back what was taken off the list, here or elsewhere, as far as this device still has it. */
    bringBack: async (id: string) => (await bringBackMany([id])) > 0,
    bringBackMany,
    /** Makes a document that is kept under an id that is taken a document of its own. Returns its new id. */
    async asItsOwn(id: string): Promise<string | undefined> {
      const { row, batches } = await shelf.read(keyOf(id))
      const base = row && bases.of(row)
      if (!base || 'reason' in base) return undefined
      const own = { ...replay(kind, base.doc, { row, batches }).doc, id: makeId(kind.kind) }
      await createMany([own])
      await shelf.write({ settled: batches.map((batch) => batch.batchId), hidden: [{ key: keyOf(id), hidden: true }] })
      await sync([id])
      return own.id
    },
    sync,
    bases,
    /** Reads what this device keeps. */
    async load(): Promise<void> {
      const all = await shelf.readAll(kind.kind)
      take(new Map([...all].map(([key, onShelf]) => [key.slice(keyOf('').length), onShelf])))
      store.setState({ loaded: true })
    },
    noteElsewhere: listed.noteElsewhere,
    noteUnreadable: listed.noteUnreadable,
    forgetElsewhere: listed.forgetElsewhere,
  }
}

export type { Entry, SetApart } from './listed'
export type Documents<Doc extends HasId, Edit extends AnyEdit> = ReturnType<typeof createDocuments<Doc, Edit>>
