import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { readWav } from '@heliaster/core/audio'
import { chromium, expect, test } from '@playwright/test'
import type { BrowserContext, Page } from '@playwright/test'

import { newKit, openDemo, openOwnDemo, pad, saved, storedBytes, takenBack } from './helpers'

const record = (page: Page) => page.getByRole('button', { name: 'Record', exact: true })

async function listen(page: Page): Promise<void> {
  await page.getByText('Practice microphone', { exact: true }).click()
  await expect(page.getByRole('button', { name: 'Forget the highest level' })).toHaveText(/dB/, { timeout: 40_000 })
}

function seconds(bytes: Uint8Array): number {
  const result = readWav(bytes)
  return result.ok ? result.file.audio.channels[0].length / result.file.audio.sampleRateHz : NaN
}

test('the level is seen before the take, and the second before the press is kept', async ({ page }) => {
  await newKit(page)
  await listen(page)
  const heardSince = await page.evaluate(() => performance.now())
  await expect(page.getByText(/^(A good level|Usable|Nearly full)/)).toBeVisible({ timeout: 20_000 })
  // The first level may be seen before there is a whole second to keep.
  await expect.poll(() => page.evaluate((since) => performance.now() - since, heardSince)).toBeGreaterThan(1000)
  await record(page).tap()
  await page.getByRole('button', { name: 'Stop and cut' }).tap()
  await page.waitForURL(/\/cut$/)
  const title = page.getByText(/^Recording \d+$/).last()
  await expect(title).toBeVisible()
  const name = (await title.textContent())!
  expect(seconds(await storedBytes(page, name))).toBeGreaterThan(1)
  await saved(page)
})

test('recording waits for sound, keeps what was before it, and ends by itself after a silence', async ({ page }) => {
  await newKit(page)
  await listen(page)
  await page.getByRole('button', { name: 'Settings of recording' }).tap()
  await page.getByRole('switch', { name: 'Wait for sound' }).tap()
  // The practice player strikes every second or so: half a second of less than the threshold ends the take.
  await page.getByRole('textbox', { name: 'Threshold, dB' }).fill('-10')
  await page.getByRole('textbox', { name: 'Threshold, dB' }).press('Enter')
  await page.getByRole('textbox', { name: /^Stop after silence/ }).fill('0.5')
  await page.getByRole('textbox', { name: /^Stop after silence/ }).press('Enter')
  await page.getByRole('button', { name: 'Close', exact: true }).last().tap()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await record(page).tap()
  await page.waitForURL(/\/cut$/) // it was stopped by nobody
  const title = page.getByText(/^Recording \d+$/).last()
  await expect(title).toBeVisible()
  const name = (await title.textContent())!
  const length = seconds(await storedBytes(page, name))
  expect(length).toBeGreaterThan(0.5)
  expect(length).toBeLessThan(30)
})

test('a recording goes on in every place, and is stopped from there', async ({ page }) => {
  await openDemo(page, 'gather')
  await listen(page)
  await record(page).tap()
  await expect(page.getByText(/^[2-9] hits$/)).toBeVisible({ timeout: 20_000 })
  await page.getByRole('link', { name: 'Groove' }).tap()
  await expect(page.getByText(/^Recording, 0:/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).tap()
  await page.waitForURL(/\/cut$/) // a take that was stopped lies on the bench
  await expect(page.getByText(/^Recording, 0:/)).toHaveCount(0)
  await page.getByRole('link', { name: 'Gather' }).tap()
  await expect(page.getByRole('button', { name: /^Cut Recording/ }).first()).toBeVisible()
})

test('a browser killed in the middle of a recording offers it at the next start', async ({ launchOptions, baseURL }) => {
  test.slow() // two browsers start in it
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-killed-'))
  const options = { ...launchOptions, baseURL, viewport: { width: 390, height: 844 } }
  let second: BrowserContext | undefined
  try {
    const first = await chromium.launchPersistentContext(folder, options)
    const page = await first.newPage()
    await newKit(page)
    await listen(page)
    await record(page).click()
    await expect(page.getByText(/^[4-9] hits$/)).toBeVisible({ timeout: 20_000 })
    const shown = await page.getByText(/^\d+\.\d s$/).textContent()
    const ended = first.waitForEvent('close')
    execFileSync('pkill', ['-KILL', '-f', folder])
    await ended
    // A killed browser leaves its lock, and its process number may be another's by now.
    for (const lock of ['SingletonLock', 'SingletonCookie', 'SingletonSocket']) rmSync(join(folder, lock), { force: true })

    second = await chromium.launchPersistentContext(folder, options)
    const again = await second.newPage()
    await newKit(again)
    const offer = again.getByText(/^A recording of .* was cut off$/)
    await expect(offer).toBeVisible()
    expect(parseFloat((await offer.textContent())!.match(/[\d.]+/)![0])).toBeGreaterThan(parseFloat(shown!) - 0.5)
    await again.getByRole('button', { name: 'Keep it' }).click()
    await expect(again.getByText(/^“Rescued \d+” is on the list.$/)).toBeVisible()
    await again.getByRole('textbox', { name: 'Find by name' }).fill('Rescued') // others come to the list meanwhile
    await again
      .getByRole('button', { name: /^Cut Rescued \d+$/ })
      .first()
      .click()
    await expect(again.getByRole('button', { name: /^Send ([3-9]|\d\d) hits to pads/ })).toBeEnabled()
    await again.reload()
    await again.getByRole('link', { name: 'Gather' }).click()
    await expect(offer).toHaveCount(0)
  } finally {
    await second?.close()
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 }) // what was killed may still be leaving
  }
})

test('no more room: recording stops, what is there is kept, and the person is told', async ({ launchOptions, baseURL }) => {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-full-'))
  const context = await chromium.launchPersistentContext(folder, { ...launchOptions, baseURL, viewport: { width: 390, height: 844 } })
  try {
    const page = await context.newPage()
    await newKit(page)
    await listen(page)
    const cdp = await context.newCDPSession(page)
    const { origin } = new URL(page.url())
    const { usage } = await cdp.send('Storage.getUsageAndQuota', { origin })
    await cdp.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: usage + 2_000_000 })
    await record(page).click()
    await expect(page.getByText(/There is no (more )?room on this device/).first()).toBeVisible({ timeout: 40_000 })
    await cdp.send('Storage.overrideQuotaForOrigin', { origin })
    await page.getByRole('link', { name: 'Gather' }).click()
    const listed = page.getByRole('button', { name: /^Cut (Recording|Rescued) \d+$/ }).first()
    const keep = page.getByRole('button', { name: 'Keep it' })
    await page.reload() // where there was no room for the list either, it is offered now
    await expect(listed.or(keep)).toBeVisible()
    if (await keep.isVisible()) await keep.click()
    await expect(listed).toBeVisible()
  } finally {
    await context.close()
    rmSync(folder, { recursive: true, force: true })
  }
})

test('strikes recorded on a pad become its turns, and three passes its bands', async ({ page }) => {
  await openOwnDemo(page, 'board')
  await pad(page, 'Buoy bell').tap()
  await page.getByRole('button', { name: 'Open pad' }).tap()
  const onPad = page.getByRole('button', { name: 'Record here' })
  await onPad.tap()
  await record(page).tap()
  await expect(page.getByText(/^([3-9]|1\d) hits$/)).toBeVisible({ timeout: 25_000 })
  await page.getByRole('button', { name: 'Stop', exact: true }).tap()
  await page.getByText('Replace it', { exact: true }).tap()
  await page
    .getByRole('button', { name: /: pass it$/ })
    .first()
    .tap()
  const put = page.getByRole('button', { name: /^Put [1-9]\d* turns on$/ })
  const turns = Number((await put.textContent())!.match(/\d+/)![0])
  await put.tap()
  await expect(page.getByRole('button', { name: /^Hear band 1, turn \d+$/ })).toHaveCount(turns)
  await onPad.tap()
  await page.getByText('Soft, middle, hard', { exact: true }).tap()
  await record(page).tap()
  for (const next of ['middle', 'hard']) {
    const before = await hitCount(page)
    await expect.poll(() => hitCount(page), { timeout: 20_000 }).toBeGreaterThan(before + 1)
    await page.getByRole('button', { name: `Next: ${next}` }).tap()
  }
  const before = await hitCount(page)
  await expect.poll(() => hitCount(page), { timeout: 20_000 }).toBeGreaterThan(before + 1)
  await page.getByRole('button', { name: 'Stop', exact: true }).tap()
  await page.getByRole('button', { name: /^Put them on as bands: soft [1-9]\d*, middle [1-9]\d*, hard [1-9]/ }).tap()
  await expect(page.getByRole('button', { name: 'Hear band 3, turn 1', exact: true })).toBeVisible()
  await saved(page)
})

async function hitCount(page: Page): Promise<number> {
  return parseInt((await page.getByText(/^\d+ hits?$/).textContent()) ?? '0', 10)
}

test('what the pads play is taken back in sample for sample, with its strikes', async ({ page }) => {
  await openDemo(page, 'gather')
  await expect(async () => {
    await page.getByText('The pads', { exact: true }).tap()
    await expect(page.getByText(/^What the pads play is recorded/)).toBeVisible({ timeout: 3000 })
  }).toPass()
  await record(page).tap()
  await expect(page.getByText('Stop and cut')).toBeVisible()
  // The audio of the pad may still be on its way to this device: struck until it sounds.
  await expect
    .poll(async () => {
      await pad(page, 'Keel drop').tap({ position: { x: 44, y: 24 } })
      return hitCount(page)
    })
    .toBeGreaterThan(0)
  await page.getByRole('button', { name: 'Stop and cut' }).tap()
  const { name, strikes } = await takenBack(page)
  expect(new Set(strikes.map((strike) => strike.padName))).toEqual(new Set(['Keel drop']))
  const result = readWav(await storedBytes(page, name))
  const [left] = result.ok ? result.file.audio.channels : []
  const sounded = left.findIndex((sample) => sample !== 0)
  const struck = strikes.findLast((strike) => strike.frame <= sounded)!
  expect(sounded - struck.frame).toBeLessThan(96) // a frame or two of the clip's own beginning
  const loudest = left.subarray(sounded, sounded + 4000).reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
  expect(loudest, `after a strike of velocity ${struck.velocity}`).toBeGreaterThan(0.05)
  expect(result.ok && result.file.isFloat).toBe(true)
  await saved(page)
})

test.describe('on a device that keeps the application', () => {
  test.use({ serviceWorkers: 'allow' })

  test('with no server in reach the application opens and records, and hands everything over later', async ({ page, context }) => {
    await newKit(page)
    await page.evaluate(async () => {
      const { active } = await navigator.serviceWorker.ready
      if (active?.state !== 'activated') await new Promise((resolve) => active?.addEventListener('statechange', resolve))
    })
    await saved(page)
    const address = page.url()
    await context.setOffline(true)
    await page.goto('about:blank')
    await page.goto(address)
    await listen(page)
    await record(page).tap()
    await expect(page.getByText(/^[2-9] hits$/)).toBeVisible({ timeout: 20_000 })
    await page.getByRole('button', { name: 'Stop and cut' }).tap()
    await page.getByRole('button', { name: /^Send [1-9]\d* hits? to pads/ }).tap()
    await page.getByRole('button', { name: 'Send to the Board' }).tap()
    await expect(page.getByText('Open pad')).toBeVisible()
    await expect(page.getByRole('button', { name: /^How saving stands: Kept on this device, [1-9]\d* to send/ })).toBeVisible()
    await context.setOffline(false)
    await saved(page)
  })
})
