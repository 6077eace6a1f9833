import assert from 'node:assert/strict'
import { spawn } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { after, test } from 'node:test'

import { startMariadb } from './mariadb.mjs'
import { root } from './paths.mjs'
import { portFault } from './serve.mjs'

const folder = mkdtempSync(join(tmpdir(), 'heliaster-start-'))
after(() => rmSync(folder, { recursive: true, force: true }))

/** Runs the start command until it ends by itself, and gives what it said. */
function start(env) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(root, 'tools/start.mjs')], {
      env: { ...process.env, HELIASTER_DATA: join(folder, 'data'), ...env },
    })
    let said = ''
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text))
    child.once('exit', (code) => resolve({ code, said: said.trim() }))
  })
}

const aPort = () =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => resolve({ server, port: server.address().port }))
  })

test('a port that is taken is said, with how to choose another, before anything is started', async () => {
  const { server, port } = await aPort()
  const { code, said } = await start({ HELIASTER_PORT: String(port) })
  server.close()
  assert.equal(code, 1)
  assert.equal(said, `Port ${port} is taken by another program. Stop it, or choose another: HELIASTER_PORT=8200 npm start.`)
  assert.equal(existsSync(join(folder, 'data/mariadb')), false)
  assert.equal(existsSync(join(folder, 'data/start.pid')), false)
})

test('a port that is no port is said', async () => {
  for (const port of ['0', '70000', 'harbour']) {
    const { code, said } = await start({ HELIASTER_PORT: port })
    assert.deepEqual([code, said], [1, `HELIASTER_PORT is "${port}"; it must be a number from 1 to 65535.`])
  }
})

test('a start beside one that runs with the same data is refused and says where that one is', async () => {
  const data = join(folder, 'two')
  mkdirSync(data)
  // Stands for the other start: its command line names the file.
  const other = spawn(process.execPath, ['-e', 'setInterval(() => 0, 1000)', 'start.mjs'])
  writeFileSync(join(data, 'start.pid'), JSON.stringify({ pid: other.pid, port: 8123 }))
  const { code, said } = await start({ HELIASTER_DATA: data })
  other.kill()
  assert.equal(code, 1)
  assert.match(said, /^Heliaster is already running with this data: http:\/\/localhost:8123 \(process \d+\)\.$/)
  assert.ok(existsSync(join(data, 'start.pid')), 'it is the other one’s')
})

test('a lock that is left over, damaged or of another program stops nothing', async () => {
  const { server, port } = await aPort()
  for (const [i, left] of [
    '',
    'no json',
    JSON.stringify({ pid: 999999999, port: 1 }),
    JSON.stringify({ pid: process.pid, port: 1 }),
  ].entries()) {
    const data = join(folder, `stale ${i}`)
    mkdirSync(data)
    writeFileSync(join(data, 'start.pid'), left)
    // It goes on as far as the port, which is taken here.
    assert.match((await start({ HELIASTER_DATA: data, HELIASTER_PORT: String(port) })).said, /^Port \d+ is taken/)
  }
  server.close()
})

test('each way in which a port cannot be had has its own sentence', () => {
  assert.match(portFault(80, 'EACCES'), /Choose one above 1024/)
  assert.match(portFault(80, 'EADDRNOTAVAIL'), /cannot be used \(EADDRNOTAVAIL\)/)
})

test('a database folder that was left half made is made anew; what is in a whole one stays', async () => {
  const at = join(folder, 'half')
  mkdirSync(join(at, 'data/mysql'), { recursive: true })
  writeFileSync(join(at, 'making'), '')
  writeFileSync(join(at, 'data/left.txt'), 'half')
  const first = await startMariadb(at)
  assert.equal(existsSync(join(at, 'data/left.txt')), false)
  assert.equal(existsSync(join(at, 'making')), false)
  await first.stop()
  writeFileSync(join(at, 'data/kept.txt'), 'whole')
  const again = await startMariadb(at)
  assert.equal(again.password, first.password)
  assert.ok(existsSync(join(at, 'data/kept.txt')))
  await again.stop()
})

test('a database that cannot come up says why and where its log is', async () => {
  const at = join(folder, 'broken')
  const made = await startMariadb(at)
  await made.stop()
  writeFileSync(join(at, 'data/ibdata1'), 'this is no tablespace')
  await assert.rejects(startMariadb(at), (error) => {
    assert.match(error.message, /^The database did not come up: .+ Its log is .+error\.log\.$/s)
    assert.ok(readFileSync(join(at, 'error.log'), 'utf8').includes('[ERROR]'))
    return true
  })
})

test('a folder that may not be written says so', { skip: process.getuid?.() === 0 && 'root may write everywhere' }, async () => {
  const at = join(folder, 'closed')
  mkdirSync(at)
  chmodSync(at, 0o500)
  await assert.rejects(startMariadb(join(at, 'db')))
  chmodSync(at, 0o700)
})
