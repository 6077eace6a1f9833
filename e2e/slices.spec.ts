import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'
import type { Clip, Kit } from '@heliaster/core/kit'

import { fills, keptKit, openRecording, pad, saved } from './helpers'

const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: typeof name === 'string' }).first().click() // prettier-ignore
const choose = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click()

async function openSlices(page: Page, name: string): Promise<void> {
  await openRecording(page, name, 'shape')
  await pad(page, name).click()
  await choose(page, 'Slices')
  await expect(page.getByText('A loop, or hits in one recording?')).toBeVisible()
}

/** A drag over the wave, by shares of its width and height. */
async function drag(page: Page, ...points: readonly (readonly [number, number])[]): Promise<void> {
  const wave = page.getByTestId('slices')
  await wave.scrollIntoViewIfNeeded()
  const box = (await wave.boundingBox())!
  const at = ([x, y]: readonly [number, number]) => [box.x + 10 + x * (box.width - 20), box.y + y * box.height] as const
  await page.mouse.move(...at(points[0]!))
  await page.mouse.down()
  for (const point of points.slice(1)) await page.mouse.move(...at(point), { steps: 8 })
  await page.mouse.up()
}

const clipIn = (kit: Kit, name: string) => {
  const { bands } = kit.pads.find(({ own }) => own.name === name)!
  return bands
    .flatMap(({ turns }) => turns.flatMap(({ clips }) => Object.values(clips) as Clip[]))
    .find(({ slices }) => slices !== undefined)
}
const slicesIn = async (page: Page, name: string) => clipIn(await keptKit(page), name)?.slices

test('a clip is cut on beats; what is drawn is sent to a room by slices alone, heard in the mix, and undone step by step', async ({
  page,
}) => {
  await openSlices(page, 'Buoy bell')
  await press(page, 'On quarters')
  await press(page, 'Make a room to send to')
  await drag(page, [0.01, 0.25], [0.3, 0.25])
  await saved(page)
  const drawn = (await slicesIn(page, 'Buoy bell'))!
  const room = (await keptKit(page)).buses.at(-1)!
  const sent = drawn.map(({ sends }) => sends?.[room.id]?.gainDb)
  expect(sent.filter((gainDb) => gainDb !== undefined).length).toBeGreaterThan(3)
  expect(sent[0]).toBeCloseTo(0, 0)
  expect(sent.at(-1)).toBeUndefined()
  await page.getByRole('link', { name: 'Mix' }).or(page.getByRole('tab', { name: 'Mix' })).or(page.getByRole('button', { name: 'Mix', exact: true })).first().click() // prettier-ignore
  await press(page, 'Settings of Room')
  await expect(page.getByText('Sent here from Buoy bell.')).toBeVisible()
  await fills(page, 'Room', () => pad(page, 'Buoy bell').click())
  await press(page, 'Settings of Buoy bell')
  await press(page, 'Slice by slice')
  await expect(page.getByTestId('slices')).toBeVisible()
  for (let i = 0; i < 3; i++) await press(page, /^Undo/)
  await saved(page)
  expect(await slicesIn(page, 'Buoy bell')).toBeUndefined()
  expect((await keptKit(page)).buses).toHaveLength(0)
})

test('a stretch is chosen, moved by a drag, resized by its edge and laid down again; slices are cut where one taps', async ({ page }) => {
  await openSlices(page, 'Buoy bell')
  await press(page, 'On quarters')
  await expect(page.getByText(/^Slice 1 of \d+$/)).toBeVisible()
  const count = Number(/of (\d+)/.exec(await page.getByText(/^Slice 1 of \d+$/).innerText())![1])
  expect(count).toBeGreaterThan(5)
  const middle = (place: number) => (place + 0.5) / count
  await drag(page, [middle(0), 0.5], [middle(1), 0.5])
  await choose(page, 'Choose a stretch')
  await drag(page, [middle(0), 0.5], [middle(1), 0.5])
  await expect(page.getByText(`Slices 1 to 2 of ${count}`)).toBeVisible()
  await drag(page, [1 / count, 0.5], [3 / count, 0.5])
  await expect(page.getByText(`Slices 3 to 4 of ${count}`)).toBeVisible()
  await saved(page)
  const setOnes = async () => ((await slicesIn(page, 'Buoy bell')) ?? []).flatMap(({ values }, i) => (values.gainDb === undefined ? [] : [i])) // prettier-ignore
  expect(await setOnes()).toEqual([2, 3])
  await drag(page, [4 / count, 0.5], [middle(4), 0.5])
  await expect.poll(setOnes).toEqual([2, 3, 4])
  await press(page, 'Copy')
  await choose(page, 'Cut slices')
  await drag(page, [middle(0), 0.5])
  await expect(page.getByText(`Slice 2 of ${count + 1}`)).toBeVisible()
  await choose(page, 'Draw amounts')
  await press(page, 'Lay down')
  await expect.poll(setOnes).toEqual([1, 2, 3, 4, 5])
  await saved(page)
})

test('the strikes of a recording are found, and the same is set on all that sound alike at one tap', async ({ page }) => {
  await openSlices(page, 'Hull thump')
  await press(page, 'At its strikes')
  await expect(page.getByText('Slice 1 of 7')).toBeVisible()
  const wave = page.getByRole('slider', { name: 'Level of slices' })
  await wave.focus()
  await wave.press('ArrowRight')
  for (let i = 0; i < 6; i++) await wave.press('ArrowDown')
  const alike = page.getByRole('button', { name: /^The same on all \d+ that sound alike$/ })
  const count = Number(/all (\d+)/.exec((await alike.getAttribute('aria-label'))!)![1])
  expect(count).toBeGreaterThan(1)
  await alike.click()
  await saved(page)
  const levels = (await slicesIn(page, 'Hull thump'))!.map(({ values }) => values.gainDb)
  expect(levels.filter((level) => level === -3)).toHaveLength(count)
  expect(levels.length).toBeGreaterThan(count)
})
