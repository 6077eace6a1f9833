import assert from 'node:assert/strict'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { after, before } from 'node:test'

import { createIds, createKit, KIT_VERSION } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import type { DataSource } from 'typeorm'

import { createApp } from '../app'
import { openDatabase } from '../database'

type Tools = { startMariadb(folder: string): Promise<{ socketPath: string; password: string; pid: number; stop(): Promise<void> }> }

export const makeId = createIds(Math.random)
export const rename = (name: string): KitEdit => ({ type: 'setKit', fields: { name } })
export const batch = (baseRevision: number, edits: KitEdit[], batchId: string = makeId('batch')) => ({
  baseRevision,
  batchId,
  version: KIT_VERSION,
  edits,
})

/** The server's routes against a MariaDB of their own, for the tests of one file. */
export function aServer(webFolder?: string) {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-db-'))
  const logged: string[] = []
  let mariadb: Awaited<ReturnType<Tools['startMariadb']>>
  let database: DataSource
  let app: ReturnType<typeof createApp>

  before(async () => {
    const tools = (await import('../../tools/mariadb.mjs' as string)) as Tools
    mariadb = await tools.startMariadb(folder)
    const { socketPath, password } = mariadb
    database = await openDatabase({ socketPath, database: 'heliaster', username: 'heliaster', password })
    app = createApp({ database, webFolder, hosts: ['localhost:1'], log: (message) => logged.push(message) })
  })
  after(async () => {
    if (database.isInitialized) await database.destroy()
    await mariadb.stop()
    rmSync(folder, { recursive: true, force: true })
  })

  async function call<T = unknown>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
    const isBytes = body instanceof Uint8Array
    const response = await app.request(`http://localhost:1${path}`, {
      method,
      headers: { host: 'localhost:1', 'content-type': isBytes ? 'application/octet-stream' : 'application/json', ...headers },
      body:
        body === undefined
          ? undefined
          : isBytes
            ? (body as Uint8Array<ArrayBuffer>)
            : typeof body === 'string'
              ? body
              : JSON.stringify(body),
    })
    const text = new Uint8Array(await response.arrayBuffer())
    const json = () => JSON.parse(new TextDecoder().decode(text)) as T
    return { status: response.status, headers: response.headers, bytes: text, json }
  }

  return {
    folder,
    logged,
    call,
    database: () => database,
    mariadb: () => mariadb,
    app: () => app,
    async aStoredKit(name = 'Stored'): Promise<Kit> {
      const kit = createKit(makeId, name)
      assert.equal((await call('PUT', `/api/kits/${kit.id}`, kit)).status, 201)
      return kit
    },
  }
}
