import { DataSource } from 'typeorm'

import { Start1795000000000 } from './migrations/start-1795000000000'
import { audioChunkRows, audioRows, documentRows, editBatchRows, settingRows, snapshotRows } from './rows'

export interface DatabaseAddress {
  readonly socketPath: string
  readonly database: string
  readonly username: string
  readonly password: string
}

/** Opens the database and brings its tables up to date. Parameters are never logged: they hold people's audio. */
export async function openDatabase(address: DatabaseAddress): Promise<DataSource> {
  const database = new DataSource({
    type: 'mariadb',
    ...address,
    charset: 'utf8mb4',
    timezone: 'Z',
    entities: [documentRows, editBatchRows, snapshotRows, audioRows, audioChunkRows, settingRows],
    migrations: [Start1795000000000],
    migrationsRun: true,
    synchronize: false,
    logging: false,
    connectTimeout: 5000,
    poolSize: 8,
  })
  return database.initialize()
}

/** Whether an error means that the database is not there, and not that a request was wrong. */
export function isAway(error: unknown): boolean {
  const code = (error as { code?: unknown } | null)?.code
  return typeof code === 'string' && /^(ECONN|ENOENT|EPIPE|ETIMEDOUT|PROTOCOL_|ER_SERVER_SHUTDOWN|ER_CON_COUNT_ERROR|POOL_)/.test(code)
}
