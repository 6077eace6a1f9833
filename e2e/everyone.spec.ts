import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'

import { findings, focused, lostWords } from './everyone'
import { findKit, openDemo, openOwnDemo, openRecording, pad, saved } from './helpers'

type State = readonly [name: string, go: (page: Page) => Promise<unknown>]

/** Of what stands in words on a wide screen and behind More on a phone. */
const pressBehindMore = async (page: Page, name: string) => {
  if (!isWide(page)) await press(page, 'More')
  await press(page, name)
}
const press = (page: Page, name: string | RegExp) =>
  page
    .getByRole('button', { name, exact: typeof name === 'string' })
    .last()
    .click()
/** Opens a sheet by what stands behind More, whose own sheet goes before a script brings the other. */
const openFromMore = async (page: Page, name: string) => {
  await press(page, 'More')
  const menu = await page.getByRole('dialog').last().getAttribute('aria-label')
  await press(page, name)
  await expect(page.getByRole('dialog', { name: menu!, exact: true })).toHaveCount(0)
  await page.getByRole('dialog').waitFor()
}
const choose = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).first().click()
const isWide = (page: Page) => page.viewportSize()!.width > 800
const close = async (page: Page) => {
  await page.getByRole('dialog').first().waitFor() // what it is made of may still be on its way
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
}
/** Of sheets that lie over each other the one on top. */
const closeTop = (page: Page) => page.getByRole('dialog').last().getByRole('button', { name: 'Close', exact: true }).click()
const openPad = async (page: Page, name: string) => {
  await pad(page, name).click()
  if (!isWide(page)) await press(page, 'Open pad')
}
const openWalk = async (page: Page) => {
  await openDemo(page, 'gather')
  await page.getByRole('textbox', { name: 'Find by name' }).fill('walk around')
  await press(page, 'Cut Walk around the yard')
  await page
    .getByRole('button', { name: /^Hear (?!all)/ })
    .first()
    .waitFor()
}
const selectSounds = async (page: Page, search: string) => {
  await openDemo(page, 'gather')
  await page.getByRole('textbox', { name: 'Find by name' }).fill(search)
  await press(page, 'Select')
  await press(page, /^All \d+ shown$/)
}

/** Walks through the rooms: each step leads from the state before it. */
const walks: Record<string, readonly State[]> = {
  kits: [
    ['the list of kits', (page) => page.goto('/')],
    [
      'a kit’s menu',
      async (page) => (await findKit(page, 'Low Tide'), await press(page, 'More for Low Tide'), await page.getByRole('dialog').waitFor()),
    ],
    ['how saving stands', async (page) => (await close(page), await press(page, /^How saving stands/))],
    ['a kit like another', async (page) => (await close(page), await press(page, 'Like another kit, without its sounds'))],
    ['no such kit', async (page) => (await page.goto('/kit/no-such-kit/board'), await page.getByRole('main').waitFor())],
    ['no such page', async (page) => (await page.goto('/nowhere'), await page.getByRole('main').waitFor())],
  ],
  gather: [
    ['gather', (page) => openDemo(page, 'gather')],
    ['the list’s view', (page) => press(page, 'Order')],
    ['settings of recording', async (page) => (await close(page), await press(page, 'Settings of recording'))],
    ['a sound', async (page) => (await close(page), await press(page, /^More for /))],
    ['sounds like it', (page) => press(page, 'Sounds like this')],
    ['several sounds', (page) => selectSounds(page, 'keel d5')],
    ['their names', (page) => press(page, 'Rename')],
    ['their tags', async (page) => (await close(page), await press(page, 'Tag'))],
    ['deleting them', async (page) => (await close(page), await openFromMore(page, 'Delete'))],
    ['where they go', async (page) => (await close(page), await press(page, 'Put on pads'))],
    ['one pad for each', (page) => choose(page, 'Own pads')],
  ],
  recording: [
    [
      'a take',
      async (page) => (
        await openDemo(page, 'gather'),
        await page.getByText('Practice microphone', { exact: true }).click(),
        await press(page, 'Record'),
        await page.getByText(/^[2-9] hits$/).waitFor()
      ),
    ],
  ],
  cut: [
    ['cut without a sound', (page) => openDemo(page, 'cut')],
    ['cut', openWalk],
    ['how to cut', (page) => press(page, 'How to cut')],
    ['by a grid', (page) => choose(page, 'On beats')],
    ['names', async (page) => (await close(page), await pressBehindMore(page, 'Name hits'))],
    ['one name after the other', (page) => choose(page, 'One after another')],
    ['repairs', async (page) => (await close(page), await press(page, 'Repair'))],
    ['a hit', async (page) => (await close(page), await press(page, 'Next hit'), await press(page, 'Details'))],
    ['a passage', async (page) => (await close(page), await pressBehindMore(page, 'Mark passage'))],
    ['sending', (page) => press(page, /^Send \d+ hits to pads/)],
  ],
  board: [
    ['board', async (page) => (await openDemo(page, 'board'), await pad(page, 'Hull thump').click())],
    ['arranging', (page) => pressBehindMore(page, 'Arrange pads')],
    ['ties', async (page) => (await press(page, 'Done'), await press(page, 'Ties'))],
    ['ties in words', async (page) => (isWide(page) ? undefined : await press(page, /: see and set$/))],
    ['why it sounded', (page) => press(page, /^Why did that sound/)],
    [
      'several pads',
      async (page) => (
        await closeTop(page),
        isWide(page) ? undefined : await close(page),
        await press(page, 'Done'),
        await pressBehindMore(page, 'Several pads')
      ),
    ],
    ['a pad of another kit', async (page) => (await close(page), await openFromMore(page, 'A pad of another kit'))],
    ['a walk through every cell', async (page) => (await close(page), await openFromMore(page, 'Walk through every cell'))],
    [
      'an empty board',
      async (page) => (
        await page.goto('/'),
        await press(page, 'New kit'),
        await page.getByRole('link', { name: 'Board' }).click(),
        await page.getByText('No pads yet').waitFor()
      ),
    ],
  ],
  pad: [
    ['a pad', async (page) => (await openDemo(page, 'board'), await openPad(page, 'Hull thump'))],
    ['a cell', (page) => page.getByRole('button', { name: /^Hear band 3, turn 2/ }).click()],
    ['its playing', (page) => choose(page, 'Playing')],
    ['its level', (page) => choose(page, 'Level')],
    ['its rays', (page) => choose(page, '3 rays')],
    ['clips for it', async (page) => (await choose(page, 'Cells'), await press(page, 'Replace the clips'))],
    ['recording for it', async (page) => (await closeTop(page), await press(page, 'Record here'))],
  ],
  shape: [
    ['shape', async (page) => (await openDemo(page, 'shape'), await pad(page, 'Keel drop').click())],
    ...['Clip', 'Character', 'Filters', 'Dynamics', 'Envelopes'].map((name): State => [name, (page) => choose(page, name)]),
    ['pitch', (page) => choose(page, 'Pitch')],
    ['a hit to follow', (page) => press(page, 'Follow a hit')],
    ['matter', async (page) => (await openOwnDemo(page, 'shape'), await pad(page, 'Oar, low').click(), await choose(page, 'Matter'))],
    ['ringing and noise', (page) => press(page, 'Part it: ringing and noise')],
    ['a step', (page) => press(page, 'Slow down')],
    ['all of a step', (page) => press(page, 'All of it')],
    ['casting', (page) => press(page, 'Cast it on a new pad')],
    [
      'no slices',
      async (page) => (await openRecording(page, 'Buoy bell', 'shape'), await pad(page, 'Buoy bell').click(), await choose(page, 'Slices')),
    ],
    ['slices', (page) => press(page, 'On quarters')],
    ['a stretch of slices', async (page) => (await choose(page, 'Choose a stretch'), await page.getByRole('slider', { name: 'Level of slices' }).press('Shift+ArrowRight'))], // prettier-ignore
    ['cutting slices', (page) => choose(page, 'Cut slices')],
  ],
  hands: [
    ['inputs', (page) => openDemo(page, 'hands')],
    ['teaching a curve', (page) => press(page, 'Teach it')],
    ['keys', async (page) => (await press(page, 'Leave the curve as it is'), await choose(page, 'Keys'))],
    ['notes', (page) => choose(page, 'Notes')],
    ['usual notes', (page) => press(page, 'Usual notes for all pads')],
    ['tillers', async (page) => (await close(page), await choose(page, 'Tillers'))],
    ['practice', (page) => choose(page, 'Practice')],
    ['timing', (page) => choose(page, 'Timing')],
    ['the practice controller alone', (page) => page.goto('/practice')],
  ],
  groove: [
    ['groove', (page) => openOwnDemo(page, 'groove')],
    [
      'a bead',
      async (page) => (
        await page.getByTestId('strings').getByRole('group').focus(),
        await page.keyboard.press('ArrowRight'),
        await page.keyboard.press('Enter'),
        await page.getByRole('region', { name: 'Chosen beads' }).waitFor()
      ),
    ],
    ['a string', async (page) => (await page.keyboard.press('Escape'), await press(page, /^Oar, low: its string/))],
    ['all grooves', async (page) => (await close(page), await press(page, 'Slack water'))],
    ['recording', async (page) => (await close(page), await press(page, 'Record from pads'))],
    ['choosing by rule', async (page) => (await close(page), await pressBehindMore(page, 'Choose by rule'))],
    ['ready grooves', async (page) => (await close(page), await pressBehindMore(page, 'Ready grooves'))],
    ...['Bring a groove', 'From a rhythm of your own', 'A song beside it', 'MIDI file in or out'].map((name): State => [
      name,
      async (page) => (await close(page), await openFromMore(page, name)),
    ]),
  ],
  performances: [
    [
      'what was played',
      async (page) => (
        await openOwnDemo(page, 'board'),
        await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0),
        await page.keyboard.press('z'),
        await page.keyboard.press('x'),
        await press(page, 'More'),
        await press(page, 'What was played'),
        await page.getByRole('list', { name: 'Just played' }).waitFor()
      ),
    ],
    ['one that was kept', (page) => press(page, 'Keep')],
    ...['Grid', 'Pads', 'Picture', 'Take out'].map((name): State => [name, (page) => choose(page, name)]),
  ],
  mix: [
    ['mix', (page) => openOwnDemo(page, 'mix')],
    ['a pad in the mix', (page) => press(page, 'Settings of Hull thump')],
    ['the whole mix', async (page) => (isWide(page) ? undefined : await close(page), await press(page, 'Settings of The whole kit'))],
    ['what moves the mix', (page) => press(page, 'Let something move it')],
    ['all effects', (page) => press(page, /effect/)],
    ['an effect', (page) => press(page, 'Equaliser')],
    [
      'balance',
      async (page) => (
        isWide(page) ? undefined : await close(page),
        await pressBehindMore(page, isWide(page) ? 'Balance' : 'Balance: levels that would suit'),
        await page
          .getByText(/LUFS, suits at|Nothing is proposed/)
          .first()
          .waitFor()
      ),
    ],
    ['who hides whom', async (page) => (await close(page), await pressBehindMore(page, 'Who hides whom'))],
    ['outputs', async (page) => (await close(page), await pressBehindMore(page, isWide(page) ? 'Outputs' : 'Outputs of this device'))],
  ],
  ship: [
    ['ship', async (page) => (await openDemo(page, 'ship'), await page.getByText(/^\d+ files/).waitFor({ timeout: 0 }))],
    ['stems', (page) => choose(page, 'Stems')],
  ],
}

test.use({ actionTimeout: 30_000 })
test.describe.configure({ mode: 'parallel' })

/** Every state at every size takes six minutes; without this the wide screen looks at the places and the phone at their sheets too. */
const isThorough = process.env.HELIASTER_THOROUGH === '1'

for (const [name, states] of Object.entries(walks))
  test(`${name}: every state is open to everyone, and loads nothing foreign`, async ({ page, baseURL }) => {
    test.setTimeout(240_000)
    const foreign: string[] = []
    page.on('request', (request) => {
      if (!request.url().startsWith(baseURL!) && !/^(blob|data):/.test(request.url())) foreign.push(request.url())
    })
    for (const [state, go] of states) {
      await go(page)
      if (isWide(page) && !isThorough && (await page.getByRole('dialog').count()) > 0) continue
      expect.soft(await findings(page), state).toEqual([])
    }
    expect(foreign).toEqual([])
    expect(await page.evaluate(() => crossOriginIsolated)).toBe(true)
  })

test('at twice the size every place still has its words, nothing lies over another, and its end can be scrolled to', async ({ page }) => {
  test.skip(!isWide(page), 'the wide window made twice as large is 640 by 400')
  await page.setViewportSize({ width: 640, height: 400 })
  for (const place of ['gather', 'cut', 'board', 'shape', 'groove', 'hands', 'mix', 'performances', 'ship']) {
    await openDemo(page, place)
    const pads = page.getByRole('region', { name: 'Pads' })
    if (place !== 'board') {
      await pads.scrollIntoViewIfNeeded()
      await expect(pads).toBeInViewport({ ratio: 0.9 })
      const main = (await page.getByRole('main').boundingBox())!
      expect((await pads.boundingBox())!.y, place).toBeGreaterThanOrEqual(main.y + main.height - 1)
    }
    expect(await page.evaluate(lostWords), place).toEqual([])
  }
})

test('keys reach everything on the board, each shows that it is reached, and the order goes down the page', async ({ page }) => {
  test.skip(!isWide(page), 'keys are of the wide screen')
  await openDemo(page, 'board')
  await pad(page, 'Hull thump').waitFor()
  await page.getByRole('button', { name: 'Remove pad' }).waitFor() // the panel beside the pads is there as well
  const seen: { name: string; shows: boolean }[] = []
  for (let i = 0; i < 120; i++) {
    await page.keyboard.press('Tab')
    const at = await page.evaluate(focused)
    if (!at || (seen.length > 0 && at.name === seen[0].name)) break
    seen.push(at)
  }
  const unseen = seen.filter(({ shows }) => !shows).map(({ name }) => name)
  expect(unseen).toEqual([])
  const names = seen.map(({ name }) => name)
  for (const one of ['All kits', 'Board', 'Ties', 'Add pad', 'Remove pad']) expect(names).toContain(one)
  const padAt = (name: string) => names.findIndex((one) => one.startsWith(name))
  expect(padAt('Hull thump')).toBeGreaterThan(names.indexOf('Add pad')) // from the bar to the pads, in their order, to the panel beside them
  expect(padAt('Tarp slap')).toBe(padAt('Hull thump') + 1)
  expect(names.indexOf('Remove pad')).toBeGreaterThan(padAt('Keel drop'))
})

test('a phone’s keyboard makes the window low, and what is typed in keeps its focus and its words', async ({ page }) => {
  test.skip(isWide(page), 'the keyboard of a phone')
  await openDemo(page, 'gather')
  const find = page.getByRole('textbox', { name: 'Find by name' })
  await find.tap()
  await page.keyboard.type('walk')
  await page.setViewportSize({ width: 390, height: 500 })
  await page.keyboard.type(' around')
  await expect(find).toBeFocused()
  await expect(find).toHaveValue('walk around')
  await page.setViewportSize({ width: 390, height: 844 })
  await expect(find).toBeFocused()
})

test('a finger sets a slider sideways or by a tap, and scrolls past it without a change', async ({ page }) => {
  test.skip(isWide(page), 'fingers')
  await openDemo(page, 'board')
  await openPad(page, 'Hull thump')
  await choose(page, 'Level')
  const slider = page.getByRole('slider', { name: 'Level', exact: true })
  const value = async () => Number(await slider.getAttribute('aria-valuenow'))
  const stored = await value()
  const box = (await slider.boundingBox())!
  const cdp = await page.context().newCDPSession(page)
  const swipe = async (byX: number, byY: number) => {
    const [x, y] = [box.x + box.width * 0.3, box.y + box.height / 2]
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y }] })
    for (let step = 1; step <= 8; step++)
      await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [{ x: x + (byX * step) / 8, y: y + (byY * step) / 8 }] })
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  }
  const top = async () => (await slider.boundingBox())!.y
  await swipe(0, -120)
  await expect.poll(top).toBeLessThan(box.y - 40) // it was scrolled
  expect(await value()).toBe(stored)
  // A quick swipe goes on after the finger has left, as far as it likes: swiped back until it is where it was.
  await expect(async () => {
    await swipe(0, 200)
    await expect.poll(top, { timeout: 2000 }).toBe(box.y)
  }).toPass()
  expect(await value()).toBe(stored)
  await page.touchscreen.tap(box.x + box.width * 0.3, box.y + box.height / 2)
  await expect.poll(value).toBeLessThan(stored - 5)
  const tapped = await value()
  await swipe(box.width * 0.4, 0)
  await expect.poll(value).toBeGreaterThan(tapped + 5)
  for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z')
  await expect.poll(value).toBe(stored)
  await saved(page) // others play this kit
})
