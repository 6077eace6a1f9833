import { kitKind, performanceKind, sourceKind, startKind } from '@heliaster/core/kit'
import { serveStatic } from '@hono/node-server/serve-static'
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { compress } from 'hono/compress'
import { HTTPException } from 'hono/http-exception'
import { secureHeaders } from 'hono/secure-headers'
import { timeout } from 'hono/timeout'
import type { DataSource } from 'typeorm'

import { apiError } from './api-error'
import { AudioRepository } from './audio/audio-repository'
import { audioRoutes } from './audio/audio-routes'
import { isAway } from './database'
import { changeRoutes } from './documents/change-routes'
import { Changes } from './documents/changes'
import { DocumentRepository } from './documents/document-repository'
import { kitRoutes, performanceRoutes, sourceRoutes, startRoutes } from './documents/document-routes'

export interface AppOptions {
  readonly database: DataSource
  /** Folder of the built web application, relative to the working directory; none in tests of the API alone. */
  readonly webFolder?: string
  /** Names this server answers to, with port; requests that came by another name are refused. */
  readonly hosts: readonly string[]
  log(message: string): void
}

const MAX_JSON_BYTES = 32 * 1024 * 1024
/** Less than a page waits, so that it hears the reason rather than nothing. */
const MOST_MS = 9000

const away = () =>
  new HTTPException(503, {
    res: Response.json(
      apiError('databaseAway', 'The database does not answer. Changes stay on this device and are sent when it is back.'),
      {
        status: 503,
      },
    ),
  })

const headers = secureHeaders({
  crossOriginOpenerPolicy: 'same-origin',
  crossOriginEmbedderPolicy: 'require-corp',
  crossOriginResourcePolicy: 'same-origin',
  referrerPolicy: 'no-referrer',
  permissionsPolicy: { microphone: ['self'], midi: ['self'], camera: [], geolocation: [] },
  contentSecurityPolicy: {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    mediaSrc: ["'self'", 'blob:'],
    workerSrc: ["'self'", 'blob:'],
    connectSrc: ["'self'", 'blob:'],
    objectSrc: ["'none'"],
    baseUri: ["'self'"],
    frameAncestors: ["'none'"],
  },
})

/** Every route of the API; its type is what the page's client is made from. */
export function createApi(database: DataSource, changes: Changes) {
  const audio = new AudioRepository(database)
  return new Hono()
    .route('/changes', changeRoutes(changes))
    .use('*', timeout(MOST_MS, away))
    .get('/health', async (c) => {
      await database.query('SELECT 1')
      return c.json({ ok: true })
    })
    .route('/kits', kitRoutes(new DocumentRepository(database, kitKind, changes), audio))
    .route('/sources', sourceRoutes(new DocumentRepository(database, sourceKind, changes), audio))
    .route('/starts', startRoutes(new DocumentRepository(database, startKind, changes)))
    .route('/performances', performanceRoutes(new DocumentRepository(database, performanceKind, changes), audio))
    .route('/audio', audioRoutes(audio))
}
export type Api = ReturnType<typeof createApi>

/** The whole server: guards, the API and the built application. */
export function createApp({ database, webFolder, hosts, log }: AppOptions) {
  const api = createApi(database, new Changes(database))

  const app = new Hono()
    .use('*', headers)
    .use('*', async (c, next) => {
      const host = c.req.header('host') ?? ''
      if (!hosts.includes(host))
        return c.json(apiError('wrongHost', `This server does not answer to "${host}". Open it as http://${hosts[0]}.`), 421)
      const origin = c.req.header('origin')
      if (c.req.method !== 'GET' && c.req.method !== 'HEAD' && origin && !hosts.some((name) => origin === `http://${name}`))
        return c.json(apiError('wrongOrigin', 'Changes are taken only from Heliaster itself.'), 403)
      return next()
    })
    .use(
      '/api/*',
      bodyLimit({ maxSize: MAX_JSON_BYTES, onError: (c) => c.json(apiError('tooLarge', 'This request is larger than 32 MB.'), 413) }),
    )
    .use('/api/*', async (c, next) => {
      await next()
      if (!c.res.headers.has('cache-control')) c.header('cache-control', 'no-store')
    })
    .use('/api/*', compress({ threshold: 1024 }))
    .route('/api', api)

  app.all('/api/*', (c) => c.json(apiError('notFound', `There is no ${c.req.path} here.`), 404))
  if (webFolder) addWeb(app, webFolder)
  app.onError((error, c) => {
    if (error instanceof HTTPException) return error.res ?? c.json(apiError('notJson', 'The request is not JSON.'), error.status)
    if (isAway(error)) return away().getResponse()
    log(`${c.req.method} ${c.req.path}: ${error instanceof Error ? (error.stack ?? error.message).slice(0, 2000) : String(error)}`)
    return c.json(apiError('failed', 'Something went wrong on the server. Changes stay on this device; reload the page to try again.'), 500)
  })
  return app
}

function addWeb(app: Hono, root: string): void {
  const forever = 'public, max-age=31536000, immutable'
  for (const path of ['/_expo/*', '/assets/*', '/fonts/*', '/engine/*.mjs'])
    app.use(path, async (c, next) => {
      await next()
      if (c.res.status === 200) c.header('cache-control', forever)
    })
  app.use('/sw.js', async (c, next) => {
    await next()
    c.header('cache-control', 'no-cache')
  })
  app.use('*', serveStatic({ root, precompressed: true }))
  for (const path of ['/_expo/*', '/assets/*', '/fonts/*', '/engine/*', '/sw.js'])
    app.all(path, (c) => c.text('There is no such file in this version of Heliaster. Reload the page.', 404))
  app.get('*', async (c, next) => {
    c.header('cache-control', 'no-cache')
    return serveStatic({ root, path: 'index.html', precompressed: true })(c, next)
  })
}
