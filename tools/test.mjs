// npm test: installs what is missing, then format, lint, types, unit, server and browser tests. Runs beside "npm start".
import { spawnSync } from 'node:child_process'
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

async function browserTests(words) {
  const { withServer } = await import('./with-server.mjs')
  await withServer((address) => run('Browser tests', node, [bin('@playwright/test/cli.js'), 'test', ...words], { HELIASTER_URL: address }))
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
