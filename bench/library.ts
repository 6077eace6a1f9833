import type { Page } from '@playwright/test'

import { base, longestTask, newKit, openApp } from './app-page'
import type { Figure } from './figure'

const ENTRIES = 5000

/** A list of 5,000 sounds: until its first rows are painted, and the longest task while it is opened, scrolled and ordered by likeness. */
export async function figuresOfLibrary(): Promise<Record<string, Figure>> {
  const app = await openApp()
  try {
    const { page } = app
    await newKit(page)
    await fill(page)
    await page.goto(`${base}/kit/demo-low-tide/board`)
    await page.getByRole('link', { name: 'Gather' }).waitFor()
    await page.waitForTimeout(4000) // what starting takes is over
    await longestTask(page)
    const openMs = await page.evaluate(async () => {
      const from = performance.now()
      document.querySelector<HTMLElement>('a[href$="/gather"]')!.click()
      while (!document.querySelector('[aria-label^="Cut knock"]')) await new Promise(requestAnimationFrame)
      await new Promise(requestAnimationFrame)
      return performance.now() - from
    })
    await page.waitForTimeout(500)
    const openTask = await longestTask(page)
    await page
      .getByRole('button', { name: /^Cut knock/ })
      .first()
      .hover()
    for (let i = 0; i < 300; i++) {
      await page.mouse.wheel(0, 1000)
      await page.evaluate(() => new Promise(requestAnimationFrame))
    }
    const scrollTask = await longestTask(page)
    const kin = await kinTasks(page)
    return {
      ...kin,
      'library.firstRowsMs': { value: openMs, unit: `ms, ${ENTRIES} sounds` },
      'library.longestTaskOpeningMs': { value: openTask, unit: 'ms (0: none above 50)' },
      'library.longestTaskScrollingMs': { value: scrollTask, unit: 'ms (0: none above 50)' },
    }
  } finally {
    await app.close()
  }
}

/** The longest task while a sound's kin is asked for, and turned every way. */
async function kinTasks(page: Page): Promise<Record<string, Figure>> {
  await page.getByRole('textbox', { name: 'Find by name' }).fill('knock')
  await page
    .getByRole('button', { name: /^More for knock/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Sounds like this' }).waitFor()
  await page.waitForTimeout(500)
  await longestTask(page)
  await page.getByRole('button', { name: 'Sounds like this' }).click()
  await page.getByText(/^Like “knock/).waitFor()
  await page.waitForTimeout(500)
  const asked = await longestTask(page)
  for (const way of ['Brighter', 'Longer', 'Lower', 'Nearest']) {
    await page.getByRole('radio', { name: way }).click()
    await page.waitForTimeout(300)
  }
  return {
    'library.longestTaskKinMs': { value: asked, unit: `ms (0: none above 50), ${ENTRIES} sounds ordered by likeness` },
    'library.longestTaskKinWaysMs': { value: await longestTask(page), unit: 'ms (0: none above 50), four ways' },
  }
}

/** Sounds with their pictures, as a long import leaves them on the device; of revision 0, since this server never had them. */
export function fill(page: Page): Promise<void> {
  return page.evaluate(async (count) => {
    const request = indexedDB.open('heliaster')
    const db = await new Promise<IDBDatabase>((resolve) => (request.onsuccess = () => resolve(request.result)))
    const transaction = db.transaction(['documents', 'pictures'], 'readwrite')
    const wave = Float32Array.from({ length: 64 }, (_, i) => Math.exp(-i / 9) * (0.3 + 0.7 * Math.abs(Math.sin(i * 7))))
    for (let n = 1; n <= count; n++) {
      const hash = n.toString(16).padStart(64, '0')
      const portrait = String.fromCharCode(...Array.from({ length: 120 }, (_, i) => 35 + ((i * n * 31 + n * 17) % 55)))
      const measured = { peakDb: -3, loudnessDb: -20, centreHz: 1000, portrait, decaySeconds: 0.02 + (n % 50) / 60 }
      const doc = {
        format: 'heliaster-source', version: 3, id: `rec-bench-${n}`, audio: hash,
        info: { name: `knock ${n}.wav`, sampleRateHz: 48000, frames: 40000 + n, channels: 1 }, name: `knock ${n}`, tags: ['bench'],
        verdict: 'open', cut: { waterLine: 0.3, minGapSeconds: 0.06 }, markers: [], addedAt: 2e12, origin: 'imported',
        favourite: false, family: 'wood', channel: 'left', measured,
      } // prettier-ignore
      transaction
        .objectStore('documents')
        .put({ key: `source:${doc.id}`, kind: 'source', id: doc.id, doc, revision: 0, changedAt: 0, hidden: false })
      transaction.objectStore('pictures').put({ key: hash, low: wave.map((x) => -x), high: wave, measured })
    }
    await new Promise((resolve) => (transaction.oncomplete = resolve))
    db.close()
  }, ENTRIES)
}
