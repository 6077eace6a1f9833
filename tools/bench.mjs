// npm run bench [-- section ...]: named figures as one JSON object on standard output, a readable table on standard error.
import { spawnSync } from 'node:child_process'

import { ensureChromium, ensureMariadb, ensureNode, ensurePackages } from './install.mjs'
import { Fault, root } from './paths.mjs'

try {
  ensureNode()
  ensurePackages()
  ensureMariadb()
  ensureChromium()
  const { withServer } = await import('./with-server.mjs')
  await withServer((address) => {
    const { status } = spawnSync(process.execPath, ['--expose-gc', '--import', 'tsx', 'bench/main.ts', ...process.argv.slice(2)], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, HELIASTER_URL: address },
    })
    process.exitCode = status ?? 1
  })
} catch (error) {
  console.error(error instanceof Fault ? error.message : error)
  process.exitCode = 1
}
