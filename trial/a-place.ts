import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'

interface Running {
  readonly database: { readonly pid: number; readonly socketPath: string; readonly password: string }
  readonly server: { readonly child: { readonly pid?: number; kill(signal: string): void } }
}

/** A Heliaster with a database of its own that is restarted as `npm start` restarts it. */
export interface Place {
  readonly address: string
  readonly said: string[]
  pids(): { server: number; database: number }
  /** Waits until the server answers and its database too. */
  untilWell(): Promise<void>
  stop(): Promise<void>
}

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })
}

export async function aPlace(): Promise<Place> {
  const { keepRunning } = (await import('../tools/keep-running.mjs' as string)) as {
    keepRunning(given: object): Promise<{ running: Running; stop(): Promise<void> }>
  }
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-trial-'))
  const port = await freePort()
  const said: string[] = []
  const kept = await keepRunning({ folder, port, say: (words: string) => said.push(words), longestPauseMs: 1000 })
  const address = `http://localhost:${port}`
  return {
    address,
    said,
    pids: () => ({ server: kept.running.server.child.pid!, database: kept.running.database.pid }),
    async untilWell() {
      for (const deadline = Date.now() + 60_000; Date.now() < deadline; await wait(50)) {
        const answer = await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(2000) }).catch(() => undefined)
        if (answer?.ok) return
      }
      throw new Error('The server did not come back within a minute.')
    },
    async stop() {
      await kept.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Resident memory of a process in MB, and the most it ever had. */
export function memoryOf(pid: number): { residentMb: number; peakMb: number } {
  const status = readFileSync(`/proc/${pid}/status`, 'utf8')
  const kb = (name: string) => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(status)?.[1] ?? 0)
  return { residentMb: kb('VmRSS') / 1024, peakMb: kb('VmHWM') / 1024 }
}
