import { sharedWith } from '@heliaster/core/kit'
import type { AnyEdit } from '@heliaster/core/kit'

import type { OnShelf } from '../sync/shelf'
import type { HasId, Held } from './held'
import type { Entry } from './listed'
import { replay } from './replay'

/** How what this device keeps is taken up into what is shown. */
export function takingUp<Doc extends HasId, Edit extends AnyEdit>({ kind, need, keyOf, listed, bases }: Held<Doc, Edit>) {
  const { shelf } = need
  const { store, entryOf, docOf, show } = listed

  /** Looks anew at what is on the shelf, after another page or the server has changed it. */
  async function sync(ids: readonly string[]): Promise<void> {
    const found = await shelf.readMany(ids.map(keyOf))
    take(new Map(ids.map((id, i) => [id, found[i]])))
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
    sync,
    /** Reads what this device keeps. */
    async load(): Promise<void> {
      const all = await shelf.readAll(kind.kind)
      take(new Map([...all].map(([key, onShelf]) => [key.slice(keyOf('').length), onShelf])))
      store.setState({ loaded: true })
    },
  }
}
