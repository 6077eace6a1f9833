import { mkdtempSync, openSync, closeSync, rmSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import type { Page } from '@playwright/test'

import { longestTask, newKit, openApp, residentMb } from './app-page'
import type { Figure } from './figure'

const MINUTES = 60
const RATE = 48000
const STRIKE_EVERY_SECONDS = 0.6

/** An hour on the bench: how soon it is seen once it has been read, and the longest task of the page while it is worked on. */
export async function figuresOfWave(): Promise<Record<string, Figure>> {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-hour-'))
  const app = await openApp()
  try {
    const { page } = app
    await newKit(page)
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Import files' }).click()
    await (await chooser).setFiles(writeHour(folder))
    await page.getByRole('button', { name: 'Cut one hour', exact: true }).waitFor({ timeout: 120_000 })
    const beforeMb = residentMb(app.folder)
    await longestTask(page)
    const from = await page.evaluate(() => performance.now())
    await page.getByRole('button', { name: 'Cut one hour', exact: true }).click()
    await page.waitForFunction(() => performance.getEntriesByName('heliaster-wave-drawn').length > 0, undefined, { timeout: 120_000 })
    const drawnAt = await page.evaluate(() => performance.getEntriesByName('heliaster-wave-drawn')[0].startTime)
    const openTask = await longestTask(page)
    await page.getByText(/^\d{4} hits/).waitFor({ timeout: 300_000 })
    await page.getByText(/ s, -?\d+\.\d dB/).first().waitFor({ timeout: 300_000 }) // prettier-ignore
    await page.getByText('Saved', { exact: true }).waitFor({ timeout: 300_000 }) // the file has left for the server
    const heardTask = await longestTask(page)
    const mb = residentMb(app.folder) - beforeMb
    await panAndZoom(page)
    const panTask = await longestTask(page)
    return {
      'wave.firstPictureMs': { value: drawnAt - from, unit: `ms from the tap, ${MINUTES} min` },
      'wave.longestTaskOpeningMs': { value: openTask, unit: 'ms (0: none above 50)' },
      'wave.longestTaskWhenHeardMs': { value: heardTask, unit: 'ms (0: none above 50)' },
      'wave.longestTaskPanningMs': { value: panTask, unit: 'ms (0: none above 50)' },
      'wave.residentMb': { value: mb, unit: `MB more, ${MINUTES} min of one channel` },
    }
  } finally {
    await app.close()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** The whole and closer and closer, each dragged back and forth. */
async function panAndZoom(page: Page): Promise<void> {
  const box = (await page.getByLabel(/^Waveform, /).boundingBox())!
  const y = box.y + box.height / 2
  for (let closeness = 0; closeness < 6; closeness++) {
    await page.mouse.move(box.x + box.width / 2, y)
    for (let i = 0; closeness > 0 && i < 8; i++) {
      await page.mouse.wheel(0, -100)
      await page.evaluate(() => new Promise(requestAnimationFrame))
    }
    await page.mouse.down()
    for (let i = 1; i <= 40; i++) {
      await page.mouse.move(box.x + box.width / 2 + 200 * Math.sin(i / 4), y)
      await page.evaluate(() => new Promise(requestAnimationFrame))
    }
    await page.mouse.up()
  }
  await page.waitForTimeout(1000)
}

/** Strikes over the noise of a room, as 16-bit WAV, written in pieces of a minute. */
function writeHour(folder: string): string {
  const path = join(folder, 'one hour.wav')
  const frames = MINUTES * 60 * RATE
  const head = Buffer.alloc(44)
  head.write('RIFF', 0)
  head.writeUInt32LE(36 + 2 * frames, 4)
  head.write('WAVEfmt ', 8)
  head.writeUInt32LE(16, 16)
  head.writeUInt16LE(1, 20)
  head.writeUInt16LE(1, 22)
  head.writeUInt32LE(RATE, 24)
  head.writeUInt32LE(2 * RATE, 28)
  head.writeUInt16LE(2, 32)
  head.writeUInt16LE(16, 34)
  head.write('data', 36)
  head.writeUInt32LE(2 * frames, 40)
  const file = openSync(path, 'w')
  writeSync(file, head)
  let seed = 1
  const noise = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 2 ** 31 - 1 // a linear congruence is noise enough
  const minute = new Int16Array(60 * RATE)
  for (let m = 0; m < MINUTES; m++) {
    for (let i = 0; i < minute.length; i++) {
      const since = (i / RATE) % STRIKE_EVERY_SECONDS
      minute[i] = 12 * noise() + (9000 + 120 * m) * noise() * Math.exp(-since * 30)
    }
    writeSync(file, Buffer.from(minute.buffer))
  }
  closeSync(file)
  return path
}
