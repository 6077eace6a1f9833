import { readFileSync } from 'node:fs'

import { expect, test } from '@playwright/test'
import { unzipSync } from 'fflate'

import { keptKit, nameKit, newKit, openDemo, openOwnDemo, pad, saved, standing, wavWithStrikes } from './helpers'

test('from opening the app to playing one’s own recorded hits takes few taps, all by touch', async ({ page }) => {
  await page.goto('/')
  let taps = 0
  const tap = async (name: string | RegExp) => {
    await page.getByRole('button', { name }).first().tap()
    taps++
  }
  await tap(/^New kit$/)
  await page.getByText('Practice microphone', { exact: true }).tap()
  taps++
  await tap(/^Record$/)
  await expect(page.getByText(/^([5-9]|\d\d) hits$/)).toBeVisible({ timeout: 25_000 })
  await tap('Stop and cut')
  await expect(page.getByRole('button', { name: /^Send [1-9]\d* hits to pads/ })).toBeEnabled()
  await tap(/^Send \d+ hits to pads/)
  await tap('Send to the Board')
  await expect(page.getByText('Open pad')).toBeVisible()
  taps++
  await expect(async () => {
    await page.locator('[data-pad]').first().tap() // again until its sound has been read
    await expect(page.getByText(/^band 1, turn \d+ sounded$/)).toBeVisible({ timeout: 3000 })
  }).toPass()
  expect(taps).toBeLessThanOrEqual(12)
  await saved(page)
})

test('one file goes to a chosen pad in two taps, and another beside it in three', async ({ page }) => {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).tap()
  await page.getByRole('button', { name: 'Add pad' }).tap()
  await page.getByRole('link', { name: 'Gather' }).tap()
  const bringIn = async (name: string, seconds: number) => {
    const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).tap()])
    await chooser.setFiles({ name: `${name}.wav`, mimeType: 'audio/wav', buffer: wavWithStrikes(1, [seconds]) })
    await page.getByRole('button', { name: 'Put on a pad' }).tap() // 1
  }
  const files = async () => Object.values((await keptKit(page)).audio).map(({ name }) => name).sort() // prettier-ignore
  await bringIn('thole pin', 0.1)
  await page.getByRole('button', { name: 'Put it on Pad 1' }).tap() // 2
  await expect(page.getByText('“thole pin” is on Pad 1.')).toBeVisible()
  await expect.poll(async () => (await keptKit(page)).pads[0].own.name).toBe('thole pin')
  await page.getByRole('button', { name: 'Put the report away' }).tap()
  await bringIn('rowlock', 0.2)
  await page.getByRole('radio', { name: 'As a further ray' }).tap() // 2
  await page.getByRole('button', { name: 'Put it on thole pin' }).tap() // 3
  await expect.poll(async () => (await keptKit(page)).pads[0].rays.length).toBe(2)
  await expect.poll(files).toEqual(['rowlock.wav', 'thole pin.wav'])
})

test('two fingers strike two pads, softer near the centre and louder at the rim', async ({ page }) => {
  await openDemo(page, 'board')
  const cdp = await page.context().newCDPSession(page)
  // Where a pad is now: what comes into the page later may move it.
  const point = async (name: string, share: number, id: number) => {
    const box = (await pad(page, name).boundingBox())!
    return { x: box.x + box.width / 2 + (share * box.width) / 2, y: box.y + box.height / 2, id }
  }
  // Each is struck again until its sound has come from the server.
  await expect(async () => {
    await cdp.send('Input.dispatchTouchEvent', {
      type: 'touchStart',
      touchPoints: [await point('Hull thump', 0.05, 1), await point('Tarp slap', 0.95, 2)],
    })
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
    await expect(page.getByText('band 5, turn', { exact: false })).toBeVisible({ timeout: 3000 }) // the slap, struck at its rim
  }).toPass()
  await expect(async () => {
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [await point('Hull thump', 0.05, 3)] })
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
    await expect(page.getByText('band 1, turn', { exact: false })).toBeVisible({ timeout: 3000 })
  }).toPass()
})

test('pads change places by touch, and a pad that makes no sound says why', async ({ page }) => {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).tap()
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Add pad' }).tap()
  await page.getByRole('button', { name: 'More', exact: true }).tap()
  await page.getByRole('button', { name: 'Arrange pads' }).tap()
  await page.getByRole('button', { name: 'Take up Pad 1' }).tap()
  await page.getByRole('button', { name: 'Swap with Pad 3' }).tap()
  const order = () => page.locator('[data-pad]').evaluateAll((faces) => faces.map((face) => face.getAttribute('aria-label')))
  await expect.poll(order).toEqual(['Pad 3, key Z', 'Pad 2, key X', 'Pad 1, key C'])
  await page.getByRole('button', { name: 'Done' }).tap()
  await page.getByRole('button', { name: 'Ties', exact: true }).tap()
  await page.getByRole('button', { name: 'Tie from Pad 3: silences' }).tap()
  await page.getByRole('button', { name: 'Tie Pad 3 to Pad 1: silences' }).tap()
  await page.getByRole('button', { name: '1 tie: see and set' }).tap()
  await page.getByRole('button', { name: 'A strike on Pad 3 silences Pad 1 within 8 ms.' }).tap()
  await page.getByRole('button', { name: 'Remove this tie' }).tap()
  await expect(page.getByText('No ties yet').first()).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).tap()
  await page.getByRole('button', { name: 'Done' }).tap()
  await pad(page, 'Pad 2').tap()
  await page.getByRole('button', { name: 'Strike hard' }).tap()
  await expect(page.getByText('silent: nothing is on it')).toBeVisible()
  await page.getByRole('button', { name: 'Open pad' }).tap()
  await page.getByRole('radio', { name: 'Playing' }).tap()
  await page.getByRole('textbox', { name: 'Notes that strike it' }).fill('C2..D2, 99, H1')
  await page.getByRole('textbox', { name: 'Notes that strike it' }).press('Enter')
  await expect(page.getByText('“H1” is no note.', { exact: false })).toBeVisible()
  await page.getByRole('textbox', { name: 'Notes that strike it' }).fill('C2..D2, 99')
  await page.getByRole('textbox', { name: 'Notes that strike it' }).press('Enter')
  await expect(page.getByText('36: C2, 65.4 Hz', { exact: false })).toBeVisible()
})

test('a drum has its spots on one face: a finger strikes the one it touches, which borrows until it has sounds of its own', async ({
  page,
}) => {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).tap()
  await page.getByRole('button', { name: 'Add pad' }).tap()
  await page.getByRole('link', { name: 'Gather' }).tap()
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).tap()])
  await chooser.setFiles({ name: 'gunwale.wav', mimeType: 'audio/wav', buffer: wavWithStrikes(0.43, [0.02]) })
  await page.getByRole('button', { name: 'Put on a pad' }).tap()
  await page.getByRole('button', { name: 'Put it on Pad 1' }).tap()
  await page.getByRole('link', { name: 'Board' }).tap()
  await page.getByRole('button', { name: 'Open pad' }).tap()
  await page.getByRole('radio', { name: 'Drum', exact: true }).tap()
  for (const turn of [1, 2]) {
    await page.getByRole('radiogroup', { name: 'Add a spot' }).getByRole('radio').first().tap()
    await expect(page.getByRole('listitem')).toHaveCount(turn + 1)
  }
  await page.getByRole('button', { name: 'Close' }).last().tap()
  const face = page.getByRole('group', { name: 'gunwale, 3 spots' })
  const second = face.getByRole('button').nth(1)
  await expect(second).toHaveAccessibleName(/empty: sounds as gunwale$/)
  expect((await second.boundingBox())!.width).toBeGreaterThanOrEqual(44)
  await expect(async () => {
    await second.tap()
    await expect(page.getByText('band 1, turn 1 sounded')).toBeVisible({ timeout: 2000 })
  }).toPass()
  const { pads, ties } = await keptKit(page)
  expect(pads.slice(1).map(({ leansOn }) => leansOn)).toEqual([pads[0].id, pads[0].id])
  expect(ties).toMatchObject([{ kind: 'spots', spots: pads.map(({ id }) => ({ pad: id })) }])
  await page.getByRole('button', { name: 'Open pad' }).tap()
  await page.getByRole('radio', { name: 'Drum', exact: true }).tap()
  await page.getByRole('button', { name: 'Stand alone' }).tap()
  await expect.poll(async () => (await keptKit(page)).pads[1].leansOn).toBeUndefined()
  await saved(page)
})

test('a finger that slides outward repeats the pad, as loud as the ring it has come to, until it is lifted', async ({ page }) => {
  await openDemo(page, 'board')
  const cdp = await page.context().newCDPSession(page)
  const sounded = page.getByText(/band \d, turn \d+/)
  await expect(async () => {
    await pad(page, 'Hull thump').tap()
    await expect(sounded.first()).toBeVisible({ timeout: 2000 })
  }).toPass()
  const box = await standing(pad(page, 'Hull thump')) // once everything else is there
  const at = (share: number) => ({
    touchPoints: [{ x: box.x + box.width / 2 + (share * box.width) / 2, y: box.y + box.height / 2, id: 1 }],
  })
  const why = async () => {
    await page.getByRole('button', { name: /^Why did that sound/ }).tap()
    await expect.poll(() => page.getByText(/^Hull thump sounded/).count()).toBeGreaterThan(2)
    const told = await page.getByText(/^Hull thump sounded/).allTextContents()
    await page.getByRole('button', { name: 'Close' }).last().tap()
    return told
  }
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', ...at(0.1) })
  for (const share of [0.3, 0.5, 0.7, 0.9]) await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', ...at(share) })
  await expect(page.getByText('band 5, turn', { exact: false })).toBeVisible()
  // It goes on: another turn, without another touch.
  const said = (await page.getByText('band 5, turn', { exact: false }).textContent())! // prettier-ignore
  await expect(page.getByText('band 5, turn', { exact: false })).not.toHaveText(said)
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  await page.getByRole('button', { name: 'Ties', exact: true }).tap()
  await page.getByRole('button', { name: /see and set$/ }).tap()
  const told = await why()
  expect(await why()).toEqual(told) // nothing more was struck
})

test('two fingers walk like two feet: from one pool, and kept apart each from its own half', async ({ page }) => {
  await openOwnDemo(page, 'board')
  await pad(page, 'Hull thump').tap()
  await page.getByRole('button', { name: 'Open pad' }).tap()
  await page.getByRole('radio', { name: 'Drum', exact: true }).tap()
  await page.getByRole('button', { name: 'Two feet, for two fingers' }).tap()
  await expect(page.getByText('Left and right are on the face.', { exact: false })).toBeVisible()
  await page.getByRole('switch', { name: 'Left and right kept apart' }).tap()
  const { pads, ties } = await keptKit(page)
  const clipsOf = (one: (typeof pads)[number]) => one.bands.map(({ turns }) => turns.map(({ clips }) => JSON.stringify(clips)))
  const [left, right] = [pads[0], pads.find(({ leansOn }) => leansOn === pads[0].id)!].map(clipsOf)
  for (const [band, turns] of left.entries()) {
    expect(turns.length).toBeGreaterThan(0)
    expect(right[band].length).toBeGreaterThan(0)
    for (const turn of turns) expect(right[band]).not.toContain(turn)
  }
  expect(ties.some(({ kind }) => kind === 'spots')).toBe(true)
  await page.getByRole('button', { name: 'Close' }).last().tap()
  const feet = page.getByRole('group', { name: /^Hull thump, 2 spots/ }).getByRole('button')
  await expect(feet).toHaveCount(2)
  const cdp = await page.context().newCDPSession(page)
  const middles = await Promise.all([0, 1].map(async (one) => (await feet.nth(one).boundingBox())!))
  const points = middles.map(({ x, y, width, height }, id) => ({ x: x + width / 2, y: y + height / 2, id }))
  await expect(async () => {
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: points })
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
    await expect(page.getByText(/band \d, turn \d+ sounded/).first()).toBeVisible({ timeout: 2000 })
  }).toPass()
  await saved(page)
})

test('an envelope is drawn by touch, undone, redone and still there after a reload', async ({ page }) => {
  await openDemo(page, 'shape')
  await pad(page, 'Oar, high').tap()
  await page.getByRole('radio', { name: 'Envelopes' }).tap()
  await page.getByRole('button', { name: 'Shape the level' }).tap()
  await expect(page.getByText('Point 2')).toBeVisible()
  const time = page.getByLabel('Time of the point, ms')
  await time.fill('33.5')
  await time.press('Enter')
  await expect(time).toHaveValue('33.5')
  await page.getByRole('button', { name: 'Undo' }).tap()
  await expect(time).not.toHaveValue('33.5')
  await page.getByRole('button', { name: 'Redo' }).tap()
  await expect(time).toHaveValue('33.5')
  await saved(page)
  await page.reload()
  await pad(page, 'Oar, high').tap()
  await page.getByRole('radio', { name: 'Envelopes' }).tap()
  await expect(page.getByRole('button', { name: 'Remove envelope' })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).tap() // what was done before the reload is taken back all the same
  await page.getByRole('button', { name: 'Undo' }).tap()
  await expect(page.getByRole('button', { name: 'Shape the level' })).toBeVisible()
  await page.getByRole('button', { name: 'Redo' }).tap()
  await expect(page.getByRole('button', { name: 'Remove envelope' })).toBeVisible()
  await page.getByRole('button', { name: 'Remove envelope' }).tap()
})

test('a kit is made, renamed, duplicated and deleted, and a deletion is undone', async ({ page }) => {
  await newKit(page)
  await nameKit(page, 'Kit of a boatyard')
  await page.getByRole('button', { name: 'All kits' }).first().tap()
  await page.getByRole('button', { name: 'More for Kit of a boatyard' }).tap()
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Slipway')
  await page.getByRole('textbox', { name: 'Name', exact: true }).press('Enter')
  await page.getByRole('button', { name: 'Duplicate' }).tap()
  await expect(page.getByRole('button', { name: 'Open Slipway copy' })).toBeVisible()
  await page.getByRole('button', { name: 'More for Slipway copy' }).tap()
  await page.getByRole('button', { name: 'Delete' }).tap()
  await expect(page.getByRole('button', { name: 'Open Slipway copy' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).tap()
  await expect(page.getByRole('button', { name: 'Open Slipway copy' })).toBeVisible()
})

test('the kit leaves as a bundle and opens again as it was', async ({ page }) => {
  await openDemo(page, 'ship')
  await page.getByText('Bundle', { exact: true }).tap()
  const save = page.getByRole('button', { name: /^Save .* zip/ })
  await expect(save).toBeEnabled({ timeout: 60_000 })
  const [download] = await Promise.all([page.waitForEvent('download'), save.tap()])
  const path = await download.path()
  expect(readFileSync(path).length).toBeGreaterThan(5_000_000)
  const held = Object.keys(unzipSync(new Uint8Array(readFileSync(path))))
  expect(held).toContain('README.txt')
  await expect(page.getByText(`${held.length} files`, { exact: true })).toBeVisible() // what is listed is what is in it
  await page.goto('/')
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Open bundle' }).tap()])
  await chooser.setFiles({ name: 'Low Tide.heliaster.zip', mimeType: 'application/zip', buffer: readFileSync(path) })
  await expect(page.getByText('“Low Tide 2” is open, as it was.')).toBeVisible({ timeout: 60_000 })
  await expect(pad(page, 'Buoy bell')).toBeVisible()
})

test('the microphone records as it is, and its hits are cut', async ({ page }) => {
  await page.addInitScript(() => {
    const original = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices)
    navigator.mediaDevices.getUserMedia = async (constraints) => {
      const stream = await original(constraints)
      const { echoCancellation, noiseSuppression, autoGainControl } = stream.getAudioTracks()[0].getSettings()
      Object.assign(window, { heard: { echoCancellation, noiseSuppression, autoGainControl } })
      return stream
    }
  })
  await newKit(page)
  await page.getByRole('button', { name: 'Record', exact: true }).tap()
  await expect(page.getByText(/^([2-9]|\d\d) hits$/)).toBeVisible({ timeout: 25_000 }) // the browser's own test tone, once a second
  expect(await page.evaluate(() => (window as unknown as { heard: unknown }).heard)).toEqual({
    echoCancellation: false,
    noiseSuppression: false,
    autoGainControl: false,
  })
  await page.getByRole('button', { name: 'Stop and cut' }).tap()
  await expect(page.getByRole('button', { name: /^Send ([2-9]|\d\d+) hits to pads/ })).toBeEnabled()
})

test('what is said above a sheet on a short screen leaves the head of the sheet in reach', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 420 })
  await openOwnDemo(page, 'board')
  await pad(page, 'Hull thump').click()
  await page.getByRole('button', { name: 'Open pad' }).click()
  await page.getByRole('radio', { name: 'Playing' }).click()
  const note = page.getByRole('textbox', { name: /note/i }).first()
  await note.fill('300')
  await note.press('Enter')
  const said = page.getByText(/^Notes are whole numbers/)
  const close = page.getByRole('button', { name: 'Close' })
  const bottomOf = async () => (await said.boundingBox())!.y + (await said.boundingBox())!.height
  await expect.poll(async () => (await close.boundingBox())!.y - (await bottomOf())).toBeGreaterThan(8)
  await close.tap()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await saved(page)
})
