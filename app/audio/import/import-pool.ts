import { wrap } from 'comlink'
import type { Remote } from 'comlink'

import type { ImportWork, TakenOrReason } from './import-work'

/** A worker with its one remote: a remote that is let go of closes its worker's ear. */
interface Reader {
  readonly worker: Worker
  readonly remote: Remote<ImportWork>
}

const MOST = 3
/** Starting the first reader of a slow device takes its share of this. */
const PATIENCE_MS = 20_000
const PATIENCE_MS_FOR_EACH_MB = 600

/** Workers that read files side by side. A file on which one hangs is given up, and the worker replaced. */
export function createImportPool() {
  const size = Math.max(1, Math.min(MOST, (navigator.hardwareConcurrency || 2) - 1))
  const resting: Reader[] = []
  const start = (): Reader => {
    const worker = new Worker(new URL('./import.worker', window.location.href))
    return { worker, remote: wrap<ImportWork>(worker) }
  }

  async function take(file: File): Promise<TakenOrReason> {
    const reader = resting.pop() ?? start()
    const { worker, remote } = reader
    const patience = PATIENCE_MS + (file.size / 1e6) * PATIENCE_MS_FOR_EACH_MB
    let timer: ReturnType<typeof setTimeout> | undefined
    const gaveUp = new Promise<'gaveUp'>((resolve) => (timer = setTimeout(() => resolve('gaveUp'), patience)))
    const failed = new Promise<'failed'>((resolve) => (worker.onerror = () => resolve('failed')))
    try {
      const result = await Promise.race([remote.take(file, file.name), gaveUp, failed])
      if (typeof result !== 'string') {
        resting.push(reader)
        return result
      }
      worker.terminate()
      return {
        ok: false,
        reason:
          result === 'gaveUp'
            ? 'This file took far too long to read and was given up. It may be damaged; export it again.'
            : 'This file could not be read. Export it again.',
      }
    } catch (error) {
      worker.terminate()
      return { ok: false, reason: faultOf(error) }
    } finally {
      clearTimeout(timer)
    }
  }

  return {
    size,
    take,
    close: () => resting.splice(0).forEach(({ worker }) => worker.terminate()),
  }
}

function faultOf(error: unknown): string {
  if (error instanceof Error && /quota/i.test(`${error.name} ${error.message}`))
    return 'There is no room left on this device for it. Free some room, or delete sounds that are not needed, and import it again.'
  return 'This file could not be kept on this device. Reload the page and import it again.'
}
