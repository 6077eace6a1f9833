import { EntitySchema } from 'typeorm'

/** A kit or source as one validated JSON text with its revision. */
export interface DocumentRow {
  kind: string
  id: string
  revision: number
  json: string
  name: string
  /** What a list shows of it, as JSON. */
  summary: string
  changedAt: Date
  /** When anything about it changed last, its place on the list too. */
  touchedAt: Date
  deletedAt: Date | null
}

export interface EditBatchRow {
  kind: string
  docId: string
  batchId: string
  revision: number
  edits: string
  refused: string
}

export interface SnapshotRow {
  kind: string
  docId: string
  revision: number
  json: string
}

export interface AudioRow {
  hash: string
  bytes: number
  name: string
  state: 'uploading' | 'ready'
}

export interface AudioChunkRow {
  hash: string
  place: number
  data: Buffer
}

export interface SettingRow {
  name: string
  value: string
}

const key = (length: number) => ({ type: 'varchar' as const, length, primary: true })

export const documentRows = new EntitySchema<DocumentRow>({
  name: 'documents',
  columns: {
    kind: key(16),
    id: key(64),
    revision: { type: 'int' },
    json: { type: 'longtext' },
    name: { type: 'varchar', length: 255 },
    summary: { type: 'text' },
    changedAt: { type: 'datetime', precision: 3 },
    touchedAt: { type: 'datetime', precision: 3 },
    deletedAt: { type: 'datetime', precision: 3, nullable: true },
  },
})

export const editBatchRows = new EntitySchema<EditBatchRow>({
  name: 'edit_batches',
  columns: {
    kind: key(16),
    docId: key(64),
    batchId: key(64),
    revision: { type: 'int' },
    edits: { type: 'longtext' },
    refused: { type: 'longtext' },
  },
})

export const snapshotRows = new EntitySchema<SnapshotRow>({
  name: 'snapshots',
  columns: { kind: key(16), docId: key(64), revision: { type: 'int', primary: true }, json: { type: 'longtext' } },
})

export const audioRows = new EntitySchema<AudioRow>({
  name: 'audio',
  columns: {
    hash: key(64),
    bytes: { type: 'int', unsigned: true },
    name: { type: 'varchar', length: 255 },
    state: { type: 'varchar', length: 16 },
  },
})

export const audioChunkRows = new EntitySchema<AudioChunkRow>({
  name: 'audio_chunks',
  columns: { hash: key(64), place: { type: 'int', primary: true }, data: { type: 'mediumblob' } },
})

export const settingRows = new EntitySchema<SettingRow>({
  name: 'settings',
  columns: { name: key(64), value: { type: 'varchar', length: 255 } },
})
