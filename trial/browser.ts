import { execFileSync } from 'node:child_process'
import { rmSync } from 'node:fs'

import type { Page } from '@playwright/test'

import { openApp } from '../bench/app-page'
import type { Figure } from '../bench/figure'
import { aPlace } from './a-place'

const KILLS = 10

const padsShown = (page: Page) => page.getByRole('button', { name: /^Pad \d/ }).count()
/** The pads once the page has come to rest: drawn, and saved. */
async function settledPads(page: Page): Promise<number> {
  await page.getByRole('button', { name: 'Add pad' }).waitFor({ timeout: 30_000 })
  await page.getByRole('button', { name: 'How saving stands: Saved', exact: true }).waitFor({ timeout: 60_000 })
  await page.waitForTimeout(500)
  return padsShown(page)
}

const saving = async (page: Page) => (await page.getByRole('button', { name: /^How saving stands/ }).getAttribute('aria-label')) ?? ''

async function newKit(page: Page, address: string): Promise<string> {
  await page.goto(address)
  await page.getByRole('button', { name: 'New kit', exact: true }).click()
  await page.getByRole('link', { name: 'Board' }).click()
  await page.getByRole('button', { name: 'Add pad' }).waitFor()
  return page.url()
}

/** The browser is killed while pads are added: what it had called kept must be there when it starts again. */
export async function killsWhileEditing(): Promise<Record<string, Figure>> {
  const place = await aPlace()
  let shownKept = 0
  let lost = 0
  for (let i = 0; i < KILLS; i++) {
    const app = await openApp({ keep: true })
    const url = await newKit(app.page, place.address)
    // Half of them with the server away, so that only the device can keep it.
    if (i % 2 === 1) await app.context.route('**/api/**', (route) => route.abort())
    const until = Date.now() + 1500 + Math.random() * 2500
    let kept = 0
    while (Date.now() < until) {
      await app.page.getByRole('button', { name: 'Add pad' }).click()
      const shown = await padsShown(app.page)
      if (/Kept on this device|Saved/.test(await saving(app.page))) kept = shown
    }
    execFileSync('pkill', ['-KILL', '-f', app.folder])
    await app.context.close().catch(() => undefined)
    shownKept += kept
    const again = await openApp({ folder: app.folder })
    await again.page.goto(url)
    lost += Math.max(0, kept - (await settledPads(again.page)))
    await again.close()
    rmSync(app.folder, { recursive: true, force: true })
  }
  await place.stop()
  return {
    'browser.kills': { value: KILLS, unit: 'kills of the browser while editing' },
    'browser.shownKept': { value: shownKept, unit: 'pads that were called kept or saved' },
    'browser.lost': { value: lost, unit: 'of them gone after the start' },
  }
}

const FULL = 10

/** A device without room: it says so, keeps what was done in sight, and writes it later. The server is away as well. */
export async function quota(): Promise<Record<string, Figure>> {
  const place = await aPlace()
  let said = 0
  let lost = 0
  for (let i = 0; i < FULL; i++) {
    const app = await openApp()
    const url = await newKit(app.page, place.address)
    await app.page.getByRole('button', { name: 'How saving stands: Saved', exact: true }).waitFor({ timeout: 60_000 })
    await app.context.route('**/api/**', (route) => route.abort())
    await app.page.evaluate(fillDevice)
    const wanted = 2 + (i % 3)
    for (let n = 0; n < wanted; n++) await app.page.getByRole('button', { name: 'Add pad' }).click()
    const isSaid = await app.page.getByRole('button', { name: /not kept yet/ }).waitFor({ timeout: 15_000 }).then(() => true, () => false) // prettier-ignore
    if (isSaid) said++
    await app.page.evaluate(() => (window as unknown as { freeDevice(): void }).freeDevice())
    await app.page.getByRole('button', { name: /Kept on this device/ }).waitFor({ timeout: 60_000 })
    await app.page.reload()
    await app.page.getByRole('button', { name: 'Add pad' }).waitFor()
    await app.context.unroute('**/api/**')
    await app.page.goto(url)
    lost += Math.max(0, wanted - (await settledPads(app.page)))
    await app.close()
  }
  await place.stop()
  return {
    'quota.said': { value: said, unit: `of ${FULL} full devices said that it was not kept` },
    'quota.lost': { value: lost, unit: 'changes lost once there was room and after a reload' },
  }
}

/** In the page: every write fails as it does on a full device. The browser's own quota lets writes of a few bytes pass. */
function fillDevice(): void {
  const { add, put } = IDBObjectStore.prototype
  const fail = () => {
    throw new DOMException('No room on this device.', 'QuotaExceededError')
  }
  Object.assign(IDBObjectStore.prototype, { add: fail, put: fail })
  Object.assign(window, { freeDevice: () => Object.assign(IDBObjectStore.prototype, { add, put }) })
}
