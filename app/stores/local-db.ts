import type { AudioHash, Kind, Measured } from '@heliaster/core/kit'
import { openDB } from 'idb'
import type { DBSchema, IDBPDatabase } from 'idb'

/** A document as this device has it, with all edits that the server has not seen yet. */
export interface StoredDocument {
  readonly key: string
  readonly kind: Kind
  readonly id: string
  readonly doc: unknown
  /** The server's revision the unsent edits stand on; 0 while the server does not know the document. */
  readonly revision: number
  readonly changedAt: number
  readonly hidden: boolean
}

/** Something the server has yet to hear, in order. */
export interface Outgoing {
  readonly place?: number
  readonly kind: Kind
  readonly docId: string
  readonly type: 'create' | 'edits' | 'hide' | 'restore'
  readonly batchId: string
  readonly edits: unknown[]
}

export interface StoredAudio {
  readonly hash: AudioHash
  readonly name: string
  /** A blob stays on disk until it is read. Devices that kept files before hold some as plain bytes. */
  readonly bytes: Blob | ArrayBuffer
  /** 0 until the server has verified it; numbers, because IndexedDB cannot index booleans. */
  readonly uploaded: 0 | 1
}

/** Edits that no longer fitted when they met a newer version; shown, and kept until the person puts them away. */
export interface RefusedEdit {
  readonly place?: number
  readonly kind: Kind
  readonly docId: string
  readonly reason: string
  readonly edit: unknown
  readonly at: number
}

interface Schema extends DBSchema {
  documents: { key: string; value: StoredDocument; indexes: { kind: string } }
  outbox: { key: number; value: Outgoing }
  audio: { key: string; value: StoredAudio; indexes: { uploaded: number } }
  refused: { key: number; value: RefusedEdit }
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

let opened: Promise<LocalDb> | undefined

/** What this device keeps by itself, server or not. */
export function localDb(): Promise<LocalDb> {
  opened ??= openDB<Schema>('heliaster', 2, {
    upgrade(db, before) {
      if (before === 1) {
        db.deleteObjectStore('pictures') // drawn anew, with more that is measured
        db.createObjectStore('pictures', { keyPath: 'key' })
        return
      }
      db.createObjectStore('documents', { keyPath: 'key' }).createIndex('kind', 'kind')
      db.createObjectStore('outbox', { keyPath: 'place', autoIncrement: true })
      db.createObjectStore('audio', { keyPath: 'hash' }).createIndex('uploaded', 'uploaded')
      db.createObjectStore('refused', { keyPath: 'place', autoIncrement: true })
      db.createObjectStore('pictures', { keyPath: 'key' })
    },
  })
  return opened
}

export const documentKey = (kind: Kind, id: string) => `${kind}:${id}`
