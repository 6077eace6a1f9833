import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'

import { narrow, newKit, saved, storedSource, wavWithStrikes } from './helpers'

async function onTheBench(page: Page, name: string, strikes: readonly number[], seconds = 3): Promise<void> {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles([{ name: `${name}.wav`, mimeType: 'audio/wav', buffer: wavWithStrikes(seconds, strikes) }])
  await narrow(page, name)
  await page.getByRole('button', { name: `Cut ${name}`, exact: true }).click()
  await expect(page.getByRole('button', { name: `Send ${strikes.length} hits to pads` })).toBeEnabled()
}

const rows = (page: Page) => page.getByRole('button', { name: /^Hear / }).filter({ hasText: ' s, ' })

test('hits are sorted, named by a pattern, repaired all at once, and each is one step back', async ({ page }) => {
  await onTheBench(page, 'jetty', [0.3, 0.8, 1.3, 1.8, 2.3])
  await page.getByRole('button', { name: 'Order of the list: Time' }).click()
  await page.getByRole('radio', { name: 'Loudness', exact: true }).click()
  await page.getByRole('switch', { name: 'High to low' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByText(/-\d+\.\d LUFS/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Name hits' }).click()
  await page.getByRole('radio', { name: 'By a pattern' }).click()
  await page.getByRole('textbox', { name: 'Pattern' }).fill('plank {nn}')
  await page.getByRole('button', { name: 'Give these 5 names' }).click()
  await expect(page.getByText('plank 05')).toBeVisible()
  await page.getByRole('button', { name: 'Repair' }).click()
  await page.getByRole('switch', { name: 'Reverse' }).click()
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(page.getByText('repaired').first()).toBeVisible()
  const clips = async () => (await storedSource(page, 'jetty')).markers.map(({ name, clip }) => [name, clip?.reverse])
  await saved(page)
  expect((await clips()).sort()).toEqual([1, 2, 3, 4, 5].map((n) => [`plank 0${n}`, true]))
  await page.keyboard.press('Control+z')
  await expect(page.getByText('repaired')).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(page.getByText('plank 05')).toHaveCount(0)
})

test('a recording is cut in equal parts and on beats, and the strikes come back', async ({ page }) => {
  await onTheBench(page, 'mooring 120bpm', [0.3, 0.8, 1.3, 1.8])
  await page.getByRole('button', { name: 'How to cut' }).click()
  await page.getByRole('radio', { name: 'In equal parts' }).click()
  await page.getByRole('button', { name: 'Half as many' }).click()
  await expect(page.getByText('4 hits', { exact: true })).toBeVisible()
  await page.getByRole('radio', { name: 'On beats' }).click()
  await expect(page.getByText('Its name says 120 beats a minute.')).toBeVisible()
  await expect(page.getByText('6 hits', { exact: true })).toBeVisible() // from the first strike at 0.3 s, each half second of 3
  await page.getByRole('radio', { name: 'By strikes' }).click()
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(page.getByRole('button', { name: 'Send 4 hits to pads' })).toBeEnabled()
})

test('by loudness shows every hit before it moves; a hit moved later is brought to its pad when that is wanted', async ({ page }) => {
  await onTheBench(page, 'boathouse', [0.35, 0.85, 1.35, 1.85, 2.35])
  await page.getByRole('button', { name: 'Send 5 hits to pads' }).click()
  await page.getByRole('radio', { name: 'One pad, by loudness' }).click()
  await expect(page.getByRole('img', { name: '5 hits on loudness against velocity, 1 bands' })).toBeVisible()
  await page.getByRole('slider', { name: 'Bands' }).press('ArrowRight')
  await expect(page.getByRole('img', { name: '5 hits on loudness against velocity, 2 bands' })).toBeVisible()
  await page.getByRole('button', { name: 'Send to the Board' }).click()
  await page.getByRole('link', { name: 'Cut' }).click()
  await rows(page).first().click()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByText('1 pad plays a hit as it was before')).toBeVisible()
  await page.getByRole('button', { name: 'Update it' }).click()
  await expect(page.getByText('1 pad plays a hit as it was before')).toHaveCount(0)
})

test('a hit that is moved by keys or dragged by its flag stays one hit, and goes on from where it is', async ({ page }) => {
  await onTheBench(page, 'grapnel', [0.4, 1.2, 2.0])
  const moved = async () => {
    await saved(page)
    return (await storedSource(page, 'grapnel')).markers.map(({ frame }) => frame)
  }
  await rows(page).nth(1).click()
  await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(moved).toHaveLength(1)
  const [first] = await moved()
  for (let i = 0; i < 30; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(moved).toEqual([first + 30 * 48])
  const wave = page.getByLabel(/^Waveform, \d/)
  const box = (await wave.boundingBox())!
  const xOf = (frame: number) => box.x + (frame / (3 * 48000)) * box.width
  for (let drag = 1; drag <= 3; drag++) {
    const [frame] = await moved()
    await page.mouse.move(xOf(frame), box.y + 10)
    await page.mouse.down()
    await page.mouse.move(xOf(frame) + 9, box.y + 10)
    await page.mouse.move(xOf(frame) + 14, box.y + 10)
    await page.mouse.up()
    await expect.poll(async () => (await moved())[0]).toBeGreaterThan(frame)
    expect(await moved()).toHaveLength(1)
    await expect(page.getByText('3 hits', { exact: true })).toBeVisible()
  }
})

test('a passage is marked, made a hit that keeps its length when moved, and written out as a file of its own', async ({ page }) => {
  await onTheBench(page, 'breakwater', [0.4, 1.4, 2.4])
  const wave = page.getByLabel(/^Waveform, \d/)
  const box = (await wave.boundingBox())!
  const at = (seconds: number) => box.x + (seconds / 3) * box.width
  const y = box.y + box.height * 0.6
  await page.mouse.move(at(0.7), y)
  await page.keyboard.down('Shift')
  await page.mouse.down()
  await page.mouse.move(at(0.9), y)
  await page.mouse.move(at(1.0), y)
  await page.mouse.up()
  await page.keyboard.up('Shift')
  await page.getByRole('button', { name: 'Make a hit' }).click()
  await expect(page.getByText('4 hits', { exact: true })).toBeVisible()
  const window = async () => {
    await saved(page)
    const marker = (await storedSource(page, 'breakwater')).markers.find(({ origin }) => origin === 'hand')!
    return [marker.frame, marker.endFrame!] as const
  }
  const [start, end] = await window()
  expect(end - start).toBeGreaterThan(0.28 * 48000)
  expect(end - start).toBeLessThan(0.32 * 48000)
  await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(window).toEqual([start + 48, end + 48])
  await page.mouse.move(at((end + 48) / 48000), box.y + box.height - 12) // the foot of its end
  await page.mouse.down()
  await page.mouse.move(at(1.2), box.y + box.height - 12)
  await page.mouse.up()
  await expect.poll(async () => (await window())[1]).toBeGreaterThan(1.17 * 48000)
  await page.getByRole('button', { name: 'Repair' }).click()
  await page.getByRole('switch', { name: 'Reverse' }).click()
  await page.getByRole('button', { name: 'Write it out as a new file' }).click()
  await expect(page.getByText('One new file is on the list in Gather.')).toBeVisible()
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(page.getByRole('button', { name: /^Cut breakwater / })).toBeVisible()
})

test('the way of cutting chosen last begins the next recording, and a start kept from a pad settles new ones', async ({ page }) => {
  await onTheBench(page, 'fender', [0.5, 1.5])
  await page.getByRole('button', { name: 'How to cut' }).click()
  await page.getByRole('radio', { name: 'In equal parts' }).click()
  await page.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('link', { name: 'Gather' }).click()
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles([{ name: 'cleat.wav', mimeType: 'audio/wav', buffer: wavWithStrikes(3, [0.6, 1.1]) }])
  await narrow(page, 'cleat')
  await page.getByRole('button', { name: 'Cut cleat', exact: true }).click()
  await page.getByRole('button', { name: 'Send 8 hits to pads' }).click()
  await page.getByRole('button', { name: 'Send to the Board' }).click()
  await page.getByRole('radio', { name: 'Playing', exact: true }).click()
  await page.getByRole('radio', { name: 'Hold', exact: true }).click()
  await page.getByRole('radio', { name: 'Level', exact: true }).click()
  await page.getByRole('button', { name: 'Keep these settings as a start' }).click()
  await page.getByLabel('Name of the start').fill('held')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.getByRole('link', { name: 'Cut' }).click()
  await page.getByRole('button', { name: 'Send 8 hits to pads' }).click()
  await page.getByRole('radio', { name: 'held' }).click()
  await page.getByRole('button', { name: 'Send to the Board' }).click()
  await page.getByRole('radio', { name: 'Playing', exact: true }).click()
  await expect(page.getByRole('radio', { name: 'Hold', exact: true })).toBeChecked()
})
