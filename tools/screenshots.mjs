// npm run screenshots: one current picture of each place in docs/screenshots, from the demo data of a running Heliaster.
import { chromium } from '@playwright/test'
import { join } from 'node:path'

import { root } from './paths.mjs'

const base = process.env.HELIASTER_URL ?? `http://localhost:${process.env.HELIASTER_PORT ?? 8100}`
const folder = process.env.SHOTS ?? join(root, 'docs/screenshots')
const only = process.argv.slice(2)
const kit = `${base}/kit/demo-low-tide`
const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, deviceScaleFactor: 1 }
const wide = { viewport: { width: 1280, height: 800 } }
const openWalk = async (page) => {
  await page.goto(`${kit}/gather`)
  await page.getByRole('radio', { name: /^All \d+$/ }).click()
  await page.getByRole('button', { name: 'Cut Walk around the yard' }).click()
  await page
    .getByText(/\d+ hits/)
    .first()
    .waitFor()
  await page
    .getByRole('button', { name: /^Hear (?!all)/ })
    .first()
    .waitFor()
  await page.waitForTimeout(4000) // the faces of all pads are drawn
}
const pad = (page, name) => page.getByRole('button', { name: new RegExp(`^${name}`) }).first()

/** Each view: where it is, and what is done there before the picture. */
const views = [
  [
    'kits',
    phone,
    'light',
    async (page) => {
      await page.goto(base)
      await page
        .getByText(/^\d+ pads, changed/)
        .first()
        .waitFor()
    },
  ],
  [
    'gather',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/gather`)
      await page.getByText('Practice microphone', { exact: true }).click()
      await page.getByRole('button', { name: 'Record', exact: true }).click()
      await page.getByText(/^([4-9]|1\d) hits$/).waitFor({ timeout: 20000 })
    },
  ],
  [
    'gather-wide',
    wide,
    'dark',
    async (page) => {
      await page.goto(`${kit}/gather`)
      await page.getByText('Practice microphone', { exact: true }).click()
      await page.getByText(/^(A good level|Usable|Nearly full)/).waitFor({ timeout: 40000 })
    },
  ],
  [
    'hands',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/hands`)
      await page.getByRole('radio', { name: 'Computer keys' }).click()
      await page.getByRole('radio', { name: 'For a light hand' }).click()
      await page.keyboard.press('Alt+KeyX')
      await page.getByText(/^The last strike came as/).waitFor()
    },
  ],
  ['cut', phone, 'light', openWalk],
  ['cut-wide', wide, 'light', openWalk],
  [
    'board',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/board`)
      await pad(page, 'Tarp slap').click()
      await page.waitForTimeout(5000)
      await pad(page, 'Tarp slap').click() // its sound is there now
    },
  ],
  [
    'board-wide',
    wide,
    'dark',
    async (page) => {
      await page.goto(`${kit}/board`)
      await pad(page, 'Hull thump').click()
      await page.waitForTimeout(5000)
    },
  ],
  [
    'pad',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/board`)
      await pad(page, 'Hull thump').click()
      await page.getByRole('button', { name: 'Open pad' }).click()
      await page.getByRole('button', { name: /^Hear band 3, turn 2/ }).click()
      await page.waitForTimeout(4000) // all cells are drawn
    },
  ],
  [
    'place',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/gather`)
      await page.getByRole('textbox', { name: 'Find by name' }).fill('hull thump')
      await page.getByRole('button', { name: 'Select', exact: true }).click()
      await page.getByRole('button', { name: 'All 90 shown' }).click()
      await page.getByRole('button', { name: 'Put on pads' }).click()
      await page.getByRole('button', { name: 'Put all 90 there' }).waitFor()
      await page.getByText('being listened to').waitFor({ state: 'hidden', timeout: 120000 })
    },
  ],
  [
    'mix',
    phone,
    'dark',
    async (page) => {
      await page.goto(`${kit}/mix`)
      await page.getByRole('button', { name: 'Play', exact: true }).click()
      await page.waitForTimeout(5000)
    },
  ],
  [
    'shape',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/shape`)
      await pad(page, 'Keel drop').click()
      await page.getByText(/Hz,|unpitched/).waitFor()
    },
  ],
  [
    'shape-wide',
    wide,
    'light',
    async (page) => {
      await page.goto(`${kit}/shape`)
      await pad(page, 'Keel drop').click()
      await page.getByRole('radio', { name: 'Envelopes', exact: true }).click()
      await page.getByRole('radio', { name: 'Pitch', exact: true }).click()
      await page.getByText(/Hz,|unpitched/).waitFor()
      await page.getByText(/LUFS at velocity/).waitFor()
    },
  ],
  [
    'ship',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/ship`)
      await page.getByText(/^\d+ files/).waitFor({ timeout: 60000 })
    },
  ],
  [
    'performances',
    phone,
    'dark',
    async (page) => {
      await page.goto(`${kit}/board`)
      await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0)
      for (const key of ['z', 'c', 'x', 'c', 'z', 'v', 'x', 'c', 'b', 'z', 'x', 'c']) {
        await page.keyboard.press(key)
        await page.waitForTimeout(170)
      }
      await page.getByRole('button', { name: 'More', exact: true }).click()
      await page.getByRole('button', { name: 'What was played' }).click()
      await page.getByRole('button', { name: 'Keep' }).first().click()
      await page.getByText(/^Kept as/).waitFor()
      await page.getByText(/^Kept as/).waitFor({ state: 'detached', timeout: 30000 })
      await page.getByTestId('strings').focus()
      await page.keyboard.press('ArrowRight')
      await page.keyboard.press('ArrowRight')
    },
  ],
  // These change the kit, so they come last.
  [
    'groove',
    phone,
    'light',
    async (page) => {
      await page.goto(`${kit}/groove`)
      const strings = await page.getByTestId('strings').boundingBox()
      await page.getByRole('button', { name: 'Play' }).click()
      await page.touchscreen.tap(strings.x + 11 + (strings.width - 22) * (6 / 16), strings.y + 22 + 4.5 * 44)
      await page.getByRole('button', { name: 'Chance' }).click()
      await page.getByRole('slider', { name: 'Chance' }).press('PageDown')
      for (let i = 0; i < 3; i++) await page.getByRole('slider', { name: 'Chance' }).press('PageDown')
      await page.waitForTimeout(900)
    },
  ],
  [
    'groove-wide',
    wide,
    'dark',
    async (page) => {
      await page.goto(`${kit}/groove`)
      await page.getByRole('button', { name: 'Play' }).waitFor()
      await page.waitForTimeout(900)
    },
  ],
  [
    'mix-wide',
    wide,
    'light',
    async (page) => {
      await page.goto(`${kit}/mix`)
      await page.getByRole('button', { name: 'Play', exact: true }).click()
      await page.getByRole('button', { name: 'Settings of The whole kit' }).click()
      const there = page.getByRole('button', { name: 'Settings of Compressor' })
      if ((await there.count()) > 0) await there.first().click()
      else {
        await page.getByRole('button', { name: /effect/ }).click()
        await page.getByRole('button', { name: 'Compressor', exact: true }).click()
        await page.getByRole('radio', { name: 'Lets the stroke through' }).click()
      }
      await page.waitForTimeout(4000)
    },
  ],
  [
    'matter-wide',
    wide,
    'dark',
    async (page) => {
      await page.goto(`${kit}/shape`)
      await pad(page, 'Oar, low').click()
      await page.getByRole('radio', { name: 'Matter', exact: true }).click()
      await page.getByRole('button', { name: 'Slow down', exact: true }).click()
      await page.getByRole('button', { name: 'Stop the work' }).waitFor({ state: 'hidden', timeout: 60000 })
      await page.waitForTimeout(4000)
    },
  ],
]

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--disable-background-networking',
    '--autoplay-policy=no-user-gesture-required',
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
  ],
})
for (const [name, device, colorScheme, go] of views) {
  if (only.length > 0 && !only.includes(name)) continue
  const context = await browser.newContext({ ...device, colorScheme })
  const page = await context.newPage()
  page.on('pageerror', (error) => console.error(`${name}: ${error.message}`))
  page.on('console', (message) => message.type() === 'error' && console.error(`${name}: ${message.text()}`))
  await go(page)
  await page.waitForTimeout(900)
  await page.screenshot({ path: join(folder, `${name}.png`) })
  await context.close()
  console.log(name)
}
await browser.close()
