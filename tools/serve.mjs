// Starts the server as a child and waits until it listens.
import { fork } from 'node:child_process'
import { join, relative } from 'node:path'

import { Fault, root, webFolder } from './paths.mjs'

export function startServer({ port, database, web = true }) {
  return new Promise((resolve, reject) => {
    const child = fork(join(root, 'server/main.ts'), {
      cwd: root,
      execArgv: ['--import', 'tsx'],
      detached: true,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      env: {
        ...process.env,
        NODE_ENV: 'production',
        HELIASTER_PORT: String(port),
        HELIASTER_DB_SOCKET: database.socketPath,
        HELIASTER_DB_PASSWORD: database.password,
        ...(web ? { HELIASTER_WEB: relative(root, webFolder) } : {}),
      },
    })
    child.once('exit', (code) => reject(new Fault(`The server stopped while starting (exit code ${code}). Its last lines are above.`)))
    child.on('message', (message) => {
      if (message.type === 'failed') reject(new Fault(portFault(port, message.code)))
      if (message.type === 'ready') resolve({ child, stop: () => stopChild(child) })
    })
  })
}

export function portFault(port, code) {
  if (code === 'EADDRINUSE') return `Port ${port} is taken by another program. Stop it, or choose another: HELIASTER_PORT=8200 npm start.`
  if (code === 'EACCES') return `Port ${port} may not be used by this user. Choose one above 1024: HELIASTER_PORT=8200 npm start.`
  return `Port ${port} cannot be used (${code}). Choose another: HELIASTER_PORT=8200 npm start.`
}

const PATIENCE_MS = 5000

/** Asks the server to stop; one that hangs is ended after five seconds. */
export function stopChild(child, patienceMs = PATIENCE_MS) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve()
    const harder = setTimeout(() => child.kill('SIGKILL'), patienceMs)
    child.once('exit', () => {
      clearTimeout(harder)
      resolve()
    })
    child.kill('SIGTERM')
  })
}
