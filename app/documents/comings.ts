import type { AnyEdit } from '@heliaster/core/kit'

import type { StoredDocument } from '../sync/local-db'
import type { HasId, Held } from './held'
import { emptyHistory } from './history'
import { replay } from './replay'

/** How documents come onto the list and go off it. `sync` looks anew at what this device keeps of some. */
export function comingsOf<Doc extends HasId, Edit extends AnyEdit>(
  { kind, need, keyOf, listed, bases, outgoing }: Held<Doc, Edit>,
  sync: (ids: readonly string[]) => Promise<void>,
) {
  const { shelf } = need
  const { entryOf, docOf, show } = listed

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
    const found = await shelf.readMany(ids.map(keyOf))
    const here = ids.filter((_, i) => found[i].row)
    if (here.length === 0) return 0
    await shelf.write({ add: here.map((id) => outgoing(id, 'restore', [])) })
    await sync(here)
    return here.length
  }

  return {
    create: async (doc: Doc) => createMany([doc]),
    /** Many at once: one change of the store, one transaction. Resolves when they are kept on this device. */
    createMany,
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
      const own = { ...replay(kind, base.doc, { row, batches }).doc, id: need.makeId(kind.kind) }
      await createMany([own])
      await shelf.write({ settled: batches.map((batch) => batch.batchId), hidden: [{ key: keyOf(id), hidden: true }] })
      await sync([id])
      return own.id
    },
  }
}
