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
  let offered = 0
  for (let i = 0; i < KILLS; i++) {
    const recorded = await recordAndKill(800 + random() * 4000)
    const rescued = await rescuedSeconds(recorded.folder)
    if (rescued !== undefined) offered++
    lost.push(recorded.seconds - (rescued ?? 0))
  }
  return {
    'kills.offered': { value: offered, unit: `of ${KILLS}` },
    'kills.mostLostSeconds': { value: Math.max(...lost), unit: 's' },
    'kills.medianLostSeconds': { value: median(lost), unit: 's' },
  }
}

/** What was heard until the kill: the second before the press, and the time from press to kill. */
async function recordAndKill(afterMs: number): Promise<{ folder: string; seconds: number }> {
  const { page, folder, context } = await openApp({ keep: true })
  await page.addInitScript(() => localStorage.setItem('heliaster-recorder', JSON.stringify({ input: 'practice' })))
  await newKit(page)
  await page.getByRole('button', { name: 'Forget the highest level' }).waitFor({ timeout: 60_000 })
  await page.waitForTimeout(1300) // a whole second has been heard
  await page.evaluate(() =>
    window.addEventListener('click', () => Object.assign(window, { pressedAt: performance.timeOrigin + performance.now() }), {
      capture: true,
      once: true,
    }),
  )
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  const pressedAt = await page.evaluate(() => (window as unknown as { pressedAt: number }).pressedAt)
  await page.waitForTimeout(afterMs)
  const killedAt = Date.now()
  execFileSync('pkill', ['-KILL', '-f', folder])
  await context.close().catch(() => undefined)
  return { folder, seconds: PRE_ROLL_SECONDS + (killedAt - pressedAt) / 1000 }
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
