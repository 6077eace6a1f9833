// A MariaDB of our own: its data in a folder of ours, reached by a socket in a folder that only its owner may enter. It
// does not listen on the network, so nobody else of this machine reaches it.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { userInfo, tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomBytes } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'

import { Fault } from './paths.mjs'

/** A socket path may have 107 bytes at most; below a deep folder it is made in the temporary one. */
function socketFolder(folder) {
  const run = join(folder, 'run')
  if (Buffer.byteLength(run) < 90) {
    mkdirSync(run, { recursive: true })
    chmodSync(run, 0o700) // one that an older start has made as well
    return run
  }
  const link = join(folder, 'run-link')
  if (existsSync(link)) return readFileSync(link, 'utf8')
  const short = mkdtempSync(join(tmpdir(), 'heliaster-run-'))
  writeFileSync(link, short)
  return short
}

/** Starts the database below `folder`, making it first when it is not there. One that still runs is taken over. */
export async function startMariadb(folder) {
  const data = join(folder, 'data')
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const run = socketFolder(folder)
  const socket = join(run, 'db.sock')
  const pidFile = join(run, 'db.pid')
  const user = userInfo().username
  if (!existsSync(join(data, 'mysql')) || existsSync(join(folder, 'making'))) makeData(folder, data, user)
  const password = passwordOf(folder)
  // One that was started otherwise, open to the network, does not stay as it is.
  if (answers(socket) && listens(socket)) await stop(socket, pidFile)
  if (!answers(socket)) await launch({ folder, data, run, socket, pidFile, user })
  const sql = `CREATE DATABASE IF NOT EXISTS heliaster CHARACTER SET utf8mb4;
    CREATE USER IF NOT EXISTS 'heliaster'@'localhost' IDENTIFIED BY '${password}';
    ALTER USER 'heliaster'@'localhost' IDENTIFIED BY '${password}';
    GRANT ALL ON *.* TO 'heliaster'@'localhost';`
  execFileSync('mariadb', ['--no-defaults', '-S', socket, '-u', 'root', '-e', sql], { stdio: ['ignore', 'ignore', 'pipe'] })
  return { socketPath: socket, password, pid: pidOf(pidFile), stop: () => stop(socket, pidFile) }
}

function makeData(folder, data, user) {
  // A folder that was left half made is made anew; nothing of anyone's can be in it.
  rmSync(data, { recursive: true, force: true })
  writeFileSync(join(folder, 'making'), '')
  mkdirSync(data, { recursive: true, mode: 0o700 })
  const words = [
    '--no-defaults',
    `--user=${user}`,
    `--datadir=${data}`,
    '--auth-root-authentication-method=normal',
    '--skip-test-db',
    '--skip-name-resolve',
  ]
  const made = spawnSync('mariadb-install-db', words, { encoding: 'utf8' })
  if (made.status !== 0)
    throw new Fault(
      `The database could not be made in ${data}: ${lastLine(made.stderr || made.stdout)}. Check that the disk has room and the folder can be written.`,
    )
  rmSync(join(folder, 'making'))
}

function passwordOf(folder) {
  const path = join(folder, 'password')
  if (!existsSync(path)) writeFileSync(path, randomBytes(18).toString('hex'), { mode: 0o600 })
  return readFileSync(path, 'utf8')
}

function answers(socket) {
  return (
    existsSync(socket) &&
    spawnSync('mariadb-admin', ['--no-defaults', '-S', socket, '-u', 'root', '--connect-timeout=2', 'ping'], { stdio: 'ignore' }).status ===
      0
  )
}

async function launch({ folder, data, run, socket, pidFile, user }) {
  const log = join(folder, 'error.log')
  const words = [
    '--no-defaults',
    `--user=${user}`,
    `--datadir=${data}`,
    `--socket=${socket}`,
    `--pid-file=${pidFile}`,
    `--tmpdir=${run}`,
    '--skip-networking',
    '--skip-name-resolve',
    '--innodb-flush-log-at-trx-commit=1', // what is acknowledged is on the disk
    '--innodb-doublewrite=1',
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    '--max-allowed-packet=64M',
    '--innodb-buffer-pool-size=256M',
    `--log-error=${log}`,
  ]
  // In a group of its own, so that Ctrl-C in the terminal reaches us alone and the order of stopping is ours.
  const child = spawn('/usr/sbin/mariadbd', words, { detached: true, stdio: 'ignore' })
  let exited = false
  child.on('exit', () => (exited = true))
  child.unref()
  const deadline = Date.now() + 60_000
  while (!answers(socket)) {
    if (exited || Date.now() > deadline) throw new Fault(`The database did not come up: ${lastError(log)} Its log is ${log}.`)
    await wait(60)
  }
}

function lastError(log) {
  if (!existsSync(log)) return 'it wrote no log.'
  const lines = readFileSync(log, 'utf8').trim().split('\n')
  const errors = lines.filter((line) => line.includes('[ERROR]') && !line.includes('Aborting'))
  const line = (errors.pop() ?? lines.pop() ?? '').replace(/^.*\[ERROR\]\s*/, '').trim()
  return line.endsWith('.') ? line : `${line}.`
}

function lastLine(text) {
  return text.trim().split('\n').pop() ?? ''
}

function pidOf(pidFile) {
  return existsSync(pidFile) ? Number(readFileSync(pidFile, 'utf8')) : undefined
}

function listens(socket) {
  const words = ['--no-defaults', '-S', socket, '-u', 'root', '-N', '-e', 'SELECT @@skip_networking']
  return spawnSync('mariadb', words, { encoding: 'utf8', timeout: 5000 }).stdout?.trim() === '0'
}

/** Asks it to stop, then tells it to; what hangs is ended. Its log of changes brings back what was acknowledged. */
async function stop(socket, pidFile) {
  const pid = pidOf(pidFile)
  spawnSync('mariadb-admin', ['--no-defaults', '-S', socket, '-u', 'root', 'shutdown'], { stdio: 'ignore', timeout: 5000 })
  if (!pid || (await isGone(pid, 5000))) return
  process.kill(pid, 'SIGTERM')
  if (await isGone(pid, 5000)) return
  process.kill(pid, 'SIGKILL')
  await isGone(pid, 5000)
}

async function isGone(pid, ms) {
  for (const deadline = Date.now() + ms; Date.now() < deadline; await wait(50)) if (!isAlive(pid)) return true
  return !isAlive(pid)
}

export function isAlive(pid) {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}
