import type { AudioHash, Kind, Measured } from '@heliaster/core/kit'
import { wrap } from 'idb'
import type { DBSchema, IDBPDatabase, IDBPTransaction } from 'idb'

/** A document as the server has it. What this device has made of it since waits in the outbox and is made anew on it. */
export interface StoredDocument {
  readonly key: string
  readonly kind: Kind
  readonly id: string
  readonly doc: unknown
  /** The server's revision; 0 while the server does not know the document. */
  readonly revision: number
  readonly changedAt: number
  readonly hidden: boolean
}

/** Something the server has yet to hear, in order. */
export interface Outgoing {
  readonly place?: number
  readonly key: string
  readonly kind: Kind
  readonly docId: string
  readonly type: 'create' | 'edits' | 'hide' | 'restore'
  readonly batchId: string
  readonly edits: readonly unknown[]
  /** The version of the document its edits are for; the first one where it is not said. */
  readonly version?: number
}

export interface StoredAudio {
  readonly hash: AudioHash
  readonly name: string
  /** A blob stays on disk until it is read. Devices that kept files before hold some as plain bytes. */
  readonly bytes: Blob | ArrayBuffer
  /** 0 until the server has verified it; numbers, because IndexedDB cannot index booleans. */
  readonly uploaded: 0 | 1
}

/** Edits that did not fit when they met a newer version; shown, and kept until the person puts them away. */
export interface RefusedEdits {
  readonly place?: number
  readonly kind: Kind
  readonly docId: string
  /** The batch they were part of; nothing for a drag that never became one. */
  readonly batchId?: string
  readonly reason: string
  readonly edits: readonly unknown[]
  /** The version of the document they are for; the first one where it is not said. */
  readonly version?: number
  /** Devices that set edits aside before kept each by itself. */
  readonly edit?: unknown
  readonly at: number
}

interface Schema extends DBSchema {
  documents: { key: string; value: StoredDocument; indexes: { kind: string } }
  outbox: { key: number; value: Outgoing; indexes: { key: string; batchId: string } }
  audio: { key: string; value: StoredAudio; indexes: { uploaded: number } }
  refused: { key: number; value: RefusedEdits }
  pictures: {
    key: string
    value: {
      readonly key: string
      readonly low: Float32Array
      readonly high: Float32Array
      readonly measured: Measured
      readonly wide?: Int16Array
    }
  }
}
export type LocalDb = IDBPDatabase<Schema>
type Upgrade = IDBPTransaction<Schema, ('documents' | 'outbox' | 'audio' | 'refused' | 'pictures')[], 'versionchange'>

const VERSION = 5

export const documentKey = (kind: Kind, id: string) => `${kind}:${id}`

/** Opens what a device keeps by itself. `onBlocked` is told when pages of an older version hold it open, and when they are gone. */
export async function openLocalDb(factory: IDBFactory, onBlocked?: (isBlocked: boolean) => void): Promise<LocalDb> {
  const request = factory.open('heliaster', VERSION)
  request.addEventListener('upgradeneeded', (event) => {
    const db = wrap(request.result) as unknown as LocalDb
    upgrade(db, event.oldVersion, wrap(request.transaction!) as unknown as Upgrade)
  })
  request.addEventListener('blocked', () => onBlocked?.(true))
  const db = (await wrap(request)) as unknown as LocalDb
  onBlocked?.(false)
  db.addEventListener('versionchange', () => db.close()) // a newer page goes on with it
  return db
}

function upgrade(db: LocalDb, before: number, transaction: Upgrade): void {
  if (before === 0) {
    db.createObjectStore('documents', { keyPath: 'key' }).createIndex('kind', 'kind')
    db.createObjectStore('outbox', { keyPath: 'place', autoIncrement: true })
    db.createObjectStore('audio', { keyPath: 'hash' }).createIndex('uploaded', 'uploaded')
    db.createObjectStore('refused', { keyPath: 'place', autoIncrement: true })
  }
  if (before >= 1 && before < 5) db.deleteObjectStore('pictures') // drawn anew: what is measured of a file has changed
  if (before < 5) db.createObjectStore('pictures', { keyPath: 'key' })
  if (before < 3) void nameOutbox(transaction)
}

/** What waits is found by its document and by its batch. */
async function nameOutbox(transaction: Upgrade): Promise<void> {
  const outbox = transaction.objectStore('outbox')
  outbox.createIndex('key', 'key')
  outbox.createIndex('batchId', 'batchId')
  for (let cursor = await outbox.openCursor(); cursor; cursor = await cursor.continue())
    await cursor.update({ ...cursor.value, key: documentKey(cursor.value.kind, cursor.value.docId) })
}

let opened: Promise<LocalDb> | undefined
let blocked: (isBlocked: boolean) => void = () => undefined

/** Is told when pages of an older version keep this one from opening what the device keeps, and when they no longer do. */
export function onLocalDbBlocked(listener: (isBlocked: boolean) => void): void {
  blocked = listener
}

/** What this browser keeps, for the page and its workers. What could not be opened is tried again. */
export function localDb(): Promise<LocalDb> {
  if (!opened) {
    opened = openLocalDb(indexedDB, (isBlocked) => blocked(isBlocked))
    const forget = () => void (opened = undefined)
    opened.then((db) => {
      db.addEventListener('close', forget)
      db.addEventListener('versionchange', forget)
    }, forget)
  }
  return opened
}
