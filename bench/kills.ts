import { execFileSync } from 'node:child_process'

import { seeded } from '../core/kit/builders'
import { newKit, openApp } from './app-page'
import type { Figure } from './figure'
import { median } from './figure'

const KILLS = 20
const PRE_ROLL_SECONDS = 1

/** Recordings whose browser is killed at a random moment: how much of each is gone, and whether it is offered again. */
export async function figuresOfKills(): Promise<Record<string, Figure>> {
  const random = seeded(20)
  const lost: number[] = []
  const lostByClock: number[] = []
  let offered = 0
  for (let i = 0; i < KILLS; i++) {
    const recorded = await recordAndKill(800 + random() * 4000)
    const rescued = await rescuedSeconds(recorded.folder)
    if (rescued !== undefined) offered++
    lost.push(recorded.heardSeconds - (rescued ?? 0))
    lostByClock.push(recorded.clockSeconds - (rescued ?? 0))
  }
  return {
    'kills.offered': { value: offered, unit: `of ${KILLS}` },
    'kills.mostLostSeconds': { value: Math.max(...lost), unit: 's of what the input had sent' },
    'kills.medianLostSeconds': { value: median(lost), unit: 's of what the input had sent' },
    'kills.mostLostByClockSeconds': { value: Math.max(...lostByClock), unit: 's, by the clock on the wall: a stalled input counts too' },
  }
}

interface Killed {
  readonly folder: string
  /** The second before the press, and what the input has sent from then to the kill. */
  readonly heardSeconds: number
  /** The same by the clock on the wall. */
  readonly clockSeconds: number
}

async function recordAndKill(afterMs: number): Promise<Killed> {
  const { page, folder, context } = await openApp({ keep: true })
  await page.addInitScript(collectContexts)
  await page.addInitScript(() => localStorage.setItem('heliaster-recorder', JSON.stringify({ input: 'practice' })))
  await newKit(page)
  await page.getByRole('button', { name: 'Forget the highest level' }).waitFor({ timeout: 60_000 })
  await page.waitForTimeout(1300) // a whole second has been heard
  await page.evaluate(() =>
    window.addEventListener('click', () => Object.assign(window, { pressed: (window as unknown as Clocks).clocks() }), {
      capture: true,
      once: true,
    }),
  )
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await page.waitForTimeout(afterMs)
  const [pressed, killed] = await page.evaluate(() => [(window as unknown as Clocks).pressed, (window as unknown as Clocks).clocks()])
  execFileSync('pkill', ['-KILL', '-f', folder])
  await context.close().catch(() => undefined)
  return {
    folder,
    heardSeconds: PRE_ROLL_SECONDS + killed.inputSeconds - pressed.inputSeconds,
    clockSeconds: PRE_ROLL_SECONDS + killed.wallSeconds - pressed.wallSeconds,
  }
}

interface Clock {
  readonly wallSeconds: number
  readonly inputSeconds: number
}

interface Clocks {
  readonly pressed: Clock
  clocks(): Clock
}

/** In the page: the clock of the input, which is the audio context that was made last, beside the one on the wall. */
function collectContexts(): void {
  let last: AudioContext | undefined
  const Plain = window.AudioContext
  class Watched extends Plain {
    constructor(options?: AudioContextOptions) {
      super(options)
      // eslint-disable-next-line @typescript-eslint/no-this-alias
      last = this
    }
  }
  const clocks = () => ({ wallSeconds: performance.now() / 1000, inputSeconds: last?.currentTime ?? 0 })
  Object.assign(window, { AudioContext: Watched, clocks })
}

async function rescuedSeconds(folder: string): Promise<number | undefined> {
  const app = await openApp({ folder })
  try {
    await app.page.addInitScript(() => localStorage.setItem('heliaster-recorder', JSON.stringify({ listens: false })))
    await newKit(app.page)
    const keep = app.page.getByRole('button', { name: 'Keep it' })
    await keep.waitFor({ timeout: 15_000 })
    await keep.click()
    await app.page.getByText(/^“Rescued \d+” is on the list\.$/).waitFor()
    return await app.page.evaluate(async () => {
      const request = indexedDB.open('heliaster')
      const db = await new Promise<IDBDatabase>((resolve) => (request.onsuccess = () => resolve(request.result)))
      const all = db.transaction('documents').objectStore('documents').getAll()
      const docs = await new Promise<
        { kind: string; doc: { name: string; info: { frames: number; sampleRateHz: number }; addedAt: number } }[]
      >((resolve) => (all.onsuccess = () => resolve(all.result)))
      const [last] = docs
        .filter((one) => one.kind === 'source' && one.doc.name.startsWith('Rescued'))
        .sort((a, b) => b.doc.addedAt - a.doc.addedAt)
      return last.doc.info.frames / last.doc.info.sampleRateHz
    })
  } catch {
    return undefined
  } finally {
    await app.close()
  }
}
