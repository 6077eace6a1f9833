import { applyBatch } from '@heliaster/core/kit'
import type { AnyEdit, BatchAnswer, DocumentKind, DocumentSummary } from '@heliaster/core/kit'
import { IsNull, LessThan, Not } from 'typeorm'
import type { DataSource, EntityManager } from 'typeorm'

import { documentRows, editBatchRows, snapshotRows } from '../rows'
import type { DocumentRow } from '../rows'

export interface Batch<Edit> {
  readonly baseRevision: number
  readonly batchId: string
  readonly edits: Edit[]
}

export type SaveOutcome<Doc> =
  | { readonly type: 'saved'; readonly answer: BatchAnswer }
  | { readonly type: 'stale'; readonly revision: number; readonly doc: Doc }
  | { readonly type: 'notFound' }

const SNAPSHOT_EVERY = 50
const HIDDEN_DAYS = 30

interface Named {
  readonly id: string
  readonly name: string
}

/** Keeps documents of one kind. Takes and gives plain documents; rows do not leave this file. */
export class DocumentRepository<Doc extends Named, Edit extends AnyEdit> {
  constructor(
    private readonly database: DataSource,
    readonly kind: DocumentKind<Doc, Edit>,
  ) {}

  async list(): Promise<{ summary: DocumentSummary; doc: Doc }[]> {
    const rows = await this.rows().find({ where: { kind: this.kind.kind, deletedAt: IsNull() }, order: { changedAt: 'DESC', id: 'ASC' } })
    return rows.map((row) => ({ summary: summaryOf(row), doc: this.parse(row) }))
  }

  async find(id: string): Promise<{ revision: number; doc: Doc } | undefined> {
    const row = await this.rows().findOneBy({ kind: this.kind.kind, id, deletedAt: IsNull() })
    return row ? { revision: row.revision, doc: this.parse(row) } : undefined
  }

  /** Puts a new document in at revision 1; sending the same one again is no error. */
  async create(doc: Doc): Promise<{ revision: number; isNew: boolean }> {
    const json = JSON.stringify(doc)
    const { kind } = this.kind
    const result = await this.database
      .createQueryBuilder()
      .insert()
      .into(documentRows)
      .values({ kind, id: doc.id, revision: 1, json, name: doc.name, changedAt: new Date(), deletedAt: null })
      .orIgnore()
      .execute()
    const isNew = (result.raw as { affectedRows: number }).affectedRows === 1
    const row = isNew ? undefined : await this.rows().findOneBy({ kind, id: doc.id })
    return { revision: row?.revision ?? 1, isNew }
  }

  /** Applies a batch with the core's own edits, once, on the revision it was made for. */
  async saveBatch(id: string, batch: Batch<Edit>): Promise<SaveOutcome<Doc>> {
    return this.database.transaction('READ COMMITTED', async (manager): Promise<SaveOutcome<Doc>> => {
      const { kind } = this.kind
      const known = await manager.findOneBy(editBatchRows, { kind, docId: id, batchId: batch.batchId })
      if (known)
        return { type: 'saved', answer: { revision: known.revision, refused: JSON.parse(known.refused) as BatchAnswer['refused'] } }
      const row = await manager.findOneBy(documentRows, { kind, id, deletedAt: IsNull() })
      if (!row) return { type: 'notFound' }
      const before = this.parse(row)
      if (row.revision !== batch.baseRevision) return { type: 'stale', revision: row.revision, doc: before }
      const { doc, refused } = applyBatch(this.kind, before, batch.edits)
      const revision = row.revision + 1
      const taken = await this.compareAndSet(manager, row, doc, revision)
      if (!taken) return this.staleNow(manager, id)
      await manager.insert(editBatchRows, {
        kind,
        docId: id,
        batchId: batch.batchId,
        revision,
        edits: JSON.stringify(batch.edits),
        refused: JSON.stringify(refused),
      })
      if (revision % SNAPSHOT_EVERY === 0) await manager.insert(snapshotRows, { kind, docId: id, revision, json: JSON.stringify(doc) })
      return { type: 'saved', answer: { revision, refused } }
    })
  }

  /** Hides a document; it can be brought back for 30 days. */
  async hide(id: string): Promise<boolean> {
    const result = await this.rows().update({ kind: this.kind.kind, id, deletedAt: IsNull() }, { deletedAt: new Date() })
    return result.affected === 1
  }

  async restore(id: string): Promise<boolean> {
    const result = await this.rows().update({ kind: this.kind.kind, id, deletedAt: Not(IsNull()) }, { deletedAt: null })
    return result.affected === 1
  }

  /** Forgets what has been hidden for longer than its 30 days, with its history. */
  async forgetHidden(now = new Date()): Promise<void> {
    const before = new Date(now.getTime() - HIDDEN_DAYS * 86_400_000)
    const { kind } = this.kind
    for (const { id } of await this.rows().findBy({ kind, deletedAt: LessThan(before) })) {
      await this.database.getRepository(editBatchRows).delete({ kind, docId: id })
      await this.database.getRepository(snapshotRows).delete({ kind, docId: id })
      await this.rows().delete({ kind, id })
    }
  }

  private rows() {
    return this.database.getRepository(documentRows)
  }

  /** Only the writer that still finds the revision it read wins. */
  private async compareAndSet(manager: EntityManager, row: DocumentRow, doc: Doc, revision: number): Promise<boolean> {
    const result = await manager
      .createQueryBuilder()
      .update(documentRows)
      .set({ json: JSON.stringify(doc), name: doc.name, revision, changedAt: new Date() })
      .where('kind = :kind AND id = :id AND revision = :revision', { kind: row.kind, id: row.id, revision: row.revision })
      .execute()
    return result.affected === 1
  }

  private async staleNow(manager: EntityManager, id: string): Promise<SaveOutcome<Doc>> {
    const row = await manager.findOneBy(documentRows, { kind: this.kind.kind, id })
    return row ? { type: 'stale', revision: row.revision, doc: this.parse(row) } : { type: 'notFound' }
  }

  private parse(row: DocumentRow): Doc {
    const read = this.kind.read(JSON.parse(row.json))
    if (!read.ok) throw new Error(`${row.kind} ${row.id} in the database cannot be read: ${read.message}`)
    return read.value
  }
}

function summaryOf(row: DocumentRow): DocumentSummary {
  return { id: row.id, name: row.name, revision: row.revision, changedAt: row.changedAt.toISOString() }
}
