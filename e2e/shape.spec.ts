import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'

import { keptKit, newKit, saved, wavWithStrikes } from './helpers'

async function onePad(page: Page, name: string): Promise<void> {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles(
    [1, 2].map((take) => ({ name: `${name} ${take}.wav`, mimeType: 'audio/wav', buffer: wavWithStrikes(0.4, [0.02 * take]) })),
  )
  await page.getByRole('button', { name: 'Put on pads' }).click()
  await page.getByRole('button', { name: /^Put all 2 / }).click()
}

const part = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'What shapes it' }).getByRole('radio', { name, exact: true }).click()

/** A finger's way from the middle of something, in px to the right and upwards. */
async function drag(page: Page, name: string, byX: number, byY: number): Promise<void> {
  const box = (await page.getByRole('slider', { name, exact: true }).boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + byX, y - byY, { steps: 4 })
  await page.mouse.up()
}

const type = async (page: Page, field: string, text: string) => {
  const box = page.getByLabel(field, { exact: true })
  await box.fill(text)
  await box.press('Enter')
}

test('filters, drive, their order and a loop are set, and there again after a reload', async ({ page }) => {
  await onePad(page, 'thwart')
  await page.getByRole('link', { name: 'Shape' }).click()
  const chosen = (group: string, name: string) => page.getByRole('radiogroup', { name: group, exact: true }).getByRole('radio', { name, exact: true }) // prettier-ignore
  await part(page, 'Filters')
  await chosen('Filter', 'Low pass').click()
  await drag(page, 'Filter, on the spectrum', 40, 20)
  const cutoff = page.getByLabel('Cutoff, Hz', { exact: true })
  await expect.poll(async () => Number(await cutoff.inputValue())).toBeGreaterThan(2500)
  await expect(page.getByLabel('Resonance, at the cutoff, dB')).not.toHaveValue('-3.0')
  await type(page, 'Cutoff, Hz', '700')
  await chosen('Second filter', 'Peak').click()
  await part(page, 'Character')
  await type(page, 'Drive, dB', '12')
  await chosen('Drive: character', 'Folded').click()
  await part(page, 'Filters')
  await page.getByRole('button', { name: 'Before drive' }).click()
  const order = page.getByRole('list', { name: 'In this order' }).getByRole('listitem')
  await expect(order).toContainText(['Filter', 'Drive', 'Second filter'])

  await page.getByRole('link', { name: 'Board' }).click()
  await page.getByRole('button', { name: 'Hear band 1, turn 1', exact: true }).click()
  await chosen('The clip', 'Goes round').click()
  await type(page, 'Goes round from, ms', '100')
  await saved(page)
  await page.reload()

  await expect(page.getByText('In this order')).toHaveCount(0)
  await page.getByRole('link', { name: 'Shape' }).click()
  await part(page, 'Filters')
  await expect(chosen('Filter', 'Low pass')).toBeChecked()
  await expect(page.getByLabel('Cutoff, Hz', { exact: true })).toHaveValue('700')
  await expect(chosen('Second filter', 'Peak')).toBeChecked()
  await expect(order).toContainText(['Filter', 'Drive', 'Second filter'])
  await part(page, 'Character')
  await expect(page.getByLabel('Drive, dB', { exact: true })).toHaveValue('12.0')
  await expect(chosen('Drive: character', 'Folded')).toBeChecked()
  const { pads } = await keptKit(page)
  const { values, choices, order: kept } = pads[0].own
  expect(choices).toMatchObject({ filter1Kind: 'lowPass', filter2Kind: 'peak', driveKind: 'folded' })
  expect(values).toMatchObject({ filter1CutoffHz: 700, filter2GainDb: 6, driveDb: 12 })
  expect(values!.driveLevelDb).toBeLessThan(0) // what it adds is taken back
  expect(kept!.indexOf('filter1')).toBeLessThan(kept!.indexOf('drive'))
  const [clip] = Object.values(pads[0].bands[0].turns[0].clips)
  expect(clip).toMatchObject({ loop: { kind: 'forward', startFrame: 4800 } })
})

test('a noise becomes a kick by six touches on the first screen, is heard as it was, and each touch is one step back', async ({ page }) => {
  await onePad(page, 'fairlead')
  await page.getByRole('link', { name: 'Shape' }).click()
  await expect(page.getByRole('slider', { name: 'End', exact: true })).toBeVisible()
  await drag(page, 'Decay', -30, 0)
  await drag(page, 'Tune', -40, 0)
  await drag(page, 'Pitch fall', -10, 60)
  await drag(page, 'Filter', -120, 20)
  await drag(page, 'Drive', 70, 0)
  await drag(page, 'Start', 30, 0)
  await saved(page)
  const { values, envelopes, choices } = (await keptKit(page)).pads[0].own
  expect(choices!.filter1Kind).toBe('lowPass')
  expect(values!.tuneCents).toBeCloseTo(-1200, -2)
  expect(values!.filter1CutoffHz).toBeLessThan(4000)
  expect(values!.driveDb).toBeGreaterThan(5)
  expect(values!.startSeconds).toBeGreaterThan(0.01)
  expect(envelopes!.level!.points).toHaveLength(2)
  expect(envelopes!.pitch!.points[0].value).toBeGreaterThan(1000)
  await page.getByRole('button', { name: 'Hear it as it was when you came, as loud as now' }).click()
  const undo = page.getByRole('button', { name: 'Undo', exact: true })
  for (let i = 0; i < 6; i++) await undo.click()
  await saved(page)
  const { pads } = await keptKit(page)
  expect(pads[0].own.envelopes?.pitch?.points ?? []).toEqual([])
  expect(pads[0].own.values?.startSeconds ?? 0).toBe(0)
})

test('an envelope is drawn by hand: several points at once, a bent way, the first 20 ms; its level follows another pad', async ({
  page,
}) => {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  const file = (name: string, at: number[]) => ({ name: `${name}.wav`, mimeType: 'audio/wav', buffer: wavWithStrikes(0.4, at) })
  await chooser.setFiles([file('cleat', [0.01]), file('samson post', [0.02])])
  await page.getByRole('button', { name: 'Put on pads' }).click()
  await page.getByRole('button', { name: /^Put all 2 / }).click()
  await page.getByRole('link', { name: 'Shape' }).click()
  await part(page, 'Envelopes')
  await page.getByRole('button', { name: 'Stops at once' }).click()
  const point = (place: number) => page.getByRole('slider', { name: `Point ${place} of 3`, exact: true })
  await expect(point(3)).toBeVisible()
  const middleOf = async (place: number) => {
    const box = (await point(place).boundingBox())!
    return [box.x + box.width / 2, box.y + box.height / 2] as const
  }
  // The chart is drawn anew for the envelope, and then stands still.
  await expect(page.getByText('Drawing the hit')).toHaveCount(0)
  let last = ''
  await expect.poll(async () => last === (last = String(await middleOf(3))), { intervals: [400] }).toBe(true)
  const chart = (await page.getByRole('group', { name: /^Tide chart/ }).boundingBox())!
  // Over empty ground, round the last two points.
  const [second, third] = [await middleOf(2), await middleOf(3)]
  const isDown = chart.height > chart.width
  const from = isDown ? [chart.x + chart.width - 4, second[1] - 30] : [second[0] - 30, chart.y + 4]
  const to = isDown ? [third[0] - 8, third[1] + 30] : [third[0] + 30, third[1] + 8]
  await page.mouse.move(from[0]!, from[1]!)
  await page.mouse.down()
  await page.mouse.move(to[0]!, to[1]!, { steps: 5 })
  await page.mouse.up()
  await expect(page.getByText('2 points chosen')).toBeVisible()
  await type(page, 'Longer or shorter, %', '50')
  const points = async () => (await keptKit(page)).pads.find(({ own }) => own.envelopes?.level)!.own.envelopes!.level!.points
  await saved(page)
  const before = await points()
  await point(2).focus()
  await page.keyboard.press(isDown ? 'ArrowDown' : 'ArrowRight')
  await saved(page)
  expect((await points())[1].seconds).toBeCloseTo(before[1].seconds + 0.001, 4)
  await page.getByRole('checkbox', { name: 'First 20 ms' }).click()
  await expect(page.getByRole('group', { name: 'Tide chart, 0.02 s; points can be typed below' })).toBeVisible()
  await page.getByRole('checkbox', { name: 'First 20 ms' }).click()
  await page.getByRole('button', { name: 'Follow a hit' }).click()
  await page.getByRole('button', { name: 'Follow', exact: true }).click()
  await expect(page.getByText(/^The level follows /)).toBeVisible()
  await saved(page)
  expect((await points()).length).toBeGreaterThan(2)
})
