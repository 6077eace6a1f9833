// npm run types: every room by its own settings, by TypeScript's native compiler (the older one stays for the lint, which needs its API).
import { spawnSync } from 'node:child_process'

import { root } from './paths.mjs'

let failed = false
for (const room of ['core', 'demo', 'cli', 'server', 'app', 'e2e']) {
  const { status } = spawnSync(process.execPath, ['node_modules/tsc-native/bin/tsc', '-p', room], { cwd: root, stdio: 'inherit' })
  failed ||= status !== 0
}
process.exit(failed ? 1 : 0)
