// npm run dev: database and server as ever, the application from Metro with live reload. Sound in this page runs without
// shared memory, since the development server sends no isolation headers.
import { spawn } from 'node:child_process'
import { createServer, request } from 'node:http'
import { connect } from 'node:net'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'

import { ensureMariadb, ensureNode, ensurePackages } from './install.mjs'
import { dataFolder, Fault, root } from './paths.mjs'

const PORT = 8199
const METRO_PORT = 8198
const API_PORT = 8197

/** One address for both: the API goes to the server, everything else to Metro. */
function startProxy() {
  const portFor = (url) => (url.startsWith('/api/') ? API_PORT : METRO_PORT)
  const proxy = createServer((incoming, answer) => {
    const port = portFor(incoming.url)
    const headers = {
      ...incoming.headers,
      host: `localhost:${port}`,
      ...(incoming.headers.origin ? { origin: `http://localhost:${port}` } : {}),
    }
    const outgoing = request({ host: 'localhost', port, path: incoming.url, method: incoming.method, headers }, (back) => {
      answer.writeHead(back.statusCode, back.headers)
      back.pipe(answer)
    })
    outgoing.on('error', () => answer.writeHead(502).end('Metro is still starting; reload in a moment.'))
    incoming.pipe(outgoing)
  })
  proxy.on('upgrade', (incoming, socket) => {
    const onward = connect(METRO_PORT, 'localhost', () => {
      const lines = Object.entries(incoming.headers).map(([name, value]) => `${name}: ${value}`)
      onward.write(`${incoming.method} ${incoming.url} HTTP/1.1\r\n${lines.join('\r\n')}\r\n\r\n`)
      onward.pipe(socket).pipe(onward)
    })
    onward.on('error', () => socket.destroy())
    socket.on('error', () => onward.destroy())
  })
  return new Promise((resolve, reject) => proxy.once('error', reject).listen(PORT, '127.0.0.1', () => resolve(proxy)))
}

/** Waits until Metro serves its page; the first bundle is made when a browser asks for it. */
async function metroAnswers() {
  for (const deadline = Date.now() + 120_000; ; await wait(300)) {
    const answer = await fetch(`http://localhost:${METRO_PORT}/status`).catch(() => undefined)
    if (answer?.ok) return
    if (Date.now() > deadline) throw new Fault(`Metro did not start on port ${METRO_PORT}. Its last lines are above.`)
  }
}

try {
  ensureNode()
  ensurePackages()
  ensureMariadb()
  const { buildEngine } = await import('./build-engine.mjs')
  const { buildFonts } = await import('./build-fonts.mjs')
  const { startMariadb } = await import('./mariadb.mjs')
  const { startServer } = await import('./serve.mjs')
  await buildEngine()
  buildFonts()
  const database = await startMariadb(join(dataFolder, 'mariadb-dev'))
  const server = await startServer({ port: API_PORT, database, web: false })
  const { CI: _unset, ...env } = process.env
  const metro = spawn(process.execPath, [join(root, 'node_modules/expo/bin/cli'), 'start', '--web', '--port', String(METRO_PORT)], {
    cwd: join(root, 'app'),
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', BROWSER: 'none' },
  })
  await metroAnswers()
  await startProxy()
  console.log(`Heliaster with live reload is at http://localhost:${PORT}`)
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    metro.kill()
    await server.stop()
    await database.stop()
    process.exit(0)
  }
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void stop())
} catch (error) {
  console.error(error instanceof Fault ? error.message : error)
  process.exit(1)
}
