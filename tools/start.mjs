// npm start: installs what is missing, starts the database and the server, prints one line with the address.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'

import { dataFolder, Fault } from './paths.mjs'
import { ensureMariadb, ensureNode, ensurePackages } from './install.mjs'

const port = Number(process.env.HELIASTER_PORT ?? 8100)
const pidFile = join(dataFolder, 'start.pid')
let kept
let stopping = false
let ownsPidFile = false

async function stop(code) {
  if (stopping) return
  stopping = true
  await kept?.stop()
  if (ownsPidFile) rmSync(pidFile, { force: true })
  process.exit(code)
}

function checkPort() {
  return new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', (error) => import('./serve.mjs').then(({ portFault }) => reject(new Fault(portFault(port, error.code)))))
    probe.listen(port, '127.0.0.1', () => probe.close(resolve))
  })
}

async function refuseSecondStart() {
  const { isAlive } = await import('./mariadb.mjs')
  let other
  try {
    other = JSON.parse(readFileSync(pidFile, 'utf8'))
  } catch {
    return
  }
  const command = (() => {
    try {
      return readFileSync(`/proc/${other.pid}/cmdline`, 'utf8')
    } catch {
      return ''
    }
  })()
  if (isAlive(other.pid) && command.includes('start.mjs'))
    throw new Fault(`Heliaster is already running with this data: http://localhost:${other.port} (process ${other.pid}).`)
}

try {
  ensureNode()
  if (!(port >= 1 && port <= 65535))
    throw new Fault(`HELIASTER_PORT is "${process.env.HELIASTER_PORT}"; it must be a number from 1 to 65535.`)
  mkdirSync(dataFolder, { recursive: true })
  await refuseSecondStart()
  // After a kill -9 our own server is still letting go of the port.
  const wasKilled = existsSync(pidFile)
  for (let tries = wasKilled ? 10 : 1; tries > 0; tries--)
    try {
      await checkPort()
      break
    } catch (error) {
      if (tries === 1) throw error
      await wait(300)
    }
  ensurePackages()
  ensureMariadb()
  const { buildWeb } = await import('./build-web.mjs')
  const { keepRunning } = await import('./keep-running.mjs')
  process.on('SIGINT', () => stop(0))
  process.on('SIGTERM', () => stop(0))
  process.on('SIGHUP', () => stop(0))
  writeFileSync(pidFile, JSON.stringify({ pid: process.pid, port }))
  ownsPidFile = true
  await buildWeb()
  kept = await keepRunning({ folder: join(dataFolder, 'mariadb'), port, say: (words) => console.error(words) })
  console.log(`Heliaster is at http://localhost:${port}`)
} catch (error) {
  console.error(error instanceof Fault ? error.message : error)
  await stop(1)
}
