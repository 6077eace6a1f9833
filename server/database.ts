import { DataSource } from 'typeorm'

import { Kinds1797000000000 } from './migrations/kinds-1797000000000'
import { Start1795000000000 } from './migrations/start-1795000000000'
import { Summaries1796000000000 } from './migrations/summaries-1796000000000'
import { audioChunkRows, audioRows, documentRows, editBatchRows, settingRows, snapshotRows } from './rows'

export interface DatabaseAddress {
  readonly socketPath: string
  readonly database: string
  readonly username: string
  readonly password: string
}

/** Requests that may wait for a connection; more are told that the database does not keep up. */
const MOST_WAITING = 500

/** Opens the database and brings its tables up to date. Parameters are never logged: they hold people's audio. */
export async function openDatabase(address: DatabaseAddress): Promise<DataSource> {
  const database = new DataSource({
    type: 'mariadb',
    ...address,
    charset: 'utf8mb4',
    timezone: 'Z',
    entities: [documentRows, editBatchRows, snapshotRows, audioRows, audioChunkRows, settingRows],
    migrations: [Start1795000000000, Summaries1796000000000, Kinds1797000000000],
    migrationsRun: true,
    synchronize: false,
    logging: false,
    connectTimeout: 5000,
    poolSize: 8,
    extra: { queueLimit: MOST_WAITING },
  })
  await database.initialize()
  await assertDurable(database)
  return database
}

/** What was acknowledged must be on the disk: a database that is set to write it later is refused at the start. */
async function assertDurable(database: DataSource): Promise<void> {
  const [{ flush, twice }] = (await database.query('SELECT @@innodb_flush_log_at_trx_commit AS flush, @@innodb_doublewrite AS twice')) as {
    flush: number
    twice: number | string
  }[]
  if (Number(flush) === 1 && String(twice) !== '0') return
  await database.destroy()
  throw new Error(
    `The database does not write every change to the disk at once (innodb_flush_log_at_trx_commit is ${flush}, innodb_doublewrite is ${twice}; both must be 1). Start it without these settings.`,
  )
}

const TRIES = 4

/** Runs a transaction again where the database gave it up for another one. */
export async function retried<T>(transaction: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await transaction()
    } catch (error) {
      const code = (error as { code?: unknown } | null)?.code
      if (tries >= TRIES || (code !== 'ER_LOCK_DEADLOCK' && code !== 'ER_LOCK_WAIT_TIMEOUT')) throw error
    }
  }
}

/** Whether an error means that the database is not there, and not that a request was wrong. */
export function isAway(error: unknown): boolean {
  if (error instanceof Error && /^(Queue limit reached|Pool is closed)/.test(error.message)) return true
  const code = (error as { code?: unknown } | null)?.code
  return typeof code === 'string' && /^(ECONN|ENOENT|EPIPE|ETIMEDOUT|PROTOCOL_|ER_SERVER_SHUTDOWN|ER_CON_COUNT_ERROR|POOL_)/.test(code)
}
