import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'
import type { Clip, Kit } from '@heliaster/core/kit'

import { keptKit, openOwnDemo, pad, saved } from './helpers'

const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: typeof name === 'string' }).first().click() // prettier-ignore
const padOf = (kit: Kit, name: string) => kit.pads.find(({ own }) => own.name === name)!
const clipsIn = (kit: Kit, name: string) => padOf(kit, name).bands.flatMap(({ turns }) => turns.flatMap(({ clips }) => Object.values(clips) as Clip[])) // prettier-ignore
/** Waits until nothing is worked any more. */
const worked = (page: Page) => expect(page.getByRole('button', { name: 'Stop the work' })).toHaveCount(0, { timeout: 60_000 })

async function openMatter(page: Page, name: string): Promise<void> {
  await openOwnDemo(page, 'shape')
  await pad(page, name).click()
  await page.getByRole('radio', { name: 'Matter', exact: true }).click()
  await expect(page.getByText('What should it be?')).toBeVisible()
}

/** How long the drawn hit is, s; 0 while it is not drawn. */
const drawnSeconds = async (page: Page): Promise<number> => {
  const label = await page.getByRole('group', { name: /^Tide chart/ }).getAttribute('aria-label')
  return Number(/^Tide chart, ([\d.]+) s/.exec(label ?? '')?.[1] ?? 0)
}

test('a hit is made twice as long and an octave deeper; it is drawn, played, kept, heard as recorded, and undone', async ({ page }) => {
  await openMatter(page, 'Oar, low')
  let before = 0
  // It is drawn, and stands still.
  await expect.poll(async () => before === (before = await drawnSeconds(page)) && before > 0, { intervals: [500] }).toBe(true)
  await press(page, 'Longer')
  await worked(page)
  await expect.poll(() => drawnSeconds(page), { timeout: 90_000 }).toBeGreaterThan(1.3 * before)
  const pitch = page.getByRole('slider', { name: 'Pitch', exact: true })
  await pitch.focus()
  for (let i = 0; i < 3; i++) await pitch.press('PageDown')
  await worked(page)
  await press(page, 'As recorded')
  await pad(page, 'Oar, low').click()
  await saved(page)
  const steps = clipsIn(await keptKit(page), 'Oar, low').map(({ process }) => process?.[0]?.values)
  expect(steps.length).toBeGreaterThan(0)
  for (const values of steps) expect(values).toMatchObject({ lengthPercent: 200, pitchCents: -30 })
  await page.reload()
  await expect(page.getByRole('radio', { name: 'Matter', exact: true })).toBeVisible()
  for (let i = 0; i < 4; i++) await press(page, 'Undo')
  await saved(page)
  for (const clip of clipsIn(await keptKit(page), 'Oar, low')) expect(clip.process).toBeUndefined()
})

test('a hit is parted: two colours, both heard, two rays that the kit keeps', async ({ page }) => {
  await openMatter(page, 'Oar, low')
  await press(page, 'Part it: ringing and noise')
  await expect(page.getByRole('img', { name: 'Ringing and noise of the hit along time' })).toBeVisible()
  await press(page, 'Hear ringing')
  await press(page, 'Hear noise')
  await press(page, 'Make two rays')
  await worked(page)
  await saved(page)
  const oar = padOf(await keptKit(page), 'Oar, low')
  expect(oar.rays.map(({ name }) => name)).toEqual([expect.stringMatching(/, ringing$/), expect.stringMatching(/, noise$/)])
  await expect(page.getByRole('radio', { name: /^Ray .*ringing/ })).toBeVisible()
})

test('a pad is cast on a new pad, which is played and undone as one', async ({ page }) => {
  await openMatter(page, 'Oar, low')
  await press(page, 'Slow down')
  await worked(page)
  await press(page, 'Cast it on a new pad')
  await page.getByRole('radio', { name: '4', exact: true }).click()
  await page.getByRole('button', { name: 'Cast', exact: true }).click()
  await expect(page.getByText(/strikes? cast on a new pad/)).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await pad(page, 'Oar, low, cast').click()
  await saved(page)
  const cast = padOf(await keptKit(page), 'Oar, low, cast')
  expect(cast.bands.map(({ fromVelocity }) => fromVelocity)).toEqual([1, 33, 65, 96])
  await press(page, 'Undo')
  await saved(page)
  expect((await keptKit(page)).pads.some(({ own }) => own.name === 'Oar, low, cast')).toBe(false)
})
