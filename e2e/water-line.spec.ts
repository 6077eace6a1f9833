import { writeWav } from '@heliaster/core/audio'
import { strikeSound, things } from '@heliaster/demo'
import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'

import { narrow, newKit, openDemo, saved, storedSource } from './helpers'

const RATE = 48000
const DECK = { name: 'deck', brightness: 1, delaySeconds: 0, room: 0.05, gain: 1 }

/** Steps on a pier: heel, and a softer toe 90 ms later; every second one is on another board. */
function steps(count: number, seed: number): Buffer {
  const samples = new Float32Array(Math.round((count * 0.6 + 1.5) * RATE))
  const strike = (seconds: number, thing: (typeof things)[keyof typeof things], strength: number, level: number, seed: number) => {
    const sound = strikeSound(thing, strength, seed, DECK).subarray(0, 0.3 * RATE)
    const peak = sound.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
    const from = Math.round(seconds * RATE)
    sound.forEach((sample, i) => from + i < samples.length && (samples[from + i] += (level * sample * Math.min(1, (sound.length - i) / 2400)) / peak))
  }
  for (let i = 0; i < count; i++) {
    strike(0.7 + 0.6 * i, i % 2 === 0 ? things.hatchTick : things.tarpSlap, 0.7, 0.6, seed + i)
    strike(0.79 + 0.6 * i, things.hatchTick, 0.4, 0.12, seed + 50 + i)
  }
  let noise = 1
  const hiss = () => (noise = (Math.imul(noise, 1103515245) + 12345) >>> 0) / 2147483648 - 1
  return Buffer.from(writeWav({ sampleRateHz: RATE, channels: [samples.map((sample) => sample + 0.0006 * hiss())] }, { bits: 16 }))
} // prettier-ignore

async function onTheBench(page: Page, name: string, seed: number): Promise<void> {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles([{ name: `${name}.wav`, mimeType: 'audio/wav', buffer: steps(12, seed) }])
  await narrow(page, name)
  await page.getByRole('button', { name: `Cut ${name}`, exact: true }).click()
  await expect(page.getByText('12 hits', { exact: true })).toBeVisible()
}

test('steps of heel and toe are one hit each; the line says what it did, shows its next level, stays where it is drawn and is let go', async ({
  page,
}) => {
  await onTheBench(page, 'pier steps', 10)
  await expect(page.getByText(/^12 hits; \d+ weaker ones/)).toBeVisible()
  await page.getByRole('button', { name: /^More hits: / }).click()
  await expect(page.getByText('Your own line.', { exact: false })).toBeVisible()
  await expect(page.getByText('12 hits', { exact: true })).toBeHidden()
  await saved(page)
  const own = (await storedSource(page, 'pier steps')).cut
  expect(own.findsLevel).toBeUndefined()
  await page.reload()
  await narrow(page, 'pier steps')
  await page.getByRole('button', { name: 'Cut pier steps', exact: true }).click()
  await expect(page.getByText('Your own line.', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Let the line find its level' }).click()
  await expect(page.getByText('12 hits', { exact: true })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Your own line.', { exact: false })).toBeVisible()
})

test('a strike inside a hit becomes a hit of its own, and alike hits go to their pads together', async ({ page }) => {
  await onTheBench(page, 'quay steps', 500)
  await page.getByRole('button', { name: 'Send 12 hits to pads' }).click()
  await page.getByRole('radio', { name: 'Alike hits together' }).click()
  await expect(page.getByText('2 things were struck, each several times.')).toBeVisible()
  await expect(page.getByText('6 times')).toHaveCount(2)
  await page.getByRole('button', { name: 'One more' }).click()
  await expect(page.getByText(/^3 things were struck/)).toBeVisible()
  await page.getByRole('button', { name: 'One thing less' }).click()
  await page.getByRole('button', { name: 'Send to the Board' }).click()
  await expect(page.getByText('2 pads are on the Board.')).toBeVisible()
  await page.getByRole('link', { name: 'Cut' }).click()
  await page.getByRole('button', { name: /^Hear / }).filter({ hasText: ' s, ' }).first().click()
  await page.getByRole('button', { name: 'Details' }).click()
  await expect(page.getByText(/strikes (again|\d+ times more) inside it/)).toBeVisible()
  await page.getByRole('button', { name: /^Make (it a hit|them \d+ hits) of (its|their) own$/ }).click()
  await expect(page.getByText(/^1[3-9] hits$/)).toBeVisible()
}) // prettier-ignore

test('the list shows what is like a sound, turned another way, and all of it again', async ({ page }) => {
  await openDemo(page, 'gather')
  await page.getByRole('textbox', { name: 'Find by name' }).fill('keel d1 t02')
  await page.getByRole('button', { name: 'More for hull-thump_keel_d1_t02' }).click()
  await page.getByRole('button', { name: 'Sounds like this' }).click()
  await page.getByRole('textbox', { name: 'Find by name' }).fill('')
  await expect(page.getByText('Like “hull-thump_keel_d1_t02”')).toBeVisible()
  const rows = page.getByRole('button', { name: /^Cut / })
  await expect(rows.first()).toHaveAccessibleName(/^Cut hull-thump_keel_d/)
  await page.getByRole('radio', { name: 'Brighter' }).click()
  await expect(page.getByText(/^The most alike first, of [1-9]\d* that are brighter\./)).toBeVisible()
  await expect(rows.first()).toHaveAccessibleName(/^Cut hull-thump_/)
  await page.getByRole('button', { name: 'Show all sounds again' }).click()
  await expect(page.getByText('Like “hull-thump_keel_d1_t02”')).toBeHidden()
})
