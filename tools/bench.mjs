// npm run bench: named figures as one JSON object on standard output, a readable table on standard error.
import { spawnSync } from 'node:child_process'

import { ensureChromium, ensureNode, ensurePackages } from './install.mjs'
import { Fault, root } from './paths.mjs'

try {
  ensureNode()
  ensurePackages()
  ensureChromium()
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'bench/main.ts'], { cwd: root, stdio: 'inherit' })
  process.exitCode = status ?? 1
} catch (error) {
  console.error(error instanceof Fault ? error.message : error)
  process.exitCode = 1
}
