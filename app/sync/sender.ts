import { applyBatch, editsOfNow } from '@heliaster/core/kit'
import type { AnyEdit, Kind } from '@heliaster/core/kit'

import type { Documents } from '../documents/documents'
import { OtherAge, ServerAway, ServerRefused } from './api'
import type { ServerApi } from './api'
import { documentKey } from './local-db'
import type { LocalDb, Outgoing, RefusedEdits, StoredDocument } from './local-db'
import type { Shelf } from './shelf'
import type { Timers } from './timers'

type AnyDocuments = Documents<{ id: string; name: string }, AnyEdit>

export interface SenderNeeds {
  readonly api: ServerApi
  readonly shelf: Shelf
  readonly timers: Timers
  db(): Promise<LocalDb>
  documentsOf(kind: Kind): AnyDocuments
  /** Whether this page sends what is written on the device; what is in its memory alone each page sends itself. */
  isLeading(): boolean
  isHeld(): boolean
  isVisible(): boolean
  onState(state: 'saved' | 'away', why?: string): void
  onTaken(kind: Kind, newId: string): void
}

const NEWER_PAGE = 'This page is newer than the server. Its changes wait until the server is brought up to date.'

const PAUSE_MS = 400
const LONGEST_PAUSE_MS = 4000
const LONGEST_HIDDEN_PAUSE_MS = 20_000

/**
 * Sends what waits, in order, one at a time. Right or wrong never hangs on which page sends: the server applies a batch
 * once, by its id, and on the revision it was made for, or says which one there is.
 */
export class Sender {
  private running = false
  private isWanted = false
  private timer: unknown
  private dueAt = Infinity
  private pauseMs = PAUSE_MS
  private stopped = false

  constructor(private readonly need: SenderNeeds) {}

  /** Something waits. An earlier try that is due sooner stays as it is. */
  wake(ms = this.pauseMs): void {
    if (this.stopped) return
    if (this.running) {
      this.isWanted = true
      return
    }
    const { timers } = this.need
    const dueAt = timers.now() + ms
    if (dueAt >= this.dueAt) return
    timers.clear(this.timer)
    this.dueAt = dueAt
    this.timer = timers.set(() => void this.run(), ms)
  }

  stop(): void {
    this.stopped = true
    this.need.timers.clear(this.timer)
  }

  private async run(): Promise<void> {
    this.dueAt = Infinity
    if (this.running || this.stopped || this.need.isHeld()) return
    this.running = true
    this.isWanted = false
    try {
      await this.sendAll()
      this.pauseMs = PAUSE_MS
      this.need.onState('saved') // where another page leads and knows better, it says so at its next try
    } catch (error) {
      const why = whyNotSent(error)
      this.need.onState('away', why)
      this.isWanted = true
      this.pauseMs = Math.min(this.need.isVisible() ? LONGEST_PAUSE_MS : LONGEST_HIDDEN_PAUSE_MS, this.pauseMs * 2)
      if (!(error instanceof ServerAway || error instanceof DOMException)) console.error(error)
    } finally {
      this.running = false
    }
    if (this.isWanted) this.wake()
  }

  private async sendAll(): Promise<void> {
    const { shelf } = this.need
    for (;;) {
      if (this.stopped || this.need.isHeld()) return
      const outgoing = await (this.need.isLeading() ? shelf.next() : shelf.nextUnkept())
      if (!outgoing) break
      await this.sendOne(outgoing)
    }
    if (this.need.isLeading()) await this.sendAudio()
  }

  /** Files, each by itself: one that the server does not take does not hold up the others. */
  private async sendAudio(): Promise<void> {
    const db = await this.need.db()
    let failure: unknown
    for (const hash of await db.getAllKeysFromIndex('audio', 'uploaded', 0)) {
      if (this.stopped || this.need.isHeld()) return
      const audio = await db.get('audio', hash)
      if (!audio) continue
      try {
        await this.need.api.uploadAudio(hash, audio.name, audio.bytes instanceof Blob ? audio.bytes : new Blob([audio.bytes]))
        await db.put('audio', { ...audio, uploaded: 1 })
      } catch (error) {
        if (error instanceof ServerAway) throw error
        failure = new ServerAway(`“${audio.name}” could not be sent: ${error instanceof Error ? error.message : String(error)}`)
      }
    }
    if (failure) throw failure
  }

  private async sendOne(outgoing: Outgoing): Promise<void> {
    const { api } = this.need
    try {
      if (outgoing.type === 'create') await this.sendCreate(outgoing)
      else if (outgoing.type === 'edits') await this.sendEdits(outgoing)
      else {
        await (outgoing.type === 'hide' ? api.hide(outgoing.kind, outgoing.docId) : api.restore(outgoing.kind, outgoing.docId))
        await this.settle(outgoing, { hidden: [{ key: outgoing.key, hidden: outgoing.type === 'hide' }] })
      }
    } catch (error) {
      if (!(error instanceof ServerRefused)) throw error
      await this.refused(outgoing, error)
    }
  }

  private async sendCreate(outgoing: Outgoing): Promise<void> {
    const { kind, docId, key } = outgoing
    const answer = await this.need.api.create(kind, outgoing)
    const { row } = await this.need.shelf.read(key)
    // Where the server has gone on since, an earlier answer was lost: its document comes along.
    const doc = answer.doc ?? (answer.revision === 1 ? outgoing.edits[0] : (await this.need.api.find(kind, docId)).doc)
    await this.settle(outgoing, { rows: [rowOf(outgoing, answer.revision, doc, row?.changedAt ?? this.need.timers.now())] })
  }

  private async sendEdits(outgoing: Outgoing): Promise<void> {
    const { kind, docId, key } = outgoing
    const { api, shelf } = this.need
    for (;;) {
      const { row } = await shelf.read(key)
      try {
        if ((outgoing.version ?? 1) < this.need.documentsOf(kind).kind.version) return await this.sendOld(outgoing)
        const answer = await api.edit(kind, outgoing, row?.revision ?? 0)
        const refused = this.refusal(outgoing, answer.refused)
        await this.settle(outgoing, { rows: await this.rowAfter(outgoing, row, answer.revision), refused })
        return
      } catch (error) {
        if (!(error instanceof ServerRefused) || error.code !== 'stale') throw error
        await this.adopt(kind, docId, error.details as { revision: number; doc: unknown })
      }
    }
  }

  /**
   * Sends what a page of an older version has left, as changes of the document as the server has it now. What this device
   * holds of it may be in a form of then, and is asked for anew.
   */
  private async sendOld(outgoing: Outgoing): Promise<void> {
    const { kind, docId } = outgoing
    const { kind: of } = this.need.documentsOf(kind)
    const found = await this.need.api.find(kind, docId)
    const read = of.read(found.doc)
    if (!read.ok) throw new OtherAge(`${read.message} Its changes stay on this device.`)
    const now = editsOfNow(of, read.value, outgoing.edits as AnyEdit[], outgoing.version)
    const batch = { ...outgoing, edits: now.edits, version: of.version }
    const answer = now.edits.length > 0 ? await this.need.api.edit(kind, batch, found.revision) : { ...found, refused: [] }
    const refused = [...this.refusal(outgoing, now.refused), ...this.refusal(batch, answer.refused)]
    await this.settle(outgoing, { rows: await this.rowAfter(batch, undefined, answer.revision), refused })
  }

  /** The document after a batch that the server has taken: made here, where it stands on what is here; else asked for. */
  private async rowAfter(outgoing: Outgoing, row: StoredDocument | undefined, revision: number): Promise<StoredDocument[]> {
    const { kind, docId } = outgoing
    if (row && revision <= row.revision) return []
    const documents = this.need.documentsOf(kind)
    const base = row?.revision === revision - 1 ? documents.bases.of(row) : undefined
    if (!base || 'reason' in base) {
      const found = await this.need.api.find(kind, docId)
      return [rowOf(outgoing, found.revision, found.doc, this.need.timers.now())]
    }
    const { doc } = applyBatch(documents.kind, base.doc, outgoing.edits as AnyEdit[])
    documents.bases.remember(docId, revision, doc)
    return [rowOf(outgoing, revision, doc, this.need.timers.now())]
  }

  /** Takes over what the server says a document is. What waits is made again on it by all who look. */
  async adopt(kind: Kind, id: string, given: { revision: number; doc: unknown; changedAt?: number }): Promise<void> {
    const { kind: of, bases } = this.need.documentsOf(kind)
    const read = of.read(given.doc)
    if (!read.ok && /newer Heliaster/.test(read.message))
      throw new OtherAge('This page is older than the server. Changes stay on this device; reload the page.')
    if (read.ok) bases.remember(id, given.revision, read.value as never) // it is not read again
    await this.adoptAll(kind, [{ id, ...given }])
  }

  async adoptAll(kind: Kind, given: readonly { id: string; revision: number; doc?: unknown; changedAt?: number }[]): Promise<void> {
    if (given.length === 0) return
    const rows = given.map(({ id, revision, doc, changedAt = this.need.timers.now() }) => {
      return { key: documentKey(kind, id), kind, id, doc, revision, changedAt, hidden: false }
    })
    void this.need.shelf.write({ rows })
    await this.need.documentsOf(kind).sync(given.map(({ id }) => id))
  }

  private async settle(outgoing: Outgoing, job: Parameters<Shelf['write']>[0]): Promise<void> {
    // Where the device cannot write, sending goes on all the same: what was settled is known in memory until it can.
    void this.need.shelf.write({ ...job, settled: [outgoing.batchId] })
    await this.need.documentsOf(outgoing.kind).sync([outgoing.docId])
  }

  private async refused(outgoing: Outgoing, error: ServerRefused): Promise<void> {
    const { kind, docId, key } = outgoing
    if (/newer Heliaster/.test(error.message)) throw new OtherAge(NEWER_PAGE)
    if (error.code === 'taken') {
      const newId = await this.need.documentsOf(kind).asItsOwn(docId)
      if (newId) this.need.onTaken(kind, newId)
      return
    }
    const isGone = error.code === 'notFound'
    // Hiding what is already gone is done; anything else is kept where the person sees it.
    const refused = outgoing.type === 'hide' ? [] : this.refusal(outgoing, outgoing.edits.map((edit) => ({ edit, reason: error.message }))) // prettier-ignore
    await this.settle(outgoing, { refused, ...(isGone ? { hidden: [{ key, hidden: true }] } : {}) })
  }

  private refusal(
    { kind, docId, batchId, version }: Outgoing,
    refused: readonly { readonly edit?: unknown; readonly reason: string }[],
  ): RefusedEdits[] {
    if (refused.length === 0) return []
    const edits = refused.map(({ edit }) => edit)
    return [{ kind, docId, batchId, reason: refused[0].reason, edits, version, at: this.need.timers.now() }]
  }
}

/** What is said beside "cannot be sent"; nothing where the server cannot be reached. */
function whyNotSent(error: unknown): string | undefined {
  if (error instanceof ServerAway && !(error instanceof OtherAge))
    return /cannot be reached/.test(error.message) ? undefined : error.message
  if (error instanceof OtherAge) return error.message
  return `What this device keeps could not be read or sent (${error instanceof Error ? error.message : String(error)}). It is tried again.`
}

function rowOf({ key, kind, docId }: Outgoing, revision: number, doc: unknown, changedAt: number): StoredDocument {
  return { key, kind, id: docId, doc, revision, changedAt, hidden: false }
}
