import { kitKind, performanceKind, sourceKind, startKind } from '@heliaster/core/kit'
import { serve } from '@hono/node-server'
import { pino } from 'pino'

import { createApp } from './app'
import { openDatabase } from './database'
import { seedDemo } from './demo-seed'
import { DocumentRepository } from './documents/document-repository'

const log = pino({ level: process.env.HELIASTER_LOG ?? 'warn' }, pino.destination(2))

function setting(name: string): string {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set; start Heliaster with "npm start".`)
  return value
}

const port = Number(setting('HELIASTER_PORT'))
const database = await openDatabase({
  socketPath: setting('HELIASTER_DB_SOCKET'),
  database: process.env.HELIASTER_DB_NAME ?? 'heliaster',
  username: 'heliaster',
  password: setting('HELIASTER_DB_PASSWORD'),
})
await seedDemo(database)
for (const kind of [kitKind, sourceKind, startKind, performanceKind])
  await new DocumentRepository(database, kind as typeof kitKind).forgetHidden()

const hosts = ['localhost', '127.0.0.1'].map((name) => `${name}:${port}`)
const app = createApp({ database, webFolder: process.env.HELIASTER_WEB, hosts, log: (message) => log.error(message) })
const server = serve({ fetch: app.fetch, port, hostname: '127.0.0.1' }, () => process.send?.({ type: 'ready', port }))
server.on('error', (error: NodeJS.ErrnoException) => {
  process.send?.({ type: 'failed', code: error.code })
  process.exit(1)
})

let stopping = false
function stop(): void {
  if (stopping) return
  stopping = true
  server.close(() => void database.destroy().then(() => process.exit(0)))
  setTimeout(() => process.exit(0), 3000).unref()
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop) // whoever started this server is gone
