import type { Page } from '@playwright/test'

import { base, longestTask, newKit, openApp } from './app-page'
import type { Figure } from './figure'

const ENTRIES = 2000

/** A list of 2,000 sounds: until its first rows are painted, and the longest task while it is opened and scrolled. */
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
    for (let i = 0; i < 120; i++) {
      await page.mouse.wheel(0, 1000)
      await page.evaluate(() => new Promise(requestAnimationFrame))
    }
    await page.getByRole('button', { name: `Cut knock ${ENTRIES}`, exact: true }).waitFor()
    const scrollTask = await longestTask(page)
    return {
      'library.firstRowsMs': { value: openMs, unit: `ms, ${ENTRIES} sounds` },
      'library.longestTaskOpeningMs': { value: openTask, unit: 'ms (0: none above 50)' },
      'library.longestTaskScrollingMs': { value: scrollTask, unit: 'ms (0: none above 50)' },
    }
  } finally {
    await app.close()
  }
}

/** Sounds with their pictures, as a long import leaves them on the device. */
export function fill(page: Page): Promise<void> {
  return page.evaluate(async (count) => {
    const request = indexedDB.open('heliaster')
    const db = await new Promise<IDBDatabase>((resolve) => (request.onsuccess = () => resolve(request.result)))
    const transaction = db.transaction(['documents', 'pictures'], 'readwrite')
    const wave = Float32Array.from({ length: 64 }, (_, i) => Math.exp(-i / 9) * (0.3 + 0.7 * Math.abs(Math.sin(i * 7))))
    for (let n = 1; n <= count; n++) {
      const hash = n.toString(16).padStart(64, '0')
      const measured = { peakDb: -3, loudnessDb: -20 }
      const doc = {
        format: 'heliaster-source', version: 2, id: `rec-bench-${n}`, audio: hash,
        info: { name: `knock ${n}.wav`, sampleRateHz: 48000, frames: 40000 + n, channels: 1 }, name: `knock ${n}`, tags: ['bench'],
        verdict: 'open', cut: { waterLine: 0.3, minGapSeconds: 0.06 }, markers: [], addedAt: 2e12, origin: 'imported',
        favourite: false, family: 'wood', channel: 'left', measured,
      } // prettier-ignore
      transaction
        .objectStore('documents')
        .put({ key: `source:${doc.id}`, kind: 'source', id: doc.id, doc, revision: 1, changedAt: 0, hidden: false })
      transaction.objectStore('pictures').put({ key: hash, low: wave.map((x) => -x), high: wave, measured })
    }
    await new Promise((resolve) => (transaction.oncomplete = resolve))
    db.close()
  }, ENTRIES)
}
