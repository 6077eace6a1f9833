import assert from 'node:assert/strict'
import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, relative } from 'node:path'
import { test } from 'node:test'

import { openDatabase } from './database'
import { aServer } from './testing/a-server'

const web = mkdtempSync(join(tmpdir(), 'heliaster-web-'))
mkdirSync(join(web, '_expo'))
writeFileSync(join(web, 'index.html'), '<p>the page</p>')
writeFileSync(join(web, '_expo/here-1a2b.js'), '1')
test.after(() => rmSync(web, { recursive: true }))

const server = aServer(relative(process.cwd(), web))

test('a hashed file that is not there is not answered with the page', async () => {
  assert.equal((await server.call('GET', '/_expo/here-1a2b.js')).status, 200)
  for (const path of ['/_expo/gone-3c4d.js', '/assets/gone.ttf', '/engine/gone.mjs', '/sw.js']) {
    const gone = await server.call('GET', path)
    assert.equal(gone.status, 404)
    assert.doesNotMatch(gone.headers.get('cache-control') ?? '', /immutable/)
  }
  assert.equal((await server.call('GET', '/kit/any/board')).status, 200)
})

test('the database is reached by its socket alone, in a folder that only its owner may enter', async () => {
  const { socketPath, pid } = server.mariadb()
  assert.equal(statSync(dirname(socketPath)).mode & 0o777, 0o700)
  const [{ off }] = (await server.database().query('SELECT @@skip_networking AS off')) as { off: number }[]
  assert.equal(Number(off), 1)
  const listening = readFileSync(`/proc/${pid}/net/tcp`, 'utf8').split('\n').slice(1).filter((line) => / 0A /.test(line)).map((line) => line.trim().split(/\s+/)[9]) // prettier-ignore
  const own = spawnSync('ls', ['-l', `/proc/${pid}/fd`], { encoding: 'utf8' }).stdout
  assert.deepEqual(listening.filter((inode) => own.includes(`socket:[${inode}]`)), []) // prettier-ignore
})

test('a database that does not write every change to the disk at once is refused', async () => {
  const { socketPath, password } = server.mariadb()
  await server.database().query('SET GLOBAL innodb_flush_log_at_trx_commit = 2')
  const opening = openDatabase({ socketPath, database: 'heliaster', username: 'heliaster', password })
  await assert.rejects(opening, /innodb_flush_log_at_trx_commit is 2/)
  await server.database().query('SET GLOBAL innodb_flush_log_at_trx_commit = 1')
})
