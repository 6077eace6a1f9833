import { makeChange } from '@heliaster/core/kit'
import type { AnyEdit, DocumentKind } from '@heliaster/core/kit'

/** A gesture under way: the document follows it, and it is written down once, when it ends. */
export interface Gesture<Edit> {
  /** Replaces what the gesture has done so far. */
  set(edits: Edit[]): void
  end(): void
}

/** What a gesture looks at and shows itself in: documents as they are kept, and with the drags under way. */
interface Dragged<Doc, Edit> {
  docOf(id: string): Doc | undefined
  drag(id: string, token: object, edits: readonly Edit[] | undefined): void
}

/** A gesture on a document. When it ends, `keep` is given what it was meant to do, if it was anything. */
export function gestureOf<Doc extends object, Edit extends AnyEdit>(
  kind: DocumentKind<Doc, Edit>,
  { docOf, drag }: Dragged<Doc, Edit>,
  id: string,
  keep: (edits: Edit[]) => void,
): Gesture<Edit> {
  const token = {}
  const seen = docOf(id)
  let meant: Edit[] = []
  return {
    set(edits) {
      const now = docOf(id)
      if (!seen || !now) return
      meant = intendedOnly(kind, seen, now, edits)
      drag(id, token, meant)
    },
    end() {
      const edits = meant
      meant = []
      this.set = () => undefined
      drag(id, token, undefined)
      if (edits.length > 0) keep(edits)
    },
  }
}

/**
 * Of edits that screens made of a document they had drawn, those that are meant. A screen sends some things whole as it
 * drew them; what in them is as it was when the drag began, or as it is now, nobody meant to change.
 */
function intendedOnly<Doc extends object, Edit extends AnyEdit>(
  kind: DocumentKind<Doc, Edit>,
  seen: Doc,
  now: Doc,
  edits: readonly Edit[],
): Edit[] {
  const fromNow = makeChange(kind as never, now, edits, false).edits as Edit[]
  if (seen === now) return fromNow
  const fromThen = new Set((makeChange(kind as never, seen, edits, false).edits as Edit[]).map(textOf))
  return fromNow.filter((edit) => fromThen.has(textOf(edit)))
}

/** An edit by what it does; what an item is put behind may be another one by now. */
function textOf(edit: AnyEdit): string {
  return JSON.stringify({ ...edit, after: undefined })
}
