import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'

import { keptKit, openOwnDemo, saved } from './helpers'

const ROW = 44
const RULER = 22

/** Where a step of a string is on the screen. */
async function placeOf(page: Page, row: number, step: number): Promise<{ x: number; y: number }> {
  const box = (await page.getByTestId('strings').boundingBox())!
  const wide = (box.width - 22) / 16
  return { x: box.x + 11 + step * wide, y: box.y + RULER + row * ROW + ROW / 2 }
}

test('by touch: a tap makes a bead, a drag lifts it, off its string it is gone; eight strings and more stay in sight beside its panel', async ({
  page,
}) => {
  await openOwnDemo(page, 'groove')
  const before = await keptKit(page)
  const oar = before.pads.find(({ own }) => own.name === 'Oar, low')!
  const beads = async () => (await keptKit(page)).grooves[0]!.strings.find(({ padId }) => padId === oar.id)?.beads ?? []
  const place = await placeOf(page, 4, 6)
  await page.touchscreen.tap(place.x, place.y)
  const panel = page.getByRole('region', { name: 'Chosen beads' })
  await expect(panel.getByText('Oar, low, 2 and 2/4')).toBeVisible()
  const [strings, below] = [(await page.getByTestId('strings').boundingBox())!, (await panel.boundingBox())!]
  expect(strings.y + strings.height).toBeLessThanOrEqual(below.y + 1)
  expect(Math.floor((strings.height - RULER) / ROW)).toBeGreaterThanOrEqual(8)
  const touch = await page.context().newCDPSession(page)
  const drag = async (byY: number) => {
    const { x, y } = place
    await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y }] })
    for (let step = 1; step <= 6; step++) await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [{ x, y: y + (byY * step) / 6 }] }) // prettier-ignore
    await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  }
  await drag(30)
  const [lower] = await beads()
  expect(lower!.velocity).toBeLessThan(70)
  await drag(110)
  expect(await beads()).toEqual([])
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: /^Undo/ }).first().tap()
  await saved(page)
  expect((await keptKit(page)).grooves).toEqual(before.grooves)
})
