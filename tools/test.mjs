// npm test: installs what is missing, then format, lint, types, unit, server and browser tests. Runs beside "npm start".
import { spawn, spawnSync } from 'node:child_process'
import { closeSync, mkdtempSync, openSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { ensureMariadb, ensureNode, ensurePackages, ensureWindowless } from './install.mjs'
import { Fault, root } from './paths.mjs'
import { sayShare, tooFewTests } from './tests-share.mjs'

const node = process.execPath
const serverTests = ['server/server.test.ts', 'server/keeping.test.ts', 'server/documents/documents.test.ts', 'server/audio/audio-routes.test.ts', 'tools/keep-running.test.mjs', 'tools/tests-share.test.mjs', 'tools/build-icons.test.mjs', 'tools/start.test.mjs', 'tools/mutants.test.mjs'] // prettier-ignore
const bin = (path) => join(root, 'node_modules', path)

function run(title, command, words, env = {}) {
  const started = Date.now()
  console.log(`\n== ${title}`)
  const { status } = spawnSync(command, words, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
  if (status !== 0) throw new Fault(`${title} failed.`)
  console.log(`== ${title}: done in ${((Date.now() - started) / 1000).toFixed(0)} s`)
}

/** Begins something on the other core, and gives the way to wait for it, which then shows what it said. */
function runBeside(title, command, words) {
  const started = Date.now()
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-test-'))
  const said = join(folder, 'said')
  const file = openSync(said, 'w')
  const child = spawn(command, words, { cwd: root, stdio: ['ignore', file, file] })
  process.once('exit', () => child.kill())
  const ended = new Promise((resolve) => child.once('close', resolve))
  return async () => {
    const status = await ended
    closeSync(file)
    console.log(`\n== ${title}\n${readFileSync(said, 'utf8')}`)
    rmSync(folder, { recursive: true })
    if (status !== 0) throw new Fault(`${title} failed.`)
    console.log(`== ${title}: done in ${((Date.now() - started) / 1000).toFixed(0)} s, beside the others`)
  }
}

async function browserTests(words) {
  const { withServer } = await import('./with-server.mjs')
  await withServer((address) => run('Browser tests', node, [bin('@playwright/test/cli.js'), 'test', ...words], { HELIASTER_URL: address }))
}

try {
  const only = process.argv[2]
  ensureNode()
  ensurePackages()
  ensureMariadb()
  ensureWindowless()
  if (only === 'browser') await browserTests(process.argv.slice(3))
  else {
    const unitTests = runBeside('Unit tests', node, ['--max-old-space-size=4096', bin('jest/bin/jest.js'), '--ci', '--maxWorkers=2'])
    run('Format', node, [bin('prettier/bin/prettier.cjs'), '--check', '.', '--log-level', 'warn'])
    run('Lint', node, [bin('eslint/bin/eslint.js'), '.'])
    run('Types', node, ['tools/types.mjs'])
    run('Server tests', node, ['--import', 'tsx', '--test', ...serverTests])
    const { buildWeb } = await import('./build-web.mjs')
    await buildWeb()
    await unitTests()
    const tooFew = tooFewTests()
    if (tooFew) throw new Fault(tooFew)
    await browserTests([])
  }
  console.log(`\nAll tests passed. ${sayShare()}`)
} catch (error) {
  console.error(error instanceof Fault ? `\n${error.message}` : error)
  process.exitCode = 1
}
