import { writeWav } from '@heliaster/core/audio'
import { createBand, createIds, createKit, createPad, createTurn, wholeClip } from '@heliaster/core/kit'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import type { Page } from '@playwright/test'

import { aTone, seeded } from '../core/kit/builders'
import { base, longestTask, newKit, openApp, residentMb } from './app-page'
import type { Figure } from './figure'
import { strikesInNode, strikesInPage } from './strikes'

const PADS = 128
const CLIPS = 2000
const RATE = 48000
/** BENCH_CLIP_SECONDS=2.6 makes it a kit of 1 GB. */
const CLIP_FRAMES = Math.round(RATE * Number(process.env.BENCH_CLIP_SECONDS ?? 0.5))
const SAMPLES_MB = (CLIPS * CLIP_FRAMES * 4) / 1e6

/** A kit of 2,000 clips from this device's own store until its first strike sounds; and 500 strikes a second for a minute. */
export async function figuresOfBigKit(): Promise<Record<string, Figure>> {
  return { ...(await strikesInNode()), ...(await manyClips()) }
}

/** What starting takes is over by then, also a helper of the browser's that looks for cameras and holds 26 MB until it ends. */
const STARTED_MS = 9000
/** What collects what is no longer needed may wait so long after the last sound has come. */
const TIDY_MS = 20_000

async function manyClips(): Promise<Record<string, Figure>> {
  const app = await openApp({ folder: await profileWithKit() })
  try {
    const { page } = app
    await page.goto(base)
    const open = page.getByRole('button', { name: /^Open Two thousand/ })
    await open.first().waitFor()
    await page.mouse.click(5, 5) // sound may begin once something was touched
    await page.waitForTimeout(STARTED_MS)
    const beforeMb = residentMb(app.folder)
    await longestTask(page)
    await page.evaluate(() => document.addEventListener('pointerdown', ({ timeStamp }) => performance.mark('tapped', { startTime: timeStamp }), { capture: true, once: true })) // prettier-ignore
    await open.first().click()
    const from = await page.evaluate(() => performance.getEntriesByName('tapped')[0].startTime)
    // A pad far behind the first is struck again and again: its sound is fetched before the others.
    await page.evaluate(async () => {
      const sounded = () => performance.getEntriesByName('heliaster-first-sound').length > 0
      while (!sounded()) {
        document.dispatchEvent(new KeyboardEvent('keydown', { code: 'KeyP', key: 'p', bubbles: true }))
        document.dispatchEvent(new KeyboardEvent('keyup', { code: 'KeyP', key: 'p', bubbles: true }))
        await new Promise((resolve) => setTimeout(resolve, 20))
      }
    })
    const at = await page.evaluate(() => performance.getEntriesByName('heliaster-first-sound')[0].startTime)
    await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0, undefined, { timeout: 240_000 })
    const all = await page.evaluate(() => performance.getEntriesByName('heliaster-all-arrived')[0].startTime)
    const longest = await longestTask(page)
    const atOnceMb = residentMb(app.folder) - beforeMb
    await page.waitForTimeout(TIDY_MS)
    const laterMb = residentMb(app.folder) - beforeMb
    return {
      'kit.firstSoundMs': { value: at - from, unit: `ms from the tap, ${CLIPS} clips on ${PADS} pads` },
      'kit.allArrivedMs': { value: all - from, unit: 'ms from the tap' },
      'kit.besideSamplesMb': {
        value: laterMb - SAMPLES_MB,
        unit: `MB more beside ${SAMPLES_MB.toFixed(0)} MB of samples, ${TIDY_MS / 1000} s after the last came; spread: that and at once`,
        spread: [laterMb - SAMPLES_MB, atOnceMb - SAMPLES_MB],
      },
      'kit.longestTaskMs': { value: longest, unit: 'ms (0: none above 50)' },
      ...(await strikesInPage(page)),
    }
  } finally {
    await app.close()
  }
}

/** A browser's profile that has the kit: what putting it there takes is over when it is opened. */
async function profileWithKit(): Promise<string> {
  const app = await openApp({ keep: true })
  await newKit(app.page)
  await storeKit(app.page)
  await app.close()
  return app.folder
}

/** The kit and its files as they lie on a device that has them. */
export async function storeKit(page: Page): Promise<void> {
  const random = seeded(4)
  const makeId = createIds(random)
  const kit = createKit(makeId, 'Two thousand')
  const wavs: string[] = []
  const pads: Kit['pads'] = []
  const audio: Kit['audio'] = {}
  for (let p = 0; p < PADS; p++) {
    const count = Math.floor(((p + 1) * CLIPS) / PADS) - Math.floor((p * CLIPS) / PADS)
    const pad = createPad(makeId, { name: `Pad ${p + 1}`, pick: 'shuffle' }, p)
    const turns = Array.from({ length: count }, () => {
      const hash = wavs.length.toString(16).padStart(64, 'c') as AudioHash
      const tone = aTone(CLIP_FRAMES, 0.3, RATE, 80 + wavs.length)
      wavs.push(Buffer.from(writeWav(tone, { bits: 16 })).toString('base64'))
      audio[hash] = { name: `${wavs.length}.wav`, sampleRateHz: RATE, frames: CLIP_FRAMES, channels: 1 }
      return createTurn(makeId, { [pad.rays[0].id]: wholeClip(hash, { frames: CLIP_FRAMES, channels: 1 }) })
    })
    pads.push({ ...pad, bands: [createBand(makeId, 1, turns)] })
  }
  const doc: Kit = { ...kit, pads, audio }
  for (let from = 0; from < wavs.length; from += 200) await page.evaluate(storeAudio, [from, wavs.slice(from, from + 200)] as const)
  await page.evaluate(async (given) => {
    const request = indexedDB.open('heliaster')
    const db = await new Promise<IDBDatabase>((resolve) => (request.onsuccess = () => resolve(request.result)))
    const transaction = db.transaction('documents', 'readwrite')
    transaction
      .objectStore('documents')
      .put({ key: `kit:${given.id}`, kind: 'kit', id: given.id, doc: given, revision: 0, changedAt: Date.now(), hidden: false })
    await new Promise((resolve) => (transaction.oncomplete = resolve))
    db.close()
  }, doc)
}

async function storeAudio([first, wavs]: readonly [number, readonly string[]]): Promise<void> {
  const request = indexedDB.open('heliaster')
  const db = await new Promise<IDBDatabase>((resolve) => (request.onsuccess = () => resolve(request.result)))
  const transaction = db.transaction('audio', 'readwrite')
  for (const [i, wav] of wavs.entries()) {
    const hash = (first + i).toString(16).padStart(64, 'c')
    const bytes = new Blob([Uint8Array.from(atob(wav), (letter) => letter.charCodeAt(0))])
    transaction.objectStore('audio').put({ hash, name: `${first + i}.wav`, bytes, uploaded: 1 })
  }
  await new Promise((resolve) => (transaction.oncomplete = resolve))
  db.close()
}
