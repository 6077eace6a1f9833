import { makeChange } from '@heliaster/core/kit'
import type { AnyEdit, DocumentKind } from '@heliaster/core/kit'

/** A gesture under way: the document follows it, and it is written down once, when it ends. */
export interface Gesture<Edit> {
  /** Replaces what the gesture has done so far. */
  set(edits: Edit[]): void
  end(): void
}

/**
 * Of edits that screens made of a document they had drawn, those that are meant. A screen sends some things whole as it
 * drew them; what in them is as it was when the drag began, or as it is now, nobody meant to change.
 */
export function intendedOnly<Doc extends object, Edit extends AnyEdit>(
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
