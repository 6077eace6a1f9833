// npm run bench [-- section ...]: named figures as one JSON object on standard output, a readable table on standard error.
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { ensureChromium, ensureMariadb, ensureNode, ensurePackages } from './install.mjs'
import { Fault, root } from './paths.mjs'

function freePort() {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => resolve(port))
    })
  })
}

try {
  ensureNode()
  ensurePackages()
  ensureMariadb()
  ensureChromium()
  const { buildWeb } = await import('./build-web.mjs')
  const { startMariadb } = await import('./mariadb.mjs')
  const { startServer } = await import('./serve.mjs')
  await buildWeb()
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-bench-'))
  const database = await startMariadb(folder)
  let server
  try {
    const port = await freePort()
    server = await startServer({ port, database })
    const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'bench/main.ts', ...process.argv.slice(2)], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, HELIASTER_URL: `http://localhost:${port}` },
    })
    process.exitCode = status ?? 1
  } finally {
    await server?.stop()
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
} catch (error) {
  console.error(error instanceof Fault ? error.message : error)
  process.exitCode = 1
}
