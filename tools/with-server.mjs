// The real server, database and demo data in a folder of their own, for as long as some work runs.
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

function freePort() {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => resolve(port))
    })
  })
}

/** Gives the work the address of a Heliaster that nobody else uses. */
export async function withServer(work) {
  const { buildWeb } = await import('./build-web.mjs')
  const { startMariadb } = await import('./mariadb.mjs')
  const { startServer } = await import('./serve.mjs')
  await buildWeb()
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-'))
  const database = await startMariadb(folder)
  let server
  try {
    const port = await freePort()
    server = await startServer({ port, database })
    return await work(`http://localhost:${port}`)
  } finally {
    await server?.stop()
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
