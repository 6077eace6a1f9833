// Starts the database and the server again when one of them has gone, with a growing pause, and says so.
import { setTimeout as wait } from 'node:timers/promises'

import { isAlive, startMariadb } from './mariadb.mjs'
import { startServer } from './serve.mjs'

const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 30_000
/** What has run this long was well: the next pause is a short one again. */
const WELL_MS = 20_000
const LOOK_EVERY_MS = 500

/** Tries until it succeeds; what fails is said each time. */
async function again(what, start, isWanted, say) {
  for (let pauseMs = FIRST_PAUSE_MS; isWanted(); pauseMs = Math.min(LONGEST_PAUSE_MS, pauseMs * 2)) {
    try {
      return await start()
    } catch (error) {
      say(`${what} did not come up: ${error.message} Trying again in ${pauseMs / 1000} s.`)
      await wait(pauseMs)
    }
  }
}

/**
 * Keeps both running below `folder` and at `port`. Returns how to stop them and, for those who look on, what runs now.
 * `say` is told in a sentence whatever stopped and came back.
 */
export async function keepRunning({
  folder,
  port,
  say,
  startDatabase = startMariadb,
  startWeb = startServer,
  longestPauseMs = LONGEST_PAUSE_MS,
}) {
  let stopping = false
  const isWanted = () => !stopping
  let pauseMs = FIRST_PAUSE_MS
  const running = { database: await startDatabase(folder), server: undefined }
  running.server = await startWeb({ port, database: running.database })
  let startedAt = Date.now()
  let wake = () => undefined
  const hasExited = () => running.server.child.exitCode !== null || running.server.child.signalCode !== null
  const watch = () => running.server.child.once('exit', () => wake())

  async function mend() {
    const lost = [isAlive(running.database.pid) ? undefined : 'The database', hasExited() ? 'The server' : undefined].filter(Boolean)
    if (lost.length === 0 || stopping) return
    if (Date.now() - startedAt > WELL_MS) pauseMs = FIRST_PAUSE_MS
    say(`${lost.join(' and ').replace(' and The', ' and the')} stopped by itself; starting again in ${pauseMs / 1000} s.`)
    await wait(pauseMs)
    pauseMs = Math.min(longestPauseMs, pauseMs * 2)
    if (!isAlive(running.database.pid) && isWanted())
      running.database = await again('The database', () => startDatabase(folder), isWanted, say)
    if (hasExited() && isWanted()) {
      running.server = await again('The server', () => startWeb({ port, database: running.database }), isWanted, say)
      if (running.server) watch()
    }
    startedAt = Date.now()
    if (!stopping) say(`${lost.length > 1 ? 'Both run' : `${lost[0]} runs`} again.`)
  }

  watch()
  const ended = (async () => {
    while (!stopping) {
      await Promise.race([wait(LOOK_EVERY_MS), new Promise((resolve) => (wake = resolve))])
      await mend()
    }
  })()
  return {
    running,
    async stop() {
      stopping = true
      wake()
      await ended
      await running.server?.stop()
      await running.database?.stop()
    },
  }
}
