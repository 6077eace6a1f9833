import { createHash } from 'node:crypto'

import { CHUNK_BYTES } from '@heliaster/core/kit'
import { In } from 'typeorm'
import type { DataSource } from 'typeorm'

import { audioChunkRows, audioRows } from '../rows'

export interface AudioState {
  readonly state: 'uploading' | 'ready'
  readonly bytes: number
  /** Chunks that have arrived; a sender goes on with the others. */
  readonly have: number[]
}

export type FinishOutcome =
  | { readonly type: 'ready' }
  | { readonly type: 'notFound' }
  | { readonly type: 'incomplete'; readonly missing: number[] }
  | { readonly type: 'differs' }

/** Keeps audio files by the hash of their bytes, in rows of 1 MiB. */
export class AudioRepository {
  constructor(private readonly database: DataSource) {}

  async state(hash: string): Promise<AudioState | undefined> {
    const row = await this.database.getRepository(audioRows).findOneBy({ hash })
    if (!row) return undefined
    const places = await this.database
      .getRepository(audioChunkRows)
      .find({ select: { place: true }, where: { hash }, order: { place: 'ASC' } })
    return { state: row.state, bytes: Number(row.bytes), have: places.map((chunk) => chunk.place) }
  }

  /** Says that a file is coming. A file that is there already stays as it is. */
  async announce(hash: string, bytes: number, name: string): Promise<AudioState> {
    await this.database.createQueryBuilder().insert().into(audioRows).values({ hash, bytes, name, state: 'uploading' }).orIgnore().execute()
    const state = (await this.state(hash))!
    if (state.state === 'ready' || state.bytes === bytes) return state
    await this.forget(hash)
    return this.announce(hash, bytes, name)
  }

  async putChunk(hash: string, place: number, data: Buffer): Promise<void> {
    await this.database
      .createQueryBuilder()
      .insert()
      .into(audioChunkRows)
      .values({ hash, place, data })
      .orUpdate(['data'], ['hash', 'place'])
      .execute()
  }

  /** Verifies length and hash. Bytes that are not what their name says are thrown away, so that they can be sent again. */
  async finish(hash: string): Promise<FinishOutcome> {
    const state = await this.state(hash)
    if (!state) return { type: 'notFound' }
    if (state.state === 'ready') return { type: 'ready' }
    const count = Math.ceil(state.bytes / CHUNK_BYTES)
    const have = new Set(state.have)
    const missing = Array.from({ length: count }, (_, i) => i).filter((i) => !have.has(i))
    if (missing.length > 0) return { type: 'incomplete', missing }
    const hasher = createHash('sha256')
    let length = 0
    for (let place = 0; place < count; place++) {
      const data = await this.chunk(hash, place)
      hasher.update(data)
      length += data.length
    }
    if (length !== state.bytes || hasher.digest('hex') !== hash) {
      await this.forget(hash)
      return { type: 'differs' }
    }
    await this.database.getRepository(audioRows).update({ hash }, { state: 'ready' })
    return { type: 'ready' }
  }

  /** Of the given files, those whose bytes are not all here. */
  async awaited(hashes: readonly string[]): Promise<string[]> {
    if (hashes.length === 0) return []
    const ready = await this.database
      .getRepository(audioRows)
      .find({ select: { hash: true }, where: { hash: In([...hashes]), state: 'ready' } })
    const known = new Set(ready.map((row) => row.hash))
    return hashes.filter((hash) => !known.has(hash))
  }

  /** Bytes [from, to) of a file, chunk by chunk. */
  async *read(hash: string, from: number, to: number): AsyncGenerator<Uint8Array> {
    for (let place = Math.floor(from / CHUNK_BYTES); place * CHUNK_BYTES < to; place++) {
      const data = await this.chunk(hash, place)
      const start = place * CHUNK_BYTES
      yield data.subarray(Math.max(0, from - start), Math.min(data.length, to - start))
    }
  }

  /** The lengths of those of the given files that are all here, bytes. */
  async lengths(hashes: readonly string[]): Promise<Map<string, number>> {
    const rows = await this.database.getRepository(audioRows).findBy({ hash: In([...hashes]), state: 'ready' })
    return new Map(rows.map(({ hash, bytes }) => [hash, Number(bytes)]))
  }

  private async chunk(hash: string, place: number): Promise<Buffer> {
    const row = await this.database.getRepository(audioChunkRows).findOneByOrFail({ hash, place })
    return row.data
  }

  private async forget(hash: string): Promise<void> {
    await this.database.getRepository(audioChunkRows).delete({ hash })
    await this.database.getRepository(audioRows).delete({ hash })
  }
}
