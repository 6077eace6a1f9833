// npm run trial [-- section ...]: kills, full devices and servers that are away, and what was lost. Bounded: about half an hour.
import { spawnSync } from 'node:child_process'

import { ensureChromium, ensureMariadb, ensureNode, ensurePackages } from './install.mjs'
import { Fault, root } from './paths.mjs'

try {
  ensureNode()
  ensurePackages()
  ensureMariadb()
  ensureChromium()
  const { buildWeb } = await import('./build-web.mjs')
  await buildWeb()
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'trial/main.ts', ...process.argv.slice(2)], {
    cwd: root,
    stdio: 'inherit',
  })
  process.exitCode = status ?? 1
} catch (error) {
  console.error(error instanceof Fault ? error.message : error)
  process.exitCode = 1
}
