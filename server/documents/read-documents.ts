import type { AnyEdit, DocumentKind } from '@heliaster/core/kit'

import type { DocumentRow } from '../rows'

/** Length of the texts whose documents are held at most: they take some five times as much once read. */
const MOST_CHARACTERS = 3 * 1024 * 1024

type Row = Pick<DocumentRow, 'id' | 'revision' | 'changedAt' | 'json'>
type Read<Doc> = { readonly ok: true; readonly value: Doc } | { readonly ok: false; readonly message: string }

/** Documents as they were read last, by revision, so that a run of edits does not read the same kit anew for each. */
export class ReadDocuments<Doc> {
  private readonly held = new Map<string, { readonly key: string; readonly doc: Doc; readonly length: number }>()
  private length = 0

  constructor(private readonly kind: Pick<DocumentKind<Doc, AnyEdit & never>, 'read'>) {}

  read(row: Row): Read<Doc> {
    const held = this.held.get(row.id)
    if (held?.key === keyOf(row)) return { ok: true, value: held.doc }
    const read = this.kind.read(parsed(row.json))
    if (read.ok) this.remember(row, read.value)
    return read
  }

  remember(row: Row, doc: Doc): void {
    this.forget(row.id)
    this.held.set(row.id, { key: keyOf(row), doc, length: row.json.length })
    this.length += row.json.length
    for (const id of this.held.keys()) {
      if (this.length <= MOST_CHARACTERS) return
      this.forget(id)
    }
  }

  private forget(id: string): void {
    this.length -= this.held.get(id)?.length ?? 0
    this.held.delete(id)
  }
}

function keyOf(row: Row): string {
  return `${row.revision} ${row.changedAt.getTime()}`
}

function parsed(json: string): unknown {
  try {
    return JSON.parse(json)
  } catch {
    return undefined
  }
}
