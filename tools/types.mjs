// npm run types: every room by its own settings.
import { spawnSync } from 'node:child_process'

import { root } from './paths.mjs'

let failed = false
for (const room of ['core', 'demo', 'cli', 'server', 'app', 'e2e']) {
  const { status } = spawnSync(process.execPath, ['node_modules/typescript/bin/tsc', '-p', room], { cwd: root, stdio: 'inherit' })
  failed ||= status !== 0
}
process.exit(failed ? 1 : 0)
