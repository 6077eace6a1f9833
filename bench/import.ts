import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import type { Page } from '@playwright/test'

import { writeWav } from '../core/audio'
import { seeded } from '../core/kit/builders'
import { longestTask, newKit, openApp, residentMb } from './app-page'
import type { Figure } from './figure'

const FILES = 300
const FILE_BYTES = 200e6 / FILES

/** Importing 300 files of 200 MB, against reading and hashing the same files in the same page. */
export async function figuresOfImport(): Promise<Record<string, Figure>> {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-files-'))
  const paths = Array.from({ length: FILES }, (_, i) => join(folder, `knock ${i + 1}.wav`))
  paths.forEach((path, i) => writeFileSync(path, knock(i + 1)))
  const app = await openApp()
  try {
    const { page } = app
    await newKit(page)
    const before = residentMb(app.folder)
    const peerSeconds = await readAndHash(page, paths)
    const bareTask = await longestTask(page)
    let peak = before
    const watch = setInterval(() => (peak = Math.max(peak, residentMb(app.folder))), 200)
    await page.waitForTimeout(1500)
    await page.evaluate(() => addEventListener('change', () => Object.assign(window, { handedOverMs: performance.now() }), true))
    await longestTask(page)
    const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
    await chooser.setFiles(paths)
    const from = Date.now()
    await page.getByText(`${FILES} imported`, { exact: true }).waitFor({ timeout: 600_000 })
    const seconds = (Date.now() - from) / 1000
    clearInterval(watch)
    const handedOverMs = await page.evaluate(() => (window as unknown as { handedOverMs: number }).handedOverMs)
    return {
      'import.seconds': { value: seconds, unit: `s, ${FILES} files of 200 MB` },
      'import.ratioToReadingAndHashing': {
        value: peerSeconds / seconds,
        unit: 'times as fast',
        peer: 'reading and hashing the same files',
      },
      'import.peakMemoryMb': { value: peak - before, unit: 'MB above the page at rest, all processes' },
      'import.longestTaskMs': {
        value: await longestTask(page, handedOverMs),
        unit: 'ms (0: none above 50), once the files are handed over',
      },
      'import.handOverTaskMs': { value: bareTask, unit: 'ms, the browser itself handing 300 files to a bare input' },
    }
  } finally {
    await app.close()
    rmSync(folder, { recursive: true, force: true })
  }
}

async function readAndHash(page: Page, paths: string[]): Promise<number> {
  await page.evaluate(() =>
    document.body.append(Object.assign(document.createElement('input'), { type: 'file', multiple: true, id: 'bench-files' })),
  )
  await page.setInputFiles('#bench-files', paths)
  return page.evaluate(async () => {
    const input = document.querySelector<HTMLInputElement>('#bench-files')!
    const from = performance.now()
    for (const file of Array.from(input.files!)) await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
    const seconds = (performance.now() - from) / 1000
    input.remove()
    return seconds
  })
}

/** A knock that dies away in noise, 24 bits, mono. */
export function knock(seed: number): Uint8Array {
  const random = seeded(seed)
  const frames = Math.floor((FILE_BYTES - 44) / 3)
  const samples = Float32Array.from({ length: frames }, (_, i) => (random() * 2 - 1) * (0.6 * Math.exp(-i / 6000) + 0.0005))
  return writeWav({ sampleRateHz: 48000, channels: [samples] }, { bits: 24 })
}
