import { makeChange } from '@heliaster/core/kit'
import type { AnyEdit } from '@heliaster/core/kit'

import type { Outgoing } from '../sync/local-db'
import { gestureOf } from './gesture'
import type { Gesture } from './gesture'
import type { DocumentChange, HasId, Held } from './held'
import { remember, stepBack, stepForward } from './history'
import type { History } from './history'
import type { Entry } from './listed'

/** What changes documents: each change is shown at once, kept on this device and sent. */
export function changesOf<Doc extends HasId, Edit extends AnyEdit>({ kind, need, listed, outgoing }: Held<Doc, Edit>) {
  const { entryOf, docOf, show } = listed
  const change = (doc: Doc, edits: readonly Edit[]) =>
    makeChange(kind as never, doc, edits as never) as ReturnType<typeof makeChange<Doc, Edit>>

  /** Makes a change; `history` is told what undoes it. */
  function apply(id: string, edits: Edit[], history: (made: { edits: Edit[]; inverses: Edit[] }) => History<Edit>): void {
    const entry = entryOf(id)
    const before = docOf(id)
    if (!entry || !before || edits.length === 0) return
    const made = change(before, edits)
    if (made.refused.length > 0) need.onRefused(made.refused[0].reason)
    const isSame = made.doc === before
    show(new Map([[id, { ...entry, doc: made.doc, changedAt: isSame ? entry.changedAt : need.now(), history: history(made) }]]))
    if (!isSame) void need.shelf.write({ add: [outgoing(id, 'edits', made.edits)] })
  }

  /** One more step that can be taken back, where anything has changed. */
  const stepAfter = (id: string) => (made: { edits: Edit[]; inverses: Edit[] }) => {
    const { history } = entryOf(id)!
    return made.inverses.length > 0 ? remember(history, made) : history
  }

  return {
    /** One step: applied, undoable, saved. Edits that change nothing leave no step. */
    edit: (id: string, edits: Edit[]): void => apply(id, edits, stepAfter(id)),
    /** A drag: it keeps its edits only, and makes them on the document of the moment, whoever has changed that meanwhile. */
    gesture: (id: string): Gesture<Edit> =>
      gestureOf(kind, listed, id, (edits) => {
        if (entryOf(id)) apply(id, edits, stepAfter(id))
        else void need.shelf.write({ refused: [{ kind: kind.kind, docId: id, reason: 'It was deleted while it was being changed.', edits, version: kind.version, at: need.now() }] }) // prettier-ignore
      }),
    undo(id: string): void {
      const back = entryOf(id) && stepBack(entryOf(id)!.history)
      if (back) apply(id, back.edits, () => back.history)
    },
    redo(id: string): void {
      const forward = entryOf(id) && stepForward(entryOf(id)!.history)
      if (forward) apply(id, forward.edits, () => forward.history)
    },
    /** Edits of many documents in one change of the store. Returns what undoes them; histories of each stay as they are. */
    editMany(changes: readonly DocumentChange<Edit>[]): DocumentChange<Edit>[] {
      const undone: DocumentChange<Edit>[] = []
      const shown = new Map<string, Omit<Entry<Doc, Edit>, 'history'>>()
      const add: Outgoing[] = []
      const changedAt = need.now()
      for (const { id, edits } of changes) {
        const before = shown.get(id)?.doc ?? docOf(id)
        if (!before) continue
        const made = change(before, edits)
        if (made.doc === before) continue
        shown.set(id, { ...entryOf(id)!, doc: made.doc, changedAt })
        undone.unshift({ id, edits: made.inverses })
        add.push(outgoing(id, 'edits', made.edits))
      }
      if (add.length > 0) {
        show(shown)
        void need.shelf.write({ add })
      }
      return undone
    },
  }
}
