// npm test: installs what is missing, then format, lint, types, unit, server and browser tests. Runs beside "npm start".
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { ensureChromium, ensureMariadb, ensureNode, ensurePackages } from './install.mjs'
import { Fault, root } from './paths.mjs'

const node = process.execPath
const bin = (path) => join(root, 'node_modules', path)

function run(title, command, words, env = {}) {
  const started = Date.now()
  console.log(`\n== ${title}`)
  const { status } = spawnSync(command, words, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
  if (status !== 0) throw new Fault(`${title} failed.`)
  console.log(`== ${title}: done in ${((Date.now() - started) / 1000).toFixed(0)} s`)
}

function freePort() {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => resolve(port))
    })
  })
}

/** The real server, database and demo data in a folder of their own, for as long as the browser tests run. */
async function browserTests(words) {
  const { buildWeb } = await import('./build-web.mjs')
  const { startMariadb } = await import('./mariadb.mjs')
  const { startServer } = await import('./serve.mjs')
  await buildWeb()
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-test-'))
  const database = await startMariadb(folder)
  let server
  try {
    const port = await freePort()
    server = await startServer({ port, database })
    run('Browser tests', node, [bin('@playwright/test/cli.js'), 'test', ...words], { HELIASTER_URL: `http://localhost:${port}` })
  } finally {
    await server?.stop()
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

try {
  const only = process.argv[2]
  ensureNode()
  ensurePackages()
  ensureMariadb()
  ensureChromium()
  if (only === 'browser') await browserTests(process.argv.slice(3))
  else {
    run('Format', node, [bin('prettier/bin/prettier.cjs'), '--check', '.', '--log-level', 'warn'])
    run('Lint', node, [bin('eslint/bin/eslint.js'), '.'])
    run('Types', node, ['tools/types.mjs'])
    run('Unit tests', node, ['--max-old-space-size=4096', bin('jest/bin/jest.js'), '--ci'])
    run('Server tests', node, ['--import', 'tsx', '--test', 'server/server.test.ts'])
    await browserTests([])
  }
  console.log('\nAll tests passed.')
} catch (error) {
  console.error(error instanceof Fault ? `\n${error.message}` : error)
  process.exitCode = 1
}
