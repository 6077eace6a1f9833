import { applyBatch, facesOf, sameData } from '@heliaster/core/kit'
import type { AnyEdit, BatchAnswer, DocumentKind, DocumentPage, Kit } from '@heliaster/core/kit'
import { IsNull, LessThan, Not } from 'typeorm'
import type { DataSource, EntityManager } from 'typeorm'

import { retried } from '../database'
import { documentRows, editBatchRows, snapshotRows } from '../rows'
import type { DocumentRow } from '../rows'
import type { Changes } from './changes'
import { readPage } from './document-pages'
import type { PageWanted } from './document-pages'
import { ReadDocuments } from './read-documents'

export interface Batch<Edit> {
  readonly baseRevision: number
  readonly batchId: string
  readonly edits: Edit[]
}

export type SaveOutcome<Doc> =
  | { readonly type: 'saved'; readonly answer: BatchAnswer }
  | { readonly type: 'stale'; readonly revision: number; readonly doc: Doc }
  | { readonly type: 'notFound' }
  | { readonly type: 'unreadable'; readonly message: string }

export type CreateOutcome<Doc> =
  | { readonly type: 'new' }
  /** It was here already, from this same sender or alike; `doc` is what has become of it since. */
  | { readonly type: 'known'; readonly revision: number; readonly doc?: Doc }
  /** Something else is kept under this id. */
  | { readonly type: 'taken' }

export type Found<Doc> =
  | { readonly type: 'found'; readonly revision: number; readonly doc: Doc }
  | { readonly type: 'notFound' }
  | { readonly type: 'unreadable'; readonly message: string }

const SNAPSHOT_EVERY = 50
const HIDDEN_DAYS = 30

interface Named {
  readonly id: string
  readonly name: string
}

/** Keeps documents of one kind. Takes and gives plain documents; rows do not leave this file. */
export class DocumentRepository<Doc extends Named, Edit extends AnyEdit> {
  private readonly parsed: ReadDocuments<Doc>

  constructor(
    private readonly database: DataSource,
    readonly kind: DocumentKind<Doc, Edit>,
    private readonly changes?: Changes,
  ) {
    this.parsed = new ReadDocuments(kind)
  }

  /** Part of the list, from columns alone; documents that come whole come as they are written, unread. */
  page(wanted: PageWanted): Promise<DocumentPage> {
    return readPage(this.database, this.kind.kind, wanted)
  }

  async find(id: string): Promise<Found<Doc>> {
    const row = await this.rows().findOneBy({ kind: this.kind.kind, id, deletedAt: IsNull() })
    if (!row) return { type: 'notFound' }
    const read = this.parsed.read(row)
    return read.ok ? { type: 'found', revision: row.revision, doc: read.value } : { type: 'unreadable', message: read.message }
  }

  /** The text of a document as it is kept, read or not. */
  async text(id: string): Promise<string | undefined> {
    return (await this.rows().findOneBy({ kind: this.kind.kind, id }))?.json
  }

  /** Puts a new document in at revision 1; sending the same one again is no error. */
  async create(doc: Doc, batchId?: string): Promise<CreateOutcome<Doc>> {
    const { kind } = this.kind
    const now = new Date()
    const row = { kind, id: doc.id, revision: 1, ...this.columns(doc), changedAt: now, touchedAt: now, deletedAt: null }
    const isNew = await retried(() =>
      this.database.transaction('READ COMMITTED', async (manager) => {
        const result = await manager.createQueryBuilder().insert().into(documentRows).values(row).orIgnore().execute()
        if ((result.raw as { affectedRows: number }).affectedRows !== 1) return false
        if (batchId) await manager.insert(editBatchRows, { kind, docId: doc.id, batchId, revision: 1, edits: '[]', refused: '[]' })
        return true
      }),
    )
    if (isNew) {
      this.tell(doc.id, 1, false)
      return { type: 'new' }
    }
    return this.alreadyThere(doc, batchId)
  }

  private async alreadyThere(doc: Doc, batchId: string | undefined): Promise<CreateOutcome<Doc>> {
    const { kind } = this.kind
    const isOurs = batchId !== undefined && (await this.database.getRepository(editBatchRows).findOneBy({ kind, docId: doc.id, batchId }))
    const row = await this.rows().findOneBy({ kind, id: doc.id })
    if (!row) return { type: 'taken' } // gone between two questions: it is asked again
    const read = this.parsed.read(row)
    if (read.ok && sameData(read.value, doc)) return { type: 'known', revision: row.revision }
    if (!isOurs || !read.ok) return { type: 'taken' }
    return { type: 'known', revision: row.revision, doc: read.value }
  }

  /** Applies a batch with the core's own edits, once, on the revision it was made for. */
  async saveBatch(id: string, batch: Batch<Edit>): Promise<SaveOutcome<Doc>> {
    const outcome = await retried(() => this.database.transaction('READ COMMITTED', (manager) => this.saveWith(manager, id, batch)))
    if (outcome.type === 'saved') this.tell(id, outcome.answer.revision, false)
    return outcome
  }

  private async saveWith(manager: EntityManager, id: string, batch: Batch<Edit>): Promise<SaveOutcome<Doc>> {
    const { kind } = this.kind
    const known = await manager.findOneBy(editBatchRows, { kind, docId: id, batchId: batch.batchId })
    if (known) return { type: 'saved', answer: { revision: known.revision, refused: JSON.parse(known.refused) as BatchAnswer['refused'] } }
    const row = await manager.findOneBy(documentRows, { kind, id, deletedAt: IsNull() })
    if (!row) return { type: 'notFound' }
    const read = this.parsed.read(row)
    if (!read.ok) return { type: 'unreadable', message: read.message }
    if (row.revision !== batch.baseRevision) return { type: 'stale', revision: row.revision, doc: read.value }
    const { doc, refused } = applyBatch(this.kind, read.value, batch.edits)
    const revision = row.revision + 1
    const changedAt = new Date()
    if (!(await this.compareAndSet(manager, row, doc, revision, changedAt))) return this.staleNow(manager, id)
    const edits = JSON.stringify(batch.edits)
    await manager.insert(editBatchRows, { kind, docId: id, batchId: batch.batchId, revision, edits, refused: JSON.stringify(refused) })
    if (revision % SNAPSHOT_EVERY === 0) await manager.insert(snapshotRows, { kind, docId: id, revision, json: JSON.stringify(doc) })
    this.parsed.remember({ ...row, revision, changedAt }, doc)
    return { type: 'saved', answer: { revision, refused } }
  }

  /** Hides a document; it can be brought back for 30 days. */
  async hide(id: string): Promise<boolean> {
    const now = new Date()
    const result = await this.rows().update({ kind: this.kind.kind, id, deletedAt: IsNull() }, { deletedAt: now, touchedAt: now })
    return this.toldIfDone(result.affected === 1, id, true)
  }

  async restore(id: string): Promise<boolean> {
    const changes = { deletedAt: null, touchedAt: new Date() }
    const result = await this.rows().update({ kind: this.kind.kind, id, deletedAt: Not(IsNull()) }, changes)
    return this.toldIfDone(result.affected === 1, id, false)
  }

  /** Whether a document is on the list, taken off it, or not known at all. */
  async standing(id: string): Promise<'listed' | 'hidden' | 'unknown'> {
    const row = await this.rows().findOne({ select: { id: true, deletedAt: true }, where: { kind: this.kind.kind, id } })
    return !row ? 'unknown' : row.deletedAt ? 'hidden' : 'listed'
  }

  private async toldIfDone(done: boolean, id: string, deleted: boolean): Promise<boolean> {
    if (done) this.tell(id, 0, deleted)
    return done
  }

  private tell(id: string, revision: number, deleted: boolean): void {
    this.changes?.tell({ kind: this.kind.kind, id, revision, deleted })
  }

  /** Forgets what has been hidden for longer than its 30 days, with its history. */
  async forgetHidden(now = new Date()): Promise<void> {
    const before = new Date(now.getTime() - HIDDEN_DAYS * 86_400_000)
    const { kind } = this.kind
    const old = await this.rows().find({ select: { kind: true, id: true }, where: { kind, deletedAt: LessThan(before) } })
    for (const { id } of old) {
      await this.database.getRepository(editBatchRows).delete({ kind, docId: id })
      await this.database.getRepository(snapshotRows).delete({ kind, docId: id })
      await this.rows().delete({ kind, id })
    }
  }

  private rows() {
    return this.database.getRepository(documentRows)
  }

  private columns(doc: Doc): Pick<DocumentRow, 'json' | 'name' | 'summary'> {
    const summary = this.kind.kind === 'kit' ? facesOf(doc as unknown as Kit) : {}
    return { json: JSON.stringify(doc), name: doc.name, summary: JSON.stringify(summary) }
  }

  /** Only the writer that still finds the revision it read wins. */
  private async compareAndSet(manager: EntityManager, row: DocumentRow, doc: Doc, revision: number, changedAt: Date): Promise<boolean> {
    const result = await manager
      .createQueryBuilder()
      .update(documentRows)
      .set({ ...this.columns(doc), revision, changedAt, touchedAt: changedAt })
      .where('kind = :kind AND id = :id AND revision = :revision AND deletedAt IS NULL', {
        kind: row.kind,
        id: row.id,
        revision: row.revision,
      })
      .execute()
    return result.affected === 1
  }

  private async staleNow(manager: EntityManager, id: string): Promise<SaveOutcome<Doc>> {
    const row = await manager.findOneBy(documentRows, { kind: this.kind.kind, id, deletedAt: IsNull() })
    if (!row) return { type: 'notFound' }
    const read = this.parsed.read(row)
    return read.ok ? { type: 'stale', revision: row.revision, doc: read.value } : { type: 'unreadable', message: read.message }
  }
}
