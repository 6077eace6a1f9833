import type { Kind } from '@heliaster/core/kit'

import { documentKey } from './local-db'
import type { LocalDb, Outgoing, RefusedEdits, StoredDocument } from './local-db'
import type { Timers } from './timers'

/** Something to be written on this device. What one job holds is written together or not at all. */
interface Job {
  /** Documents of this device's own making, or the server's newer ones; an older revision never replaces a newer one. */
  readonly rows?: readonly StoredDocument[]
  readonly add?: readonly Outgoing[]
  /** Batches that the server has answered. */
  readonly settled?: readonly string[]
  readonly refused?: readonly RefusedEdits[]
  /** Documents that were taken off or put back on the list elsewhere. */
  readonly hidden?: readonly { readonly key: string; readonly hidden: boolean }[]
}

interface Queued {
  readonly job: Job
  done(): void
}

/** A document on this device: the server's last word, and what waits for the server in its order. */
export interface OnShelf {
  readonly row: StoredDocument | undefined
  readonly batches: readonly Outgoing[]
}

export interface ShelfState {
  /** Batches that are in this page's memory alone. */
  readonly unkept: number
  /** Why the last try to write failed. */
  readonly failure?: string
}

const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 10_000

/**
 * What this device keeps of documents. Writing never fails for good: what could not be written stays in memory, is
 * counted, is seen by all who read, and is tried again until it is written. Several pages may write at once; the server's
 * revision decides which document is newer, and the id of a batch says whether it is here already.
 */
export class Shelf {
  private queue: Queued[] = []
  private writing = false
  private timer: unknown
  private pauseMs = FIRST_PAUSE_MS
  private failure: string | undefined
  /** Rises with every change of the queue, so that a reading knows whether something has moved under it. */
  private turns = 0

  constructor(
    private readonly open: () => Promise<LocalDb>,
    private readonly timers: Timers,
    private readonly onState: (state: ShelfState) => void,
    private readonly onWritten: (keys: readonly string[]) => void,
  ) {}

  /** Resolves when it is on the disk. */
  write(job: Job): Promise<void> {
    return new Promise((resolve) => {
      this.queue.push({ job, done: resolve })
      this.turns++
      this.tell()
      // A later change never puts an earlier try off, nor waits for it: it is tried at once, with all that waits.
      void this.flush()
    })
  }

  /** Tries again now what could not be written. */
  tryAgain(): Promise<void> {
    return this.flush()
  }

  state(): ShelfState {
    const settled = this.settled() // what the server has is not lost, written here or not
    const added = this.queue.flatMap(({ job }) => job.add ?? [])
    const addedIds = new Set(added.map((batch) => batch.batchId))
    // What the server refused is nowhere else, unless its batch still waits on the disk.
    const refused = this.queue.flatMap(({ job }) => job.refused ?? []).filter(({ batchId }) => !batchId || addedIds.has(batchId))
    const unkept = added.filter((batch) => !settled.has(batch.batchId)).length + refused.length
    return { unkept, ...(this.failure === undefined ? {} : { failure: this.failure }) }
  }

  /** Whether something of a document is in this page's memory alone. */
  isUnkept(kind: Kind, id: string): boolean {
    const key = documentKey(kind, id)
    return this.queue.some(({ job }) => job.add?.some((batch) => batch.key === key))
  }

  private tell(): void {
    this.onState(this.state())
  }

  private async flush(): Promise<void> {
    if (this.writing || this.queue.length === 0) return
    this.writing = true
    this.timers.clear(this.timer)
    const taken = [...this.queue]
    try {
      await this.commit(taken.map(({ job }) => job))
      this.queue = this.queue.slice(taken.length)
      this.turns++
      this.failure = undefined
      this.pauseMs = FIRST_PAUSE_MS
    } catch (error) {
      this.failure = error instanceof Error ? `${error.name}: ${error.message}` : String(error)
      this.timer = this.timers.set(() => void this.flush(), this.pauseMs)
      this.pauseMs = Math.min(LONGEST_PAUSE_MS, this.pauseMs * 2)
      this.writing = false
      this.tell()
      return
    }
    this.writing = false
    this.tell()
    for (const { done } of taken) done()
    this.onWritten(keysOf(taken.map(({ job }) => job)))
    void this.flush()
  }

  /** One transaction that has reached the disk when it is done. */
  private async commit(jobs: readonly Job[]): Promise<void> {
    const db = await this.open()
    const transaction = db.transaction(['documents', 'outbox', 'refused'], 'readwrite', { durability: 'strict' })
    const documents = transaction.objectStore('documents')
    const outbox = transaction.objectStore('outbox')
    const work = async () => {
      for (const job of jobs) {
        for (const batchId of job.settled ?? []) {
          const place = await outbox.index('batchId').getKey(batchId)
          if (place !== undefined) await outbox.delete(place)
        }
        for (const row of job.rows ?? []) await putNewer(documents, row)
        for (const { key, hidden } of job.hidden ?? []) {
          const row = await documents.get(key)
          if (row && row.hidden !== hidden) await documents.put({ ...row, hidden })
        }
        for (const outgoing of job.add ?? []) await outbox.add(outgoing)
        for (const refused of job.refused ?? []) await transaction.objectStore('refused').add(refused)
      }
    }
    try {
      await work()
    } catch (error) {
      transaction.done.catch(() => undefined)
      abort(transaction)
      throw error
    }
    await transaction.done
  }

  /** A document with all that this page knows of it, written or not. */
  async read(key: string): Promise<OnShelf> {
    return (await this.readMany([key]))[0]
  }

  /** Documents in the order of their keys, as they are at one moment. */
  async readMany(keys: readonly string[]): Promise<OnShelf[]> {
    if (keys.length === 0) return []
    return this.reading(async (db) => {
      const transaction = db?.transaction(['documents', 'outbox'])
      const documents = transaction?.objectStore('documents')
      const [waiting, ...rows] = await Promise.all([
        transaction ? batchesOf(transaction.objectStore('outbox'), keys) : new Map<string, Outgoing[]>(),
        ...keys.map((key) => documents?.get(key)),
      ])
      return keys.map((key, i) => this.withQueue(key, rows[i], waiting.get(key) ?? []))
    })
  }

  async readAll(kind: Kind): Promise<Map<string, OnShelf>> {
    return this.reading(async (db) => {
      if (!db) return new Map(this.queuedKeys(kind).map((key) => [key, this.withQueue(key, undefined, [])]))
      const transaction = db.transaction(['documents', 'outbox'])
      const [rows, batches] = await Promise.all([
        transaction.objectStore('documents').index('kind').getAll(kind),
        transaction.objectStore('outbox').getAll(),
      ])
      const byKey = byDocument(batches)
      const keys = new Set([...rows.map((row) => row.key), ...this.queuedKeys(kind)])
      const rowOf = new Map(rows.map((row) => [row.key, row]))
      return new Map([...keys].map((key) => [key, this.withQueue(key, rowOf.get(key), byKey.get(key) ?? [])]))
    })
  }

  /** What the server is to hear next: what is written first, then what this page alone holds. */
  async next(): Promise<Outgoing | undefined> {
    const written = await this.reading(async (db) => {
      const settled = this.settled()
      const outbox = db?.transaction('outbox').store
      for (let cursor = await outbox?.openCursor(); cursor; cursor = await cursor.continue())
        if (!settled.has(cursor.value.batchId)) return cursor.value
      return undefined
    })
    return written ?? this.nextUnkept()
  }

  /** What this page alone holds, because it cannot be written, and what nothing that is written comes before. */
  async nextUnkept(): Promise<Outgoing | undefined> {
    if (this.failure === undefined) return undefined
    const settled = this.settled()
    for (const batch of this.queue.flatMap(({ job }) => job.add ?? []))
      if (!settled.has(batch.batchId) && (await this.read(batch.key)).batches[0]?.batchId === batch.batchId) return batch
    return undefined
  }

  private settled(): Set<string> {
    return new Set(this.queue.flatMap(({ job }) => job.settled ?? []))
  }

  /** How many batches wait for the server, and how many changes are kept aside. */
  async counts(): Promise<{ waiting: number; refused: number; files: number }> {
    return this.reading(async (db) => {
      const [written, refused, files] = db
        ? await Promise.all([db.count('outbox'), db.count('refused'), db.countFromIndex('audio', 'uploaded', 0)])
        : [0, 0, 0]
      const settled = this.settled()
      const queued = this.queue.flatMap(({ job }) => job.add ?? []).filter((batch) => !settled.has(batch.batchId))
      const queuedRefused = this.queue.flatMap(({ job }) => job.refused ?? [])
      return { waiting: Math.max(0, written - settled.size) + queued.length, refused: refused + queuedRefused.length, files }
    })
  }

  /**
   * Reads until nothing has moved meanwhile. A reading that fails is tried again until it succeeds: memory alone would
   * show documents as they never were. Where the device keeps nothing at all, memory is all there is.
   */
  private async reading<T>(read: (db: LocalDb | undefined) => Promise<T>): Promise<T> {
    let pauseMs = FIRST_PAUSE_MS
    for (let tries = 0; ; tries++) {
      const turns = this.turns
      const db = await this.open().catch(() => undefined)
      try {
        const result = await read(db)
        if (turns === this.turns || tries >= 20) return result
      } catch {
        await new Promise<void>((resolve) => this.timers.set(resolve, pauseMs))
        pauseMs = Math.min(LONGEST_PAUSE_MS, pauseMs * 2)
      }
    }
  }

  private withQueue(key: string, stored: StoredDocument | undefined, written: readonly Outgoing[]): OnShelf {
    let row = stored
    let batches = [...written]
    for (const { job } of this.queue) {
      if (job.settled) batches = batches.filter((batch) => !job.settled!.includes(batch.batchId))
      for (const newer of job.rows ?? [])
        if (newer.key === key && (!row || newer.revision > row.revision)) row = { ...newer, hidden: row?.hidden ?? newer.hidden }
      for (const one of job.hidden ?? []) if (one.key === key && row) row = { ...row, hidden: one.hidden }
      const known = new Set(batches.map((batch) => batch.batchId))
      batches.push(...(job.add ?? []).filter((batch) => batch.key === key && !known.has(batch.batchId)))
    }
    return { row, batches }
  }

  private queuedKeys(kind: Kind): string[] {
    return keysOf(this.queue.map(({ job }) => job)).filter((key) => key.startsWith(documentKey(kind, '')))
  }
}

interface Outbox {
  getAll(): Promise<Outgoing[]>
  index(name: 'key'): { getAll(key: string): Promise<Outgoing[]> }
}

/** What waits for the server of some documents: of one it is looked up, of many all is looked through. */
async function batchesOf(outbox: Outbox, keys: readonly string[]): Promise<Map<string, Outgoing[]>> {
  return byDocument(await (keys.length === 1 ? outbox.index('key').getAll(keys[0]) : outbox.getAll()))
}

function byDocument(batches: readonly Outgoing[]): Map<string, Outgoing[]> {
  const found = new Map<string, Outgoing[]>()
  for (const batch of batches) found.set(batch.key, [...(found.get(batch.key) ?? []), batch])
  return found
}

interface Rows {
  get(key: string): Promise<StoredDocument | undefined>
  put(row: StoredDocument): Promise<unknown>
}

/** Compare and set: whoever wrote last, the newest revision stays. Whether it is on the list is said apart. */
async function putNewer(documents: Rows, row: StoredDocument): Promise<void> {
  const held = await documents.get(row.key)
  if (!held || held.revision < row.revision) await documents.put({ ...row, hidden: held?.hidden ?? row.hidden })
}

function abort(transaction: { abort(): void }): void {
  try {
    transaction.abort()
  } catch {
    // It has ended by itself already.
  }
}

function keysOf(jobs: readonly Job[]): string[] {
  const keys = jobs.flatMap((job) => [
    ...(job.rows ?? []).map((row) => row.key),
    ...(job.add ?? []).map((batch) => batch.key),
    ...(job.hidden ?? []).map((one) => one.key),
  ])
  return [...new Set(keys)]
}
