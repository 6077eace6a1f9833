import assert from 'node:assert/strict'
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { test } from 'node:test'

import { keepRunning } from './keep-running.mjs'
import { startMariadb } from './mariadb.mjs'
import { startServer } from './serve.mjs'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Waits until something has been said. */
function listener() {
  const said = []
  let wake = () => undefined
  return {
    said,
    say: (words) => {
      said.push(words)
      wake()
    },
    async until(pattern) {
      while (!said.some((words) => pattern.test(words))) await new Promise((resolve) => (wake = resolve))
    },
  }
}

test('a killed server and a killed database come back by themselves, and it is said', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-keep-'))
  const { said, say, until } = listener()
  const port = 20000 + (process.pid % 20000)
  const startWeb = (given) => startServer({ ...given, web: false })
  const kept = await keepRunning({ folder, port, say, startDatabase: startMariadb, startWeb })
  const health = async () => (await fetch(`http://localhost:${port}/api/health`)).status
  try {
    assert.equal(await health(), 200)
    kept.running.server.child.kill('SIGKILL')
    await until(/^The server runs again/)
    assert.equal(await health(), 200)
    said.length = 0
    process.kill(kept.running.database.pid, 'SIGKILL')
    await until(/^The database runs again/)
    assert.equal(await health(), 200)
    assert.match(said[0], /^The database stopped by itself; starting again in [\d.]+ s[.]$/)
  } finally {
    await kept.stop()
    rmSync(folder, { recursive: true, force: true })
  }
})

test('a server that hangs is ended when it is asked to stop', async () => {
  const child = spawn(process.execPath, ['-e', 'process.on("SIGTERM", () => undefined); console.log("up"); for (;;);'], {
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  await once(child.stdout, 'data')
  const { stopChild } = await import('./serve.mjs')
  await stopChild(child, 200)
  assert.equal(child.signalCode, 'SIGKILL')
})
